import { priceFromParts } from '@yosegi/core/definitions';
import { type Money, ONE, type Percent, type Quantity, ZERO } from '@yosegi/core/number';
import { lessDiscount, type PriceSource } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { revisionInUse, revisionLines } from '../definitions/index.ts';
import { type ItemRow, itemRows } from '../items/index.ts';

/** One thing that leaves for a line. */
export type Content = Pick<Row<'order_part'>, 'item_id' | 'basis' | 'amount' | 'waste'>;

/** What an order of an item takes: the item itself, or the parts of a kit that is packed per order. */
export interface Contents {
  readonly revisionId: number | null;
  readonly outputQuantity: Quantity;
  readonly parts: readonly Content[];
  /** What one sells at before the customer's discount; null where nobody has set a price. */
  readonly price: Money | null;
  readonly priceFrom: PriceSource;
}

/**
 * What leaves when an item is sold, and what one of it sells at.
 * @throws Refusal `item-archived`, `order-record-only`, `no-definition-in-use`
 */
export async function contentsOf(db: Reader, item: ItemRow, field: string): Promise<Contents> {
  if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, field);
  const definitions = await db.models.definition.findAll({ where: { item_id: item.id } });
  const build = definitions.find(({ purpose }) => purpose === 'build');
  if (!build && definitions.some(({ purpose }) => purpose === 'record'))
    throw new Refusal('order-record-only', { name: item.name }, field);
  const itself = { item_id: item.id, basis: 'per-output', amount: ONE, waste: ZERO } as const;
  const own = { price: item.sell_price, priceFrom: 'own' } as const;
  const revision = build && (await revisionInUse(db, item.id));
  if (!build || (build.made !== 'packed-per-order' && (build.price_from === 'own' || !revision)))
    return { revisionId: null, outputQuantity: ONE, parts: [itself], ...own };
  if (!revision) throw new Refusal('no-definition-in-use', { name: item.name }, field);
  const lines = (await revisionLines(db, revision.id)).flatMap((line) =>
    line.kind === 'part' && line.item_id !== null
      ? [{ item_id: line.item_id, basis: line.basis, amount: line.amount as Quantity, waste: line.waste }]
      : [],
  );
  const price =
    build.price_from === 'own' ? own : await priceOfParts(db, lines, revision.output_quantity, build.discount);
  return build.made === 'packed-per-order'
    ? { revisionId: revision.id, outputQuantity: revision.output_quantity, parts: lines, ...price }
    : { revisionId: null, outputQuantity: ONE, parts: [itself], ...price };
}

async function priceOfParts(db: Reader, parts: readonly Content[], output: Quantity, discount: Percent) {
  const items = await itemRows(
    db,
    parts.map((part) => part.item_id),
  );
  const priced = parts.map((part) => ({ quantity: part.amount, price: items.get(part.item_id)?.sell_price ?? null }));
  return { price: priceFromParts(priced, output, discount), priceFrom: 'contents' } as const;
}

/** What one costs this customer, rounded as money is paid; null where nobody has set a price. */
export const priceFor = (contents: Contents, discount: Percent, decimals: number): Money | null =>
  contents.price === null ? null : lessDiscount(contents.price, discount, decimals);
