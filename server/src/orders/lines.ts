import { countedIn, type Money, type Percent } from '@yosegi/core/number';
import type { Content } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { refuseTooManySerials } from '@yosegi/core/tracking';
import type { BodyOf } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Writer } from '../db/database.ts';
import { type ItemRow, itemRows } from '../items/index.ts';
import { type Contents, contentsOf, contentsOfLine, filled, pricedOf, priceFor } from './contents.ts';
import { type OrderLineRecord, type OrderPartRecord, orderLines, orderParts } from './sql.ts';

type LineInput = BodyOf<'saveOrder'>['lines'][number];
type At = (name: string) => string;
interface Customer {
  readonly discount: Percent;
  readonly decimals: number;
}

/**
 * Makes the lines of an order what was typed: known ones keep what they took and what was agreed, new ones take what is in
 * use now.
 * @throws Refusal `order-line-gone`, `less-than-shipped`, `kit-has-left`, `price-unknown`, and what a line is refused for
 */
export async function writeLines(
  tx: Writer,
  orderId: number,
  lines: readonly LineInput[],
  discount: Percent,
): Promise<void> {
  const known = new Map((await orderLines(tx, [orderId])).map((line) => [line.id, line]));
  const parts = await orderParts(tx, [...known.keys()]);
  await dropMissing(tx, lines, known);
  const items = await itemRows(
    tx,
    lines.map((line) => line.itemId),
  );
  const customer = { discount, decimals: await currencyDecimals(tx) };
  for (const [position, line] of lines.entries()) {
    const at = (name: string) => `lines.${position}.${name}`;
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, at('itemId'));
    const quantity = countedIn(line.quantity, item.decimals, at('quantity'));
    refuseTooManySerials(item.tracking, quantity, at('quantity'));
    const before = line.id === null ? undefined : known.get(line.id);
    if (line.id !== null && !before) throw new Refusal('unknown-line', {}, at('id'));
    // Said twice, it would be two lines in one.
    if (before) known.delete(before.id);
    const values = { position, quantity, wanted_on: line.wantedOn };
    if (before && before.item_id === item.id) {
      if (quantity - before.dropped < before.shipped)
        throw new Refusal('less-than-shipped', { shipped: before.shipped }, at('quantity'));
      const own = parts.filter(({ line_id }) => line_id === before.id);
      const agreed = await changeLine(tx, before, own, line, item, customer, at);
      await tx.models.order_line.update({ ...values, ...agreed }, { where: { id: before.id } });
      continue;
    }
    if (before && before.shipped > 0) throw new Refusal('order-line-gone', {}, at('itemId'));
    if (before) await tx.models.order_line.destroy({ where: { id: before.id } });
    const contents = await contentsOf(tx, item, at('itemId'));
    const filling = await filled(tx, contents, line.contents ?? [], at);
    const lineId = await tx.insert('order_line', {
      order_id: orderId,
      item_id: item.id,
      revision_id: contents.revisionId,
      output_quantity: contents.outputQuantity,
      ...values,
      ...(await priceOf(tx, line, contents, filling, item, customer, at)),
    });
    await writeParts(tx, lineId, contents, filling);
  }
}

async function dropMissing(
  tx: Writer,
  lines: readonly LineInput[],
  known: ReadonlyMap<number, OrderLineRecord>,
): Promise<void> {
  const kept = new Set(lines.flatMap(({ id }) => id ?? []));
  for (const line of known.values()) {
    if (kept.has(line.id)) continue;
    if (line.shipped > 0) throw new Refusal('order-line-gone', {}, 'lines');
    await tx.models.order_line.destroy({ where: { id: line.id } });
  }
}

/** Other contents of a known line, where they were said, and its price: as agreed, unless its contents make it. */
async function changeLine(
  tx: Writer,
  before: OrderLineRecord,
  parts: readonly OrderPartRecord[],
  line: LineInput,
  item: ItemRow,
  customer: Customer,
  at: At,
) {
  const contents = await contentsOfLine(tx, before, parts);
  const was = parts.map((part): Content => ({ ...part, itemId: part.item_id }));
  const filling = line.contents === null ? was : await filled(tx, contents, line.contents, at);
  const isOther = filling.some(
    (part, index) => part.itemId !== was[index]?.itemId || part.amount !== was[index]?.amount,
  );
  if (isOther) {
    if (before.shipped > 0) throw new Refusal('kit-has-left', {}, at('contents'));
    await tx.models.order_part.destroy({ where: { line_id: before.id } });
    await writeParts(tx, before.id, contents, filling);
  }
  const isAgreed = line.price === null && before.price_from !== 'typed';
  if (isAgreed && !(isOther && before.price_from === 'contents'))
    return { price: before.price, price_from: before.price_from };
  return priceOf(tx, line, contents, filling, item, customer, at);
}

function writeParts(tx: Writer, line_id: number, { base }: Contents, filling: readonly Content[]): Promise<void> {
  return tx.insertMany(
    'order_part',
    filling.map(({ position, itemId, basis, amount, waste }, index) => ({
      line_id,
      position,
      item_id: itemId,
      basis,
      amount,
      waste,
      base_item_id: base[index]?.itemId ?? itemId,
      base_amount: base[index]?.amount ?? amount,
    })),
  );
}

/** What one costs: as typed, or as it is sold to this customer. @throws Refusal `price-unknown` */
async function priceOf(
  tx: Writer,
  line: LineInput,
  contents: Contents,
  filling: readonly Content[],
  item: ItemRow,
  customer: Customer,
  at: At,
): Promise<{ price: Money; price_from: 'own' | 'contents' | 'typed' }> {
  if (line.price !== null) return { price: line.price, price_from: 'typed' };
  const sold = await itemRows(
    tx,
    pricedOf(contents, filling).map(({ itemId }) => itemId),
  );
  const price = priceFor(contents, filling, item, sold, customer);
  if (price === null) throw new Refusal('price-unknown', { name: item.name }, at('price'));
  return { price, price_from: contents.priceFrom };
}
