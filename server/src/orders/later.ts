import type { LaterKit, Numbered } from '@yosegi/contract';
import { required } from '@yosegi/core/definitions';
import { add, minus, type Quantity, ZERO } from '@yosegi/core/number';
import { agreedPrice } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { itemRow, itemRows } from '../items/index.ts';
import { contentsOf, priceFor, readKits } from './contents.ts';
import { keepOpen, lineById, orderParts, orderRecord, requiredOf } from './sql.ts';
import { current, requireState } from './state.ts';

/** A kit on a line, and what it would be by the revision in use now: nothing is changed by asking. */
export async function readLaterKit(db: Reader, lineId: number): Promise<LaterKit> {
  const { line, parts, contents, price } = await laterOf(db, lineId);
  const items = await itemRows(db, [
    ...parts.map((part) => part.item_id),
    ...contents.base.map(({ itemId }) => itemId),
  ]);
  const before = new Map<number, Quantity>();
  for (const part of parts) before.set(part.item_id, add(before.get(part.item_id) ?? ZERO, requiredOf(part, line)));
  const after = new Map<number, Quantity>();
  const quantity = minus(line.quantity, line.dropped);
  for (const { itemId, basis, amount, waste } of contents.base) {
    const { decimals } = found(items.get(itemId));
    const needed = required({ basis, quantity: amount, waste, decimals }, quantity, contents.outputQuantity);
    after.set(itemId, add(after.get(itemId) ?? ZERO, needed));
  }
  return {
    orderId: line.order_id,
    name: line.name,
    revision: line.revision ?? 0,
    later: line.in_use ?? 0,
    price: decimal(line.price),
    laterPrice: decimal(price),
    parts: [...new Set([...before.keys(), ...after.keys()])].map((itemId) => {
      const { code, name, unit, decimals } = found(items.get(itemId));
      const amount = (known: Quantity | undefined) => (known === undefined ? null : decimal(known));
      return { code, name, unit, decimals, before: amount(before.get(itemId)), after: amount(after.get(itemId)) };
    }),
  };
}

/**
 * Lets a line take over the revision in use now; what was changed in the kit on this line goes with the old one.
 * @throws Refusal `nothing-later`, `wrong-state`, `kit-has-left`, `parcel-first`, `stale-save`
 */
export async function takeLaterKit(doing: Doing, lineId: number, input: BodyOf<'takeLaterKit'>): Promise<Numbered> {
  const { tx } = doing;
  const { line, parts, contents, list, price } = await laterOf(tx, lineId);
  if (line.in_use !== input.revision) throw new Refusal('nothing-later', { name: line.name });
  const order = found(await orderRecord(tx, line.order_id));
  requireState(order, ['quote', 'confirmed']);
  await updateVersioned(tx, 'sales_order', order.id, input.version, {}, () => current(doing, order.id));
  if (line.shipped > 0) throw new Refusal('kit-has-left');
  const packed = parts.find((part) => part.packed > 0);
  if (packed) {
    const item = found(await itemRow(tx, packed.item_id));
    throw new Refusal('parcel-first', { name: item.name, packed: packed.packed, needed: ZERO, parcel: 'the parcel' });
  }
  await tx.models.order_part.destroy({ where: { line_id: line.id } });
  await tx.insertMany(
    'order_part',
    contents.base.map(({ position, itemId, basis, amount, waste }) => ({
      ...{ line_id: line.id, position, item_id: itemId, basis, amount, waste },
      base_item_id: itemId,
      base_amount: amount,
    })),
  );
  const values = {
    revision_id: contents.revisionId,
    output_quantity: contents.outputQuantity,
    list_price: list,
    price,
  };
  await tx.models.order_line.update(values, { where: { id: line.id } });
  await keepOpen(tx, order.id);
  doing.changed('orders', 'items', 'stock', 'builds');
  return numbered(tx, 'sales_order', order.id);
}

async function laterOf(db: Reader, lineId: number) {
  const line = found(await lineById(db, lineId));
  const item = found(await itemRow(db, line.item_id));
  if (line.revision_id === null || line.in_use === null || line.in_use === line.revision)
    throw new Refusal('nothing-later', { name: line.name });
  const contents = contentsOf(await readKits(db, [item.id]), item, 'itemId');
  if (contents.revisionId === null) throw new Refusal('nothing-later', { name: line.name });
  const order = found(await orderRecord(db, line.order_id));
  const items = await itemRows(
    db,
    contents.base.map(({ itemId }) => itemId),
  );
  const customer = { discount: order.discount, decimals: await currencyDecimals(db) };
  // What was agreed stays agreed; only a price that is the sum of the parts follows them.
  const own = line.price_from === 'contents' ? priceFor(contents, contents.base, item, items, customer) : null;
  const list = own ?? line.list_price;
  const off = { line: line.discount, order: order.order_discount };
  const price = agreedPrice(list, off);
  return { line, parts: await orderParts(db, [lineId]), contents, list, price };
}
