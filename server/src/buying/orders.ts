import type { PurchaseOrder, PurchaseOrderInput, SentHow } from '@yosegi/contract';
import { dayAfter, learnLead } from '@yosegi/core/buying';
import { parseQuantity, worthOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { refuseTooManySerials } from '@yosegi/core/tracking';
import type { Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { moneyFromZero, positiveQuantity, quantityFromZero, refuseUnkept } from '../http/amounts.ts';
import { type Doing, dayOf, found } from '../http/context.ts';
import { refuseTwice } from '../items/service.ts';
import { itemRows, refuseTooMuch } from '../items/store.ts';
import { nextNumber } from '../stock/posting.ts';
import { deliveriesOf } from './leads.ts';
import { postOrder, postWords } from './outbox.ts';
import { type OrderRecord, openOf, orderLines, orderRecord, readOrder } from './store.ts';

/** Drafts orders; several at once when a buy list becomes an order for each supplier. */
export async function createOrders(
  doing: Doing,
  inputs: readonly PurchaseOrderInput[],
  send: SentHow | null,
): Promise<PurchaseOrder[]> {
  const { tx, person, now } = doing;
  const made: PurchaseOrder[] = [];
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
    made.push(send ? await sendOrder(doing, id, { version: 0, how: send }) : await readOrder(tx, id, now));
  }
  doing.changed('buying');
  return made;
}

/** Changes a draft. @throws Refusal `wrong-state`, `stale-save` */
export async function saveOrder(
  doing: Doing,
  id: number,
  input: PurchaseOrderInput & { version: number; send: SentHow | null },
): Promise<PurchaseOrder> {
  const { tx, now } = doing;
  requireState(await orderRecord(tx, id), ['draft']);
  await requireSupplier(tx, input.supplierId, 'supplierId');
  await keepOrder(doing, id, input.version, {
    supplier_id: input.supplierId,
    wanted_on: input.wantedOn,
    remark: input.remark,
  });
  await tx.run('DELETE FROM purchase_order_line WHERE order_id = $1', [id]);
  await insertLines(tx, id, input, (name) => name);
  doing.changed('buying');
  return input.send ? sendOrder(doing, id, { version: input.version + 1, how: input.send }) : readOrder(tx, id, now);
}

async function requireSupplier(tx: Writer, id: number, field: string): Promise<void> {
  if (!(await tx.one('SELECT 1 FROM supplier WHERE id = $1', [id]))) throw new Refusal('unknown-choice', {}, field);
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
  const codes = new Map(
    (
      await tx.all<{ item_id: number; code: string }>(
        'SELECT item_id, code FROM item_supplier WHERE supplier_id = $1',
        [supplierId],
      )
    ).map((row) => [row.item_id, row.code]),
  );
  for (const [index, line] of lines.entries()) {
    const field = (name: string) => at(`lines.${index}.${name}`);
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, field('itemId'));
    if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, field('itemId'));
    const quantity = positiveQuantity(line.quantity, item.decimals, field('quantity'));
    refuseTooManySerials(item.tracking, quantity, field('quantity'));
    const price = moneyFromZero(line.price, field('price'));
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
    let left: number = quantity;
    for (const need of line.needs) {
      const build = await tx.one("SELECT 1 FROM build WHERE id = $1 AND state IN ('planned', 'on-bench')", [
        need.buildId,
      ]);
      // What it was bought for may be over by now, or want more than is bought; the link then says what is left of it.
      const wanted = Math.min(left, parseQuantity(need.quantity, item.decimals, field('needs')));
      if (!build || wanted <= 0) continue;
      left -= wanted;
      await tx.insert('purchase_need', { line_id: lineId, build_id: need.buildId, quantity: wanted });
    }
  }
}

/** Sends a draft: from now on it is coming. @throws Refusal `wrong-state`, `no-order-lines`, `supplier-no-mail` */
export async function sendOrder(
  doing: Doing,
  id: number,
  { version, how }: { version: number; how: SentHow },
): Promise<PurchaseOrder> {
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
  const deliveries = await deliveriesOf(
    tx,
    order.supplier_id,
    lines.map((line) => line.item_id),
  );
  for (const line of lines) {
    const days = learnLead(deliveries.get(line.item_id) ?? [])?.usual ?? line.lead_days;
    const expected = line.wanted_on ?? order.wanted_on ?? (days === null ? null : dayAfter(today, days));
    await tx.run('UPDATE purchase_order_line SET expected_on = $1, promised_on = $1 WHERE id = $2', [
      expected,
      line.id,
    ]);
  }
  if (how === 'mailbox') await postOrder(doing, id);
  return keepOpen(doing, id);
}

