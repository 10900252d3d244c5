import { createHash } from 'node:crypto';
import { CustomerInput } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { fromZero, type Money, type Percent, positive, ZERO } from '@yosegi/core/number';
import type { MessageKind } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { type Message, type OrderDocument, readMessage, type TradeParty, unitCodeOf } from '@yosegi/core/ubl';
import { type Doing, required } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { numbered } from '../db/versions.ts';
import { type ItemRow, itemRows } from '../items/index.ts';
import {
  cancelOrder,
  createCustomer,
  createOrder,
  type OrderLineRecord,
  orderLines,
  pricesFor,
  readOrder as readOwn,
  saveOrder,
} from '../orders/index.ts';
import { freeCode, itemsByName, splitOff, theirOrder } from './sql.ts';

/**
 * Takes in what a customer or their shop sent. The same message again changes nothing, whoever sends it.
 * @param message what was read of the content
 * @throws Refusal `ubl-unreadable`, `order-sent-before`, `their-order-unknown`, `their-order-split`, `their-item-unknown`, and what the order is
 * refused for
 */
export async function takeOrderMessage(doing: Doing, content: string, message: Message = readMessage(content)) {
  const { kind, document } = message;
  const hash = createHash('sha256').update(content).digest('hex');
  const known = await doing.tx.models.order_message.findOne({ where: { hash } });
  if (known) return answerOf(doing, known.order_id, false);
  if (kind === 'Order') return kept(doing, await takeNew(doing, document), kind, hash, content);
  if (kind === 'OrderChange') return kept(doing, await takeChange(doing, document), kind, hash, content);
  if (kind === 'OrderCancellation') {
    const { number, why, buyer, buyerCode } = document;
    const id = await orderOf(doing.tx, number, buyer, buyerCode);
    await cancelAll(doing, id, why.slice(0, 500) || 'The customer no longer wants this');
    return kept(doing, id, kind, hash, content);
  }
  throw new Refusal('ubl-unreadable', { why: 'it is not an Order, OrderChange or OrderCancellation' }, 'content');
}

/** Cancels an order with whatever was split off it: it is one order to its customer. */
async function cancelAll(doing: Doing, id: number, reason: string): Promise<void> {
  const { tx } = doing;
  const own = required(await tx.models.sales_order.findByPk(id));
  for (const order of [own, ...(await splitOff(tx, id))]) {
    if (order.state === 'cancelled') continue;
    const { version } = await numbered(tx, 'sales_order', order.id);
    await cancelOrder(doing, order.id, { version, reason });
  }
}

async function kept(doing: Doing, orderId: number, kind: MessageKind, hash: string, content: string) {
  const { tx, now } = doing;
  await tx.insert('order_message', { order_id: orderId, kind, at: now.toISOString(), hash, content });
  return answerOf(doing, orderId, true);
}

async function answerOf({ tx, now }: Doing, id: number, isNew: boolean) {
  const { standing } = await readOwn(tx, id, dayOf(now));
  return { ...(await numbered(tx, 'sales_order', id)), standing, isNew };
}

/** An order that came: confirmed where its prices are ours, else a quote that somebody looks at first. */
async function takeNew(doing: Doing, document: OrderDocument): Promise<number> {
  const { tx } = doing;
  const customerId = await customerOf(doing, document);
  const before = await theirOrder(tx, customerId, document.number.slice(0, MOST_REFERENCE));
  if (before) throw new Refusal('order-sent-before', { theirs: document.number, number: before.number }, 'content');
  const sent = await linesOf(tx, document);
  const ours = await pricesFor(
    tx,
    customerId,
    sent.map(({ itemId }) => itemId),
  );
  // At our own prices it is like any other; what differs is theirs, and is looked at before it is promised.
  const lines = sent.map((line) => (ours.get(line.itemId) === line.price ? asOurs(line) : line));
  const agreed = lines.every(({ price }) => price === null);
  const { id } = await createOrder(doing, {
    customerId,
    reference: document.number.slice(0, MOST_REFERENCE),
    wantedOn: document.wantedOn,
    delivery: 'whole',
    remark: document.note.slice(0, 2000),
    benchNote: agreed ? '' : 'Its prices differ from ours: check them before you confirm.',
    jobTag: '',
    deliverTo: placeOf(document),
    turnOn: null,
    orderDiscount: ZERO,
    freight: ZERO,
    lines,
    confirm: agreed,
  });
  await tx.models.sales_order.update({ came_by: 'message' }, { where: { id } });
  await nameLines(tx, id, document);
  return id;
}

const asOurs = <T>(line: T) => ({ ...line, price: null });

/** As many characters and lines as an order that is typed has. */
const MOST_REFERENCE = 120;
const MOST_LINES = 200;

const placeOf = ({ deliverTo }: OrderDocument) => deliverTo.join('\n').slice(0, 400);

