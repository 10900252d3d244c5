import type { Numbered } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type Despatch, type Message, type OrderPromise, readMessage, unitCodeOf } from '@yosegi/core/ubl';
import type { Doing } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { numbered } from '../db/versions.ts';
import { confirmOrder, keepOpen, requireState } from './orders.ts';
import { type OrderLineRecord, type OrderRecord, orderLines, orderRecord } from './sql.ts';

/**
 * Takes in what a supplier sent: a promise confirms its order, an announced delivery waits to be received. The same
 * message twice changes nothing.
 * @param message what was read of the content
 * @throws Refusal `ubl-unreadable`, `order-unknown`, `wrong-state`
 */
export async function takeMail(
  doing: Doing,
  content: string,
  message: Message = readMessage(content),
): Promise<Numbered> {
  if (message.kind === 'OrderResponse') return takePromise(doing, content, message.document);
  if (message.kind === 'DespatchAdvice') return takeDespatch(doing, content, message.document);
  throw new Refusal('ubl-unreadable', { why: 'it is neither an OrderResponse nor a DespatchAdvice' }, 'content');
}

async function takePromise(doing: Doing, content: string, promise: OrderPromise): Promise<Numbered> {
  const { tx } = doing;
  const id = await orderOf(tx, promise.order);
  if (await known(tx, id, content)) return numbered(tx, 'purchase_order', id);
  const order = await orderRecord(tx, id);
  const lines = await orderLines(tx, [id]);
  const promised = promise.lines.map((own) => ({ own, line: lineOf(order, lines, own.id, own.unit) }));
  await keepMail(doing, id, 'order-response', `${order.supplier} confirms ${order.number}`, content);
  return confirmOrder(doing, id, {
    version: order.version,
    reference: promise.number,
    lines: promised.map(({ own, line }) => ({ lineId: line.id, quantity: own.quantity, on: own.promisedOn })),
  });
}

async function takeDespatch(doing: Doing, content: string, despatch: Despatch): Promise<Numbered> {
  const { tx } = doing;
  const id = await orderOf(tx, despatch.order);
  if (await known(tx, id, content)) return numbered(tx, 'purchase_order', id);
  const order = await orderRecord(tx, id);
  requireState(order, ['sent', 'confirmed']);
  const lines = await orderLines(tx, [id]);
  for (const own of despatch.lines) lineOf(order, lines, own.orderLine, own.unit);
  const subject = `${order.supplier} has sent off ${order.number}, delivery note ${despatch.number}`;
  await keepMail(doing, id, 'despatch-advice', subject, content);
  return keepOpen(doing, id);
}

/**
 * The line of ours that a line of theirs speaks of.
 * @throws Refusal `ubl-unreadable` when there is none, or when it counts in another unit than was ordered
 */
function lineOf(order: OrderRecord, lines: readonly OrderLineRecord[], id: string, unitCode: string): OrderLineRecord {
  const line = lines.find((one) => String(one.position) === id);
  if (!line) throw new Refusal('ubl-unreadable', { why: `${order.number} has no line ${id.slice(0, 20)}` }, 'content');
  const ordered = unitCodeOf(line.unit);
  if (unitCode !== '' && ordered !== null && unitCode !== ordered)
    throw new Refusal(
      'ubl-unreadable',
      { why: `line ${id} is in ${unitCode}, but was ordered in ${ordered}` },
      'content',
    );
  return line;
}

async function orderOf(tx: Writer, number: string): Promise<number> {
  const order = await tx.models.purchase_order.findOne({ where: { number } });
  if (!order) throw new Refusal('order-unknown', { number: number.slice(0, 40) }, 'content');
  return order.id;
}

const known = async (tx: Writer, orderId: number, content: string) =>
  (await tx.models.mail.findOne({ where: { order_id: orderId, direction: 'in', content } })) !== null;

async function keepMail(
  { tx, now }: Doing,
  orderId: number,
  kind: 'order-response' | 'despatch-advice',
  subject: string,
  content: string,
): Promise<void> {
  await tx.insert('mail', { order_id: orderId, direction: 'in', kind, at: now.toISOString(), subject, content });
}
