import type { Numbered } from '@yosegi/contract';
import { type Percent, ZERO } from '@yosegi/core/number';
import { openOf } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { refuseTooMuch } from '../items/index.ts';
import { nextNumber } from '../ledger/index.ts';
import { noteChanges } from './changes.sql.ts';
import { writeLines } from './lines.ts';
import { putAllBack } from './parcels.ts';
import { keepOpen, orderLines, orderParts, orderRecord } from './sql.ts';
import { current, requireState } from './state.ts';

type OrderInput = Omit<BodyOf<'saveOrder'>, 'version'>;

/** Enters an order; confirmed at once, what it needs is promised to it. @throws Refusal as {@link confirmOrder} */
export async function createOrder(doing: Doing, input: BodyOf<'createOrder'>): Promise<Numbered> {
  const { tx, person, now } = doing;
  const { discount } = await requireCustomer(tx, input.customerId);
  const id = await tx.insert('sales_order', {
    ...headOf(input),
    number: await nextNumber(tx, 'O'),
    state: 'quote',
    made_at: now.toISOString(),
    made_by: person.id,
  });
  await writeLines(tx, id, input.lines, { customer: discount, order: input.orderDiscount });
  doing.changed('orders');
  return input.confirm ? confirmOrder(doing, id, 0) : numbered(tx, 'sales_order', id);
}

/**
 * Changes an order: its lines keep what they took and what has left; new ones take what is in use now.
 * @throws Refusal `wrong-state`, `stale-save`, `order-line-gone`, `less-than-shipped`, and what a line is refused for
 */
export async function saveOrder(doing: Doing, id: number, input: BodyOf<'saveOrder'>): Promise<Numbered> {
  const { tx } = doing;
  const order = found(await orderRecord(tx, id));
  requireState(order, ['quote', 'confirmed']);
  const { discount } = await requireCustomer(tx, input.customerId, order.customer_id);
  const before = await orderLines(tx, [id]);
  await updateVersioned(tx, 'sales_order', id, input.version, headOf(input), () => current(doing, id));
  await writeLines(tx, id, input.lines, { customer: discount, order: input.orderDiscount });
  await noteChanges(doing, id, before);
  if (order.state === 'confirmed' && input.lines.length === 0) throw new Refusal('no-order-lines', {}, 'lines');
  await promised(doing, id);
  return numbered(tx, 'sales_order', id);
}

/** Confirms a quote. @throws Refusal `wrong-state`, `no-order-lines`, `stale-save` */
export async function confirmOrder(doing: Doing, id: number, version: number): Promise<Numbered> {
  const { tx, now } = doing;
  requireState(found(await orderRecord(tx, id)), ['quote']);
  if ((await orderLines(tx, [id])).length === 0) throw new Refusal('no-order-lines', {}, 'lines');
  const values = { state: 'confirmed' as const, confirmed_at: now.toISOString() };
  await updateVersioned(tx, 'sales_order', id, version, values, () => current(doing, id));
  await promised(doing, id);
  return numbered(tx, 'sales_order', id);
}

/**
 * Cancels an order of which nothing has left: what is in its parcel goes back to its shelves, what is being built for it is
 * for anybody. @throws Refusal `wrong-state`, `order-has-shipped`, `stale-save` */
export async function cancelOrder(doing: Doing, id: number, input: BodyOf<'cancelOrder'>): Promise<Numbered> {
  const { tx } = doing;
  const { number, state } = found(await orderRecord(tx, id));
  requireState({ number, state }, ['quote', 'confirmed']);
  const lines = await orderLines(tx, [id]);
  if (lines.some((line) => line.shipped > 0)) throw new Refusal('order-has-shipped');
  await putAllBack(
    doing,
    id,
    lines.map((line) => line.id),
    `${number} cancelled`,
  );
  const values = { state: 'cancelled' as const, reason: input.reason };
  await updateVersioned(tx, 'sales_order', id, input.version, values, () => current(doing, id));
  await promised(doing, id);
  return numbered(tx, 'sales_order', id);
}

/**
 * Gives up what is open of some lines; what is in a parcel for them goes back to its shelves.
 * @throws Refusal `wrong-state`, `unknown-line`, `more-than-ordered` where nothing is open, `stale-save`
 */
export async function dropLines(doing: Doing, id: number, input: BodyOf<'dropOrder'>): Promise<Numbered> {
  const { tx } = doing;
  const order = found(await orderRecord(tx, id));
  requireState(order, ['confirmed']);
  await putAllBack(doing, id, input.lineIds, `Given up of ${order.number}`);
  const before = await orderLines(tx, [id]);
  const known = new Map(before.map((line) => [line.id, line]));
  for (const [index, lineId] of input.lineIds.entries()) {
    const line = known.get(lineId);
    if (!line) throw new Refusal('unknown-line', {}, `lineIds.${index}`);
    if (openOf(line) === 0) throw new Refusal('more-than-ordered', { left: ZERO }, `lineIds.${index}`);
    const dropped = (line.quantity - line.shipped) as typeof line.dropped;
    await tx.models.order_line.update({ dropped }, { where: { id: lineId } });
  }
  await noteChanges(doing, id, before);
  await updateVersioned(tx, 'sales_order', id, input.version, { reason: input.reason }, () => current(doing, id));
  await promised(doing, id);
  return numbered(tx, 'sales_order', id);
}

/** What an order needs is promised to it from now on, or free again. */
async function promised(doing: Doing, id: number): Promise<void> {
  const { tx } = doing;
  await keepOpen(tx, id);
  const parts = await orderParts(
    tx,
    (await orderLines(tx, [id])).map((line) => line.id),
  );
  await refuseTooMuch(
    tx,
    parts.map((part) => part.item_id),
  );
  doing.changed('orders', 'items', 'stock', 'builds');
}

const headOf = (input: OrderInput) => ({
  customer_id: input.customerId,
  reference: input.reference,
  wanted_on: input.wantedOn,
  delivery: input.delivery,
  remark: input.remark,
  bench_note: input.benchNote,
  deliver_to: input.deliverTo,
  job_tag: input.jobTag,
  turn_on: input.turnOn,
  order_discount: input.orderDiscount,
  freight: input.freight,
});

/** @throws Refusal `unknown-choice`; `customer-archived` unless the order was theirs before */
async function requireCustomer(tx: Writer, id: number, before?: number): Promise<{ discount: Percent }> {
  const customer = await tx.models.customer.findByPk(id);
  if (!customer) throw new Refusal('unknown-choice', {}, 'customerId');
  if (customer.archived_at !== null && id !== before)
    throw new Refusal('customer-archived', { name: customer.name }, 'customerId');
  return customer;
}
