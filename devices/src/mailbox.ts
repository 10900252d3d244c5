import { dayAfter } from '@yosegi/core/days';
import type { Quantity } from '@yosegi/core/number';
import { MOST_SERIALS } from '@yosegi/core/tracking';
import {
  type Despatch,
  type OrderDocument,
  readOrder,
  writeDespatchAdvice,
  writeOrderResponse,
} from '@yosegi/core/ubl';

export type SupplierAnswer = 'confirm' | 'delay' | 'deliver' | 'deliver-part';

export interface Answering {
  readonly answer: SupplierAnswer;
  /** How many days later than asked, for a delay. */
  readonly days: number;
  readonly today: string;
  /** Makes the numbers of its papers unlike any before. */
  readonly number: number;
  /** What it has sent off of this order already. */
  readonly sent: readonly Despatch[];
  /** What is printed on its goods, by line: a lot, serial numbers, or neither. */
  readonly keptBy: ReadonlyMap<string, 'none' | 'lot' | 'serial'>;
  /** Lines of which no more is wanted. */
  readonly closed: ReadonlySet<string>;
}

/** Days it takes when nobody asked for one. */
const USUAL_DAYS = 7;
const KEEPS_DAYS = 540;

/**
 * Stands in for a supplier: reads an order as it was sent and answers as a supplier would, with the standard's own
 * documents. @returns the answer as UBL text; null when there is nothing left to send
 */
export function answerOrder(orderXml: string, answering: Answering): string | null {
  const order = readOrder(orderXml);
  if (answering.answer === 'confirm' || answering.answer === 'delay') return promise(order, answering);
  return despatch(order, answering);
}

function promise(order: OrderDocument, { answer, days, today, number }: Answering): string {
  return writeOrderResponse(
    {
      number: `${order.sellerCode}-C${number}`,
      order: order.number,
      issuedOn: today,
      note: answer === 'delay' ? 'We are sorry, this will take longer.' : '',
      lines: order.lines.map((line) => {
        const asked = line.wantedOn ?? order.wantedOn ?? dayAfter(today, USUAL_DAYS);
        const promisedOn = answer === 'delay' ? dayAfter(asked < today ? today : asked, days) : asked;
        return { id: line.id, quantity: line.quantity, unit: line.unit, name: line.name, promisedOn };
      }),
    },
    order.seller,
    order.buyer,
  );
}

function despatch(order: OrderDocument, { answer, today, number, sent, keptBy, closed }: Answering): string | null {
  const gone = (id: string) =>
    sent.flatMap((one) => one.lines).reduce((sum, line) => sum + (line.orderLine === id ? line.quantity : 0), 0);
  const left = order.lines
    .filter(({ id }) => !closed.has(id))
    .map((line) => ({ line, open: Math.max(0, line.quantity - gone(line.id)) as Quantity }))
    .filter(({ open }) => open > 0);
  if (left.length === 0) return null;
  const note = `${order.sellerCode}-D${number}`;
  const lines = left.map(({ line, open }): Despatch['lines'][number] => {
    const by = keptBy.get(line.id) ?? 'none';
    // Half of it in whole units: every unit has those.
    const half = (Math.max(1, Math.floor(open / 2_000_000)) * 1_000_000) as Quantity;
    const all = answer === 'deliver-part' && open > 1_000_000 ? half : open;
    // Serials are printed one by one: more than can be named at once go with the next delivery.
    const quantity = (by === 'serial' ? Math.min(all, MOST_SERIALS * 1_000_000) : all) as Quantity;
    return {
      orderLine: line.id,
      quantity,
      unit: '',
      name: line.name,
      lot: by === 'lot' ? `${note}-${line.id}` : null,
      bestBefore: by === 'lot' ? dayAfter(today, KEEPS_DAYS) : null,
      serials:
        by === 'serial' ? Array.from({ length: quantity / 1_000_000 }, (_, n) => `${note}-${line.id}-${n + 1}`) : [],
    };
  });
  return writeDespatchAdvice({ number: note, order: order.number, issuedOn: today, lines }, order.seller, order.buyer);
}