export interface Promised {
  readonly lineId: number;
  readonly quantity: string;
  readonly on: string | null;
}

/** Enters what a supplier promised, as told by phone, letter or message. @throws Refusal `wrong-state`, `unknown-line` */
export async function confirmOrder(
  doing: Doing,
  id: number,
  { version, reference, lines }: { version: number; reference: string; lines: readonly Promised[] },
): Promise<PurchaseOrder> {
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
    const quantity = quantityFromZero(promised.quantity, line.decimals, `lines.${index}.quantity`);
    // Being on time is measured by the first promise, not by the last excuse.
    await tx.run(
      `UPDATE purchase_order_line SET confirmed_quantity = $1,
         promised_on = iif(confirmed_on IS NULL, ifnull($2, promised_on), promised_on),
         confirmed_on = ifnull($2, confirmed_on), expected_on = ifnull($2, expected_on) WHERE id = $3`,
      [quantity, promised.on, line.id],
    );
  }
  return keepOpen(doing, id);
}

/** Says that the rest of some lines will not come. @throws Refusal `wrong-state`, `unknown-line` */
export async function closeLines(
  doing: Doing,
  id: number,
  { version, lineIds }: { version: number; lineIds: readonly number[] },
): Promise<PurchaseOrder> {
  const { tx } = doing;
  const order = await orderRecord(tx, id);
  requireState(order, ['sent', 'confirmed']);
  await keepOrder(doing, id, version, {});
  const lines = (await orderLines(tx, [id])).filter((line) => lineIds.includes(line.id));
  if (lines.length < new Set(lineIds).size) throw new Refusal('unknown-line', {}, 'lineIds');
  await tx.run('UPDATE purchase_order_line SET closed = 1 WHERE id IN (SELECT value FROM json_each($1))', [
    JSON.stringify(lineIds),
  ]);
  const open = lines.filter((line) => line.open > 0).map((line) => line.name);
  if (order.sent_how === 'mailbox' && open.length > 0)
    await postWords(doing, id, 'change', `Of ${order.number} we no longer need what is open of: ${open.join(', ')}.`);
  return keepOpen(doing, id);
}

/** Cancels an order of which nothing has come. @throws Refusal `wrong-state`, `order-has-receipts` */
export async function cancelOrder(doing: Doing, id: number, version: number): Promise<PurchaseOrder> {
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
export async function keepOpen(doing: Doing, id: number): Promise<PurchaseOrder> {
  const { tx, now } = doing;
  const order = await orderRecord(tx, id);
  const open = (await orderLines(tx, [id])).map((line) => [line.id, openOf(order.state, line)]);
  await tx.run(
    'UPDATE purchase_order_line SET open = v.value ->> 1 FROM json_each($1) v WHERE purchase_order_line.id = v.value ->> 0',
    [JSON.stringify(open)],
  );
  await refuseTooMuch(
    tx,
    (await orderLines(tx, [id])).map((line) => line.item_id),
  );
  doing.changed('buying', 'items', 'builds');
  return readOrder(tx, id, now);
}

async function keepOrder(
  doing: Doing,
  id: number,
  version: number,
  values: Record<string, string | number | null>,
): Promise<void> {
  await updateVersioned(doing.tx, 'purchase_order', id, version, values, () => readOrder(doing.tx, id, doing.now));
}

const STATE_NAMES = { draft: 'a draft', sent: 'sent', confirmed: 'confirmed', cancelled: 'cancelled' };

/** @throws Refusal `wrong-state` saying what it is and would have to be */
export function requireState(order: OrderRecord, states: readonly OrderRecord['state'][]): void {
  found(order);
  if (states.includes(order.state)) return;
  const must = states.map((state) => STATE_NAMES[state]).join(' or ');
  throw new Refusal('wrong-state', { is: STATE_NAMES[order.state], must });
}