/** An order as it is to be now: lines are known by what the customer calls them. */
async function takeChange(doing: Doing, document: OrderDocument): Promise<number> {
  const { tx } = doing;
  const id = await orderOf(tx, document.number, document.buyer, document.buyerCode);
  const parts = await splitOff(tx, id);
  if (parts.length > 0) {
    const { number } = await numbered(tx, 'sales_order', id);
    const facts = { theirs: document.number.slice(0, 60), orders: [number, ...parts.map((part) => part.number)] };
    throw new Refusal('their-order-split', facts, 'content');
  }
  const order = await readOwn(tx, id, dayOf(doing.now));
  const own = required(await tx.models.sales_order.findByPk(id));
  const known = await orderLines(tx, [id]);
  const lines = await linesOf(tx, document, known);
  await saveOrder(doing, id, {
    version: order.version,
    customerId: order.customerId,
    reference: order.reference,
    wantedOn: document.wantedOn,
    delivery: order.delivery,
    remark: document.note.slice(0, 2000),
    benchNote: order.benchNote,
    deliverTo: placeOf(document) || order.deliverTo,
    jobTag: order.jobTag,
    turnOn: order.turnOn,
    // What we took off it, and what we bring it for, is none of theirs.
    orderDiscount: own.order_discount,
    freight: own.freight,
    lines,
  });
  await nameLines(tx, id, document);
  return id;
}

/** Our lines by theirs, in the order they were sent. */
async function nameLines(tx: Writer, orderId: number, document: OrderDocument): Promise<void> {
  const lines = await orderLines(tx, [orderId]);
  for (const [index, line] of lines.entries())
    await tx.models.order_line.update(
      { their_line: document.lines[index]?.id.slice(0, 100) ?? '' },
      { where: { id: line.id } },
    );
}

async function linesOf(tx: Writer, document: OrderDocument, known: readonly OrderLineRecord[] = []) {
  if (document.lines.length === 0) throw new Refusal('ubl-unreadable', { why: 'it has no lines' }, 'content');
  if (document.lines.length > MOST_LINES) throw new Refusal('too-many-lines', { most: MOST_LINES }, 'content');
  const ids = await itemsByName(
    tx,
    document.lines.flatMap(({ supplierCode, code, gtin }) => [supplierCode, gtin ?? '', code]),
  );
  const items = await itemRows(tx, [...ids.values()]);
  return document.lines.map((line) => {
    const name = [line.supplierCode, line.gtin ?? '', line.code].find((one) => one && ids.has(one.toLowerCase()));
    const item = name === undefined ? undefined : items.get(ids.get(name.toLowerCase()) ?? 0);
    const said = line.supplierCode || line.gtin || line.code || line.name;
    if (!item)
      throw new Refusal('their-item-unknown', { code: said.slice(0, 60), line: line.id.slice(0, 20) }, 'content');
    refuseUnit(line.id, line.unit, item);
    const own = known.find(({ their_line, item_id }) => their_line === line.id && item_id === item.id);
    return {
      id: own?.id ?? null,
      itemId: item.id,
      quantity: positive(line.quantity, 'content'),
      ...priceOf(own, fromZero(line.price, 'content')),
      wantedOn: line.wantedOn,
      contents: null,
    };
  });
}

/** What was agreed stays agreed, whatever the customer's terms are by now: only another price is another price. */
function priceOf(own: OrderLineRecord | undefined, theirs: Money): { price: Money | null; discount: Percent } {
  if (!own || ![own.price, own.list_price].includes(theirs)) return { price: theirs, discount: ZERO };
  return { price: own.price_from === 'typed' ? own.list_price : null, discount: own.discount };
}

/** @throws Refusal `ubl-unreadable` where they count in another unit than we do */
function refuseUnit(line: string, theirs: string, { unit }: ItemRow): void {
  const ours = unitCodeOf(unit);
  if (theirs === '' || ours === null || theirs === ours) return;
  throw new Refusal('ubl-unreadable', { why: `line ${line} counts in ${theirs}, but we count in ${ours}` }, 'content');
}

/** @throws Refusal `their-order-unknown` */
async function orderOf(tx: Writer, theirs: string, buyer: TradeParty, buyerCode: string): Promise<number> {
  const customer = await knownCustomer(tx, buyer, buyerCode);
  const order = customer && (await theirOrder(tx, customer.id, theirs.slice(0, MOST_REFERENCE)));
  if (!order) throw new Refusal('their-order-unknown', { theirs: theirs.slice(0, 60) }, 'content');
  return order.id;
}

/** By what we call them, else by their mail address, else by their name. */
export async function knownCustomer(tx: Writer, buyer: TradeParty, buyerCode: string) {
  const { customer } = tx.models;
  const byCode = buyerCode === '' ? null : await customer.findOne({ where: { code: buyerCode } });
  if (byCode) return byCode;
  const byMail = buyer.email === null ? null : await customer.findOne({ where: { email: buyer.email } });
  return byMail ?? customer.findOne({ where: { name: buyer.name } });
}

/** Whoever sends an order for the first time is a customer from then on. */
async function customerOf(doing: Doing, { buyer, buyerCode }: OrderDocument): Promise<number> {
  const known = await knownCustomer(doing.tx, buyer, buyerCode);
  if (known) return known.id;
  if (buyer.name.trim() === '')
    throw new Refusal('ubl-unreadable', { why: 'it does not say who the customer is' }, 'content');
  const { id } = await createCustomer(doing, {
    code: await freeCode(doing.tx),
    name: buyer.name.trim().slice(0, 120),
    contact: '',
    email: CustomerInput.shape.email.safeParse(buyer.email ?? '').data ?? '',
    phone: '',
    billing: buyer.address.join('\n').slice(0, 400),
    delivery: '',
    discount: ZERO,
    transportDays: null,
    returnDays: null,
    note: '',
    fields: [],
  });
  return id;
}
