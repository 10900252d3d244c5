import type { Numbered, SentHow } from '@yosegi/contract';
import { openBuildStates } from '@yosegi/core/builds';
import { dayAfter, dayOf } from '@yosegi/core/days';
import { countedIn, least, minus, worthOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { refuseTooManySerials } from '@yosegi/core/tracking';
import { refuseUnkept } from '../command/amounts.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { itemRows, refuseTooMuch, refuseTwice } from '../items/index.ts';
import { nextNumber } from '../ledger/index.ts';
import { readLeads } from './leads.ts';
import { postOrder, postWords } from './outbox.ts';
import { keepPromise, type OrderRecord, openOf, orderLines, orderRecord, readOrder, setOpen } from './sql.ts';

type PurchaseOrderInput = BodyOf<'createPurchases'>['orders'][number];

/** Drafts orders; several at once when a buy list becomes an order for each supplier. */
export async function createOrders(
  doing: Doing,
  inputs: readonly PurchaseOrderInput[],
  send: SentHow | null,
): Promise<Numbered[]> {
  const { tx, person, now } = doing;
  const made: Numbered[] = [];
  for (const [index, input] of inputs.entries()) {
    const at = (name: string) => (inputs.length > 1 ? `orders.${index}.${name}` : name);
    await requireSupplier(tx, input.supplierId, at('supplierId'));
    const id = await tx.insert('purchase_order', {
      number: await nextNumber(tx, 'PO'),
      supplier_id: input.supplierId,
      state: 'draft',
      wanted_on: input.wantedOn,
      remark: input.remark,
      made_at: now.toISOString(),
      made_by: person.id,
    });
    await insertLines(tx, id, input, at);
    made.push(send ? await sendOrder(doing, id, { version: 0, how: send }) : await numbered(tx, 'purchase_order', id));
  }
  doing.changed('buying');
  return made;
}

/** Changes a draft. @throws Refusal `wrong-state`, `stale-save` */
export async function saveOrder(doing: Doing, id: number, input: BodyOf<'savePurchase'>): Promise<Numbered> {
  const { tx } = doing;
  requireState(await orderRecord(tx, id), ['draft']);
  await requireSupplier(tx, input.supplierId, 'supplierId');
  await keepOrder(doing, id, input.version, {
    supplier_id: input.supplierId,
    wanted_on: input.wantedOn,
    remark: input.remark,
  });
  await tx.models.purchase_order_line.destroy({ where: { order_id: id } });
  await insertLines(tx, id, input, (name) => name);
  doing.changed('buying');
  return input.send
    ? sendOrder(doing, id, { version: input.version + 1, how: input.send })
    : numbered(tx, 'purchase_order', id);
}

async function requireSupplier(tx: Writer, id: number, field: string): Promise<void> {
  if (!(await tx.models.supplier.findByPk(id))) throw new Refusal('unknown-choice', {}, field);
}

async function insertLines(
  tx: Writer,
  orderId: number,
  { supplierId, lines }: PurchaseOrderInput,
  at: (name: string) => string,
): Promise<void> {
  const items = await itemRows(
    tx,
    lines.map((line) => line.itemId),
  );
  const offers = await tx.models.item_supplier.findAll({ where: { supplier_id: supplierId } });
  const codes = new Map(offers.map((offer) => [offer.item_id, offer.code]));
  for (const [index, line] of lines.entries()) {
    const field = (name: string) => at(`lines.${index}.${name}`);
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, field('itemId'));
    if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, field('itemId'));
    const quantity = countedIn(line.quantity, item.decimals, field('quantity'));
    refuseTooManySerials(item.tracking, quantity, field('quantity'));
    const { price } = line;
    refuseUnkept(() => worthOf(quantity, price), field('price'));
    const lineId = await tx.insert('purchase_order_line', {
      order_id: orderId,
      position: index + 1,
      item_id: item.id,
      supplier_code: codes.get(item.id) ?? '',
      quantity,
      price,
      wanted_on: line.wantedOn,
    });
    refuseTwice(
      line.needs.map(({ buildId }) => String(buildId)),
      (at) => field(`needs.${at}.buildId`),
    );
    let left = quantity;
    for (const need of line.needs) {
      const build = await tx.models.build.findOne({ where: { id: need.buildId, state: [...openBuildStates] } });
      // What it was bought for may be over by now, or want more than is bought; the link then says what is left of it.
      const wanted = least(left, countedIn(need.quantity, item.decimals, field('needs')));
      if (!build || wanted <= 0) continue;
      left = minus(left, wanted);
      await tx.insert('purchase_need', { line_id: lineId, build_id: need.buildId, quantity: wanted });
    }
    refuseTwice(
      line.orders.map((own) => String(own.orderId)),
      (at) => field(`orders.${at}.orderId`),
    );
    for (const need of line.orders) {
      const order = await tx.models.sales_order.findOne({ where: { id: need.orderId, open: 1 } });
      const wanted = least(left, countedIn(need.quantity, item.decimals, field('orders')));
      if (!order || wanted <= 0) continue;
      left = minus(left, wanted);
      await tx.insert('purchase_for_order', { line_id: lineId, order_id: need.orderId, quantity: wanted });
    }
  }
}

