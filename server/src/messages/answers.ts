import type { Order } from '@yosegi/contract';
import { dayOf, LATER } from '@yosegi/core/days';
import { groupBy } from '@yosegi/core/lists';
import { minus, parseQuantity } from '@yosegi/core/number';
import { type Despatch, type TradeParty, writeDespatchAdvice, writeOrderResponse } from '@yosegi/core/ubl';
import { found, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { orderLines, readOrder } from '../orders/index.ts';
import { readShipment, shippedLots } from '../shipping/index.ts';

const linesOf = (address: string) =>
  address
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** Who sells and who buys, at the address they are billed at, or, for goods, where those go. */
async function parties(
  db: Reader,
  { customerId, deliverTo }: Order,
  goods = false,
): Promise<{ seller: TradeParty; buyer: TradeParty }> {
  const company = required(await db.models.company.findByPk(1));
  const customer = required(await db.models.customer.findByPk(customerId));
  return {
    seller: { name: company.name, address: linesOf(company.address), email: company.email || null },
    buyer: {
      name: customer.name,
      address: linesOf((goods && (deliverTo || customer.delivery)) || customer.billing),
      email: customer.email || null,
    },
  };
}

/** What they call a line; else where it stands on our order. */
const nameOf = (line: { readonly their_line: string; readonly position: number }) =>
  line.their_line || String(line.position + 1);

/** What an order is promised for, line by line, as a UBL 2.3 OrderResponse. */
export async function responseXml(db: Reader, orderId: number, now: Date): Promise<{ name: string; xml: string }> {
  const today = dayOf(now);
  const order = await readOrder(db, orderId, today);
  const { seller, buyer } = await parties(db, order);
  const names = new Map((await orderLines(db, [orderId])).map((line) => [line.id, nameOf(line)]));
  const xml = writeOrderResponse(
    {
      number: order.number,
      order: order.reference || order.number,
      issuedOn: today,
      note: noteOf(order),
      lines: order.lines.map((line) => ({
        id: found(names.get(line.id)),
        quantity: minus(parseQuantity(line.quantity, 6), parseQuantity(line.dropped, 6)),
        unit: line.unit,
        name: line.name,
        promisedOn: promisedOn(line, today),
      })),
    },
    seller,
    buyer,
  );
  return { name: `${order.number}-response.xml`, xml };
}

/** The day goods are with the customer; what is here, and is fetched, today. None where nobody knows one. */
const promisedOn = ({ open, arrivesOn }: Order['lines'][number], today: string) =>
  open === '0' || arrivesOn === null || arrivesOn >= LATER ? null : arrivesOn || today;

function noteOf({ standing, reason }: Order): string {
  if (standing === 'quote') return 'Not confirmed yet.';
  if (standing === 'cancelled') return `Cancelled. ${reason}`.trim();
  return '';
}

/** What left with a shipment, as a UBL 2.3 DespatchAdvice. */
export async function despatchXml(db: Reader, shipmentId: number, now: Date): Promise<{ name: string; xml: string }> {
  const shipment = await readShipment(db, shipmentId);
  const order = await readOrder(db, shipment.orderId, dayOf(now));
  const { seller, buyer } = await parties(db, order, true);
  const names = new Map((await orderLines(db, [shipment.orderId])).map((line) => [line.id, nameOf(line)]));
  const lots = groupBy(await shippedLots(db, shipmentId), ({ line_id }) => line_id);
  const lines = shipment.lines.flatMap((line): Despatch['lines'][number][] => {
    const tracked = line.isKit ? undefined : line.parts[0];
    const whole = {
      orderLine: found(names.get(line.lineId)),
      quantity: parseQuantity(line.quantity, 6),
      unit: line.unit,
      name: line.name,
      lot: null,
      bestBefore: null,
      serials: tracked?.isSerial ? tracked.pieces : [],
    };
    // Each lot is a line of its own: only so is it said how much came of it.
    const own = lots.get(line.lineId) ?? [];
    if (own.length === 0) return [whole];
    return own.map(({ lot, best_before, quantity }) => ({ ...whole, quantity, lot, bestBefore: best_before }));
  });
  const advice = {
    number: shipment.number,
    order: order.reference || order.number,
    issuedOn: dayOf(shipment.at),
    lines,
  };
  return { name: `${shipment.number}.xml`, xml: writeDespatchAdvice(advice, seller, buyer) };
}
