import { countedIn, type Money, type Percent, type Quantity, ZERO } from '@yosegi/core/number';
import { agreedPrice, type Content, openPart } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { refuseTooManySerials } from '@yosegi/core/tracking';
import type { BodyOf } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Writer } from '../db/database.ts';
import { type ItemRow, itemRows } from '../items/index.ts';
import { type Contents, contentsOf, contentsOfLine, filled, pricedOf, priceFor, readKits } from './contents.ts';
import { openParcels } from './parcels.sql.ts';
import { needOf, type OrderLineRecord, type OrderPartRecord, orderLines, orderParts } from './sql.ts';

type LineInput = BodyOf<'saveOrder'>['lines'][number];
type At = (name: string) => string;
interface Terms {
  /** What the customer always gets off, and what is taken off this order. */
  readonly discount: Percent;
  readonly order: Percent;
  readonly decimals: number;
}

/**
 * Makes the lines of an order what was typed: known ones keep what they took and what was agreed, new ones take what is in
 * use now.
 * @throws Refusal `order-line-gone`, `less-than-shipped`, `kit-has-left`, `parcel-first`,
 * `price-unknown`, and what a line is refused for
 */
export async function writeLines(
  tx: Writer,
  orderId: number,
  lines: readonly LineInput[],
  discounts: { readonly customer: Percent; readonly order: Percent },
): Promise<void> {
  const known = new Map((await orderLines(tx, [orderId])).map((line) => [line.id, line]));
  const parts = await orderParts(tx, [...known.keys()]);
  await dropMissing(tx, lines, known, parts);
  const items = await itemRows(
    tx,
    lines.map((line) => line.itemId),
  );
  const revisions = [...known.values()].flatMap(({ revision_id }) => revision_id ?? []);
  const kits = await readKits(tx, [...items.keys()], revisions);
  const terms = { discount: discounts.customer, order: discounts.order, decimals: await currencyDecimals(tx) };
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
      const agreed = await changeLine(
        tx,
        { ...before, quantity },
        { parts: own, contents: contentsOfLine(kits, before, own) },
        line,
        item,
        terms,
        at,
      );
      await tx.models.order_line.update({ ...values, ...agreed }, { where: { id: before.id } });
      continue;
    }
    if (before && before.shipped > 0) throw new Refusal('order-line-gone', {}, at('itemId'));
    if (before) await takeOff(tx, before, parts, at('itemId'));
    const contents = contentsOf(kits, item, at('itemId'));
    const filling = await filled(tx, contents, line.contents ?? [], at);
    const lineId = await tx.insert('order_line', {
      order_id: orderId,
      item_id: item.id,
      revision_id: contents.revisionId,
      output_quantity: contents.outputQuantity,
      ...values,
      ...(await priceOf(tx, line, contents, filling, item, terms, at)),
    });
    await writeParts(tx, lineId, contents, filling);
  }
}

async function dropMissing(
  tx: Writer,
  lines: readonly LineInput[],
  known: ReadonlyMap<number, OrderLineRecord>,
  parts: readonly OrderPartRecord[],
): Promise<void> {
  const kept = new Set(lines.flatMap(({ id }) => id ?? []));
  for (const line of known.values()) {
    if (kept.has(line.id)) continue;
    if (line.shipped > 0) throw new Refusal('order-line-gone', {}, 'lines');
    await takeOff(tx, line, parts, 'lines');
  }
}

/** Beyond all lines that can be typed. */
const LAST = 1000;

/**
 * Takes a line off. One that a shipment speaks of, though it was undone, stays as given up.
 * @throws Refusal `parcel-first`
 */
async function takeOff(tx: Writer, line: OrderLineRecord, parts: readonly OrderPartRecord[], field: string) {
  for (const part of parts) if (part.line_id === line.id) await refusePacked(tx, part, ZERO, field);
  const where = { id: line.id };
  if ((await tx.models.shipment_line.count({ where: { line_id: line.id } })) === 0)
    await tx.models.order_line.destroy({ where });
  else await tx.models.order_line.update({ dropped: line.quantity, position: LAST }, { where });
}

/** @throws Refusal `parcel-first` where more of a part stands in a parcel than its line would take */
async function refusePacked(tx: Writer, part: OrderPartRecord, needed: Quantity, field: string): Promise<void> {
  if (part.packed <= needed) return;
  const item = (await itemRows(tx, [part.item_id])).get(part.item_id);
  const order = await tx.models.order_line.findByPk(part.line_id);
  const [parcel] = await openParcels(tx, [order?.order_id ?? 0]);
  const facts = { name: item?.name ?? '', packed: part.packed, needed, parcel: parcel?.number ?? 'a parcel' };
  throw new Refusal('parcel-first', facts, field);
}

/** Other contents of a known line, where they were said, and its price: as agreed, unless its contents make it. */
async function changeLine(
  tx: Writer,
  before: OrderLineRecord,
  { parts, contents }: { readonly parts: readonly OrderPartRecord[]; readonly contents: Contents },
  line: LineInput,
  item: ItemRow,
  terms: Terms,
  at: At,
) {
  const was = parts.map((part): Content => ({ ...part, itemId: part.item_id }));
  const filling = line.contents === null ? was : await filled(tx, contents, line.contents, at);
  const isOther = filling.some(
    (part, index) => part.itemId !== was[index]?.itemId || part.amount !== was[index]?.amount,
  );
  if (isOther && before.shipped > 0) throw new Refusal('kit-has-left', {}, at('contents'));
  for (const [index, part] of parts.entries()) {
    const other = filling[index] ?? part;
    const isSame = !('itemId' in other) || other.itemId === part.item_id;
    const now = { ...part, amount: other.amount };
    const needed = isSame ? openPart('confirmed', needOf(now), before, before.output_quantity, ZERO) : ZERO;
    await refusePacked(tx, part, needed, at(isOther ? 'contents' : 'quantity'));
    if (!isSame) await tx.models.build_for.destroy({ where: { part_id: part.id } });
    if ('itemId' in other && isOther)
      await tx.models.order_part.update({ item_id: other.itemId, amount: other.amount }, { where: { id: part.id } });
  }
  const isAgreed = line.price === null && before.price_from !== 'typed';
  if (isAgreed && !(isOther && before.price_from === 'contents'))
    return agreed(before.list_price, before.price_from, line, terms);
  return priceOf(tx, line, contents, filling, item, terms, at);
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

type Agreed = Pick<OrderLineRecord, 'list_price' | 'discount' | 'price' | 'price_from'>;

/** What one costs after what is taken off for the line and for the order. */
const agreed = (
  list_price: Money,
  price_from: Agreed['price_from'],
  { discount }: LineInput,
  terms: Terms,
): Agreed => ({
  list_price,
  discount,
  price: agreedPrice(list_price, { line: discount, order: terms.order }),
  price_from,
});

/** What one costs: as typed, or as it is sold to this customer. @throws Refusal `price-unknown` */
async function priceOf(
  tx: Writer,
  line: LineInput,
  contents: Contents,
  filling: readonly Content[],
  item: ItemRow,
  terms: Terms,
  at: At,
): Promise<Agreed> {
  if (line.price !== null) return agreed(line.price, 'typed', line, terms);
  const sold = await itemRows(
    tx,
    pricedOf(contents, filling).map(({ itemId }) => itemId),
  );
  const price = priceFor(contents, filling, item, sold, terms);
  if (price === null) throw new Refusal('price-unknown', { name: item.name }, at('price'));
  return agreed(price, contents.priceFrom, line, terms);
}