/** Sends a draft: from now on it is coming. @throws Refusal `wrong-state`, `no-order-lines`, `supplier-no-mail` */
export async function sendOrder(doing: Doing, id: number, { version, how }: BodyOf<'sendPurchase'>): Promise<Numbered> {
  const { tx, person, now } = doing;
  const order = await orderRecord(tx, id);
  requireState(order, ['draft']);
  const lines = await orderLines(tx, [id]);
  if (lines.length === 0) throw new Refusal('no-order-lines');
  await keepOrder(doing, id, version, {
    state: 'sent',
    sent_at: now.toISOString(),
    sent_by: person.id,
    sent_how: how,
  });
  const today = dayOf(now);
  const leads = await readLeads(tx, order.supplier_id, today);
  for (const line of lines) {
    const wanted = line.wanted_on ?? order.wanted_on;
    // Wanting it sooner brings nothing sooner; and being on time is measured by what they say, not by what we have learnt.
    const stated = line.lead_days === null ? null : dayAfter(today, line.lead_days);
    const known = {
      expected_on: laterOf(wanted, leads.expected(line.item_id, line.lead_days)),
      promised_on: laterOf(wanted, stated),
    };
    await tx.models.purchase_order_line.update(known, { where: { id: line.id } });
  }
  if (how === 'mailbox') await postOrder(doing, id);
  return keepOpen(doing, id);
}

const laterOf = (one: string | null, other: string | null): string | null =>
  one === null || (other !== null && other > one) ? other : one;

/** Enters what a supplier promised, as told by phone, letter or message. @throws Refusal `wrong-state`, `unknown-line` */
export async function confirmOrder(
  doing: Doing,
  id: number,
  { version, reference, lines }: BodyOf<'confirmPurchase'>,
): Promise<Numbered> {
  const { tx, now } = doing;
  const order = await orderRecord(tx, id);
  requireState(order, ['sent', 'confirmed']);
  await keepOrder(doing, id, version, {
    state: 'confirmed',
    confirmed_at: now.toISOString(),
    reference: reference || order.reference,
  });
  const known = new Map((await orderLines(tx, [id])).map((line) => [line.id, line]));
  for (const [index, promised] of lines.entries()) {
    const line = known.get(promised.lineId);
    if (!line) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    const quantity = countedIn(promised.quantity, line.decimals, `lines.${index}.quantity`);
    // Being on time is measured by the first promise, not by the last excuse.
    await keepPromise(tx, line.id, quantity, promised.on);
  }
  return keepOpen(doing, id);
}

/** Says that the rest of some lines will not come. @throws Refusal `wrong-state`, `unknown-line` */
export async function closeLines(
  doing: Doing,
  id: number,
  { version, lineIds }: BodyOf<'closePurchase'>,
): Promise<Numbered> {
  const { tx } = doing;
  const order = await orderRecord(tx, id);
  requireState(order, ['sent', 'confirmed']);
  await keepOrder(doing, id, version, {});
  const lines = (await orderLines(tx, [id])).filter((line) => lineIds.includes(line.id));
  if (lines.length < new Set(lineIds).size) throw new Refusal('unknown-line', {}, 'lineIds');
  await tx.models.purchase_order_line.update({ closed: 1 }, { where: { id: [...lineIds] } });
  const open = lines.filter((line) => line.open > 0).map((line) => line.name);
  if (order.sent_how === 'mailbox' && open.length > 0)
    await postWords(
      doing,
      id,
      'change',
      `We no longer need what is still open on order ${order.number}: ${open.join(', ')}.`,
    );
  return keepOpen(doing, id);
}

/** Cancels an order of which nothing has come. @throws Refusal `wrong-state`, `order-has-receipts` */
export async function cancelOrder(doing: Doing, id: number, version: number): Promise<Numbered> {
  const { tx } = doing;
  const order = await orderRecord(tx, id);
  requireState(order, ['draft', 'sent', 'confirmed']);
  if ((await orderLines(tx, [id])).some((line) => line.received > 0)) throw new Refusal('order-has-receipts');
  await keepOrder(doing, id, version, { state: 'cancelled' });
  if (order.sent_how === 'mailbox')
    await postWords(doing, id, 'cancellation', `We cancel our order ${order.number}. Please do not send it.`);
  return keepOpen(doing, id);
}

/** Keeps beside each line what is still to come of it, once anything about it has changed. */
export async function keepOpen(doing: Doing, id: number): Promise<Numbered> {
  const { tx } = doing;
  const order = await orderRecord(tx, id);
  const open = (await orderLines(tx, [id])).map((line) => [line.id, openOf(order.state, line)] as const);
  await setOpen(tx, open);
  await refuseTooMuch(
    tx,
    (await orderLines(tx, [id])).map((line) => line.item_id),
  );
  doing.changed('buying', 'items', 'builds');
  return numbered(tx, 'purchase_order', id);
}

/** Counts up the version of an order with what changed of it, for whoever has it open. */
export async function keepOrder(
  doing: Doing,
  id: number,
  version: number,
  values: Record<string, string | number | null>,
): Promise<void> {
  await updateVersioned(doing.tx, 'purchase_order', id, version, values, () => readOrder(doing.tx, id, doing.now));
}

/** @throws Refusal `wrong-state`, with what it is and what to do next */
export function requireState(order: OrderRecord, states: readonly OrderRecord['state'][]): void {
  found(order);
  if (states.includes(order.state)) return;
  throw new Refusal('wrong-state', { kind: 'purchase order', number: order.number, state: order.state });
}
