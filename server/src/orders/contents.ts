import { type Behaviour, lessDiscount, priceFromParts } from '@yosegi/core/definitions';
import { countedIn, type Money, ONE, type Percent, type Quantity, ZERO } from '@yosegi/core/number';
import { type Content, type PriceSource, type Swap, type Wish, withWishes } from '@yosegi/core/orders';
import { isRefusal, Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { type LineRow, linesOfRevisions, type RevisionRow, revisionsInUse } from '../definitions/index.ts';
import { type ItemRow, itemRows } from '../items/index.ts';
import { alternatesOf, type OrderLineRecord, type OrderPartRecord } from './sql.ts';

/** What an order of an item takes: the item itself, or the parts of a kit that is packed per order. */
export interface Contents {
  /** Null where the item itself is stocked and leaves. */
  readonly revisionId: number | null;
  readonly outputQuantity: Quantity;
  /** As the revision has them. */
  readonly base: readonly Content[];
  /** What may be changed of them on this line, and what may stand in. */
  readonly rule: Pick<Behaviour, 'onOrder' | 'swapFor'>;
  readonly swaps: ReadonlyMap<number, readonly Swap[]>;
  /** Where its price comes from, and what the kit takes off the sum of its parts. */
  readonly priceFrom: Exclude<PriceSource, 'typed'>;
  readonly discount: Percent;
  /** What a kit that is made ahead is priced by; null: by what leaves for the line. */
  readonly priced: { readonly parts: readonly Content[]; readonly outputQuantity: Quantity } | null;
}

/** What is stocked itself: nothing in it to be changed. */
const PLAIN = {
  rule: { onOrder: 'locked', swapFor: 'listed' },
  swaps: new Map(),
  priceFrom: 'own',
  discount: ZERO,
  priced: null,
} as const;

/** What is known of kits, whose contents are then told without asking again. */
interface Kits {
  readonly definitions: readonly Row<'definition'>[];
  readonly inUse: ReadonlyMap<number, RevisionRow>;
  readonly lines: ReadonlyMap<number, readonly LineRow[]>;
  readonly swapsOf: Awaited<ReturnType<typeof alternatesOf>>;
}

/** @param revisionIds those of lines that took their contents before */
export async function readKits(
  db: Reader,
  itemIds: readonly number[],
  revisionIds: readonly number[] = [],
): Promise<Kits> {
  const inUse = await revisionsInUse(db, itemIds);
  const ids = [...revisionIds, ...inUse.map(({ id }) => id)];
  const lines = new Map<number, LineRow[]>();
  for (const line of await linesOfRevisions(db, ids))
    lines.set(line.revision_id, [...(lines.get(line.revision_id) ?? []), line]);
  return {
    definitions: await db.models.definition.findAll({ where: { item_id: [...itemIds] }, raw: true }),
    inUse: new Map(inUse.map((revision) => [revision.item_id, revision])),
    lines,
    swapsOf: await alternatesOf(db, ids),
  };
}

/**
 * What leaves when an item is sold now.
 * @throws Refusal `item-archived`, `order-record-only`, `no-definition-in-use` naming `field`
 */
export function contentsOf(kits: Kits, item: ItemRow, field: string): Contents {
  if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, field);
  const definitions = kits.definitions.filter(({ item_id }) => item_id === item.id);
  const build = definitions.find(({ purpose }) => purpose === 'build');
  if (!build && definitions.some(({ purpose }) => purpose === 'record'))
    throw new Refusal('order-record-only', { name: item.name }, field);
  const itself = { position: 0, itemId: item.id, basis: 'per-output', amount: ONE, waste: ZERO } as const;
  const own = { revisionId: null, outputQuantity: ONE, base: [itself], ...PLAIN };
  if (!build || (build.made === 'ahead' && build.price_from === 'own')) return own;
  const revision = kits.inUse.get(item.id);
  if (!revision && build.made === 'ahead') return own;
  if (!revision) throw new Refusal('no-definition-in-use', { name: item.name }, field);
  const parts = (kits.lines.get(revision.id) ?? []).flatMap(
    ({ kind, position, item_id: itemId, basis, amount, waste }) =>
      kind === 'part' && itemId !== null ? [{ position, itemId, basis, amount: amount as Quantity, waste }] : [],
  );
  const outputQuantity = revision.output_quantity;
  if (build.made === 'ahead')
    return { ...own, priceFrom: 'contents', discount: build.discount, priced: { parts, outputQuantity } };
  return { revisionId: revision.id, outputQuantity, base: parts, ...ruleOf(kits, build, revision.id) };
}

/** Whether an item cannot be ordered at all, for what {@link contentsOf} refuses. */
export const isNotForSale = (error: unknown) =>
  isRefusal(error, 'item-archived', 'order-record-only', 'no-definition-in-use');

/** What leaves for a line that took its contents before. */
export function contentsOfLine(kits: Kits, line: OrderLineRecord, parts: readonly OrderPartRecord[]): Contents {
  const base = parts.map(({ position, base_item_id: itemId, basis, base_amount: amount, waste }) => ({
    position,
    itemId,
    basis,
    amount,
    waste,
  }));
  const shared = { revisionId: line.revision_id, outputQuantity: line.output_quantity, base };
  const build = kits.definitions.find(({ item_id, purpose }) => item_id === line.item_id && purpose === 'build');
  if (line.revision_id === null || !build) return { ...shared, ...PLAIN };
  return { ...shared, ...ruleOf(kits, build, line.revision_id) };
}

function ruleOf(kits: Kits, build: Row<'definition'>, revisionId: number) {
  return {
    rule: { onOrder: build.on_order, swapFor: build.swap_for },
    swaps: kits.swapsOf(revisionId),
    priceFrom: build.price_from === 'parts' ? ('contents' as const) : ('own' as const),
    discount: build.discount,
    priced: null,
  };
}

/**
 * The contents as wished for this line.
 * @param at the name of a field of the line
 * @throws Refusal as {@link withWishes}, `unknown-item`, `item-archived`, `too-many-decimals`
 */
export async function filled(
  db: Reader,
  contents: Contents,
  wishes: readonly Wish[],
  at: (name: string) => string,
): Promise<Content[]> {
  if (wishes.length === 0) return withWishes(contents.base, wishes, contents.rule, contents.swaps);
  const items = await itemRows(
    db,
    wishes.map((wish) => wish.itemId),
  );
  for (const [index, wish] of wishes.entries()) {
    const item = items.get(wish.itemId);
    if (!item) throw new Refusal('unknown-item', {}, at(`contents.${index}.itemId`));
    const isNew = contents.base.every(({ itemId }) => itemId !== wish.itemId);
    if (isNew && item.archived_at !== null)
      throw new Refusal('item-archived', { name: item.name }, at(`contents.${index}.itemId`));
    countedIn(wish.amount, item.decimals, at(`contents.${index}.amount`));
  }
  try {
    return withWishes(contents.base, wishes, contents.rule, contents.swaps);
  } catch (error) {
    throw error instanceof Refusal && error.field ? error.at(at(error.field)) : error;
  }
}

/** Whose prices make the price of a line that is sold by its contents. */
export const pricedOf = ({ priced }: Contents, parts: readonly Content[]) => priced?.parts ?? parts;

/** What one sells at to this customer, rounded as money is paid; null where nobody has set a price. */
export function priceFor(
  contents: Contents,
  parts: readonly Content[],
  item: Pick<ItemRow, 'sell_price'>,
  items: ReadonlyMap<number, ItemRow>,
  customer: { readonly discount: Percent; readonly decimals: number },
): Money | null {
  const price =
    contents.priceFrom === 'own'
      ? item.sell_price
      : priceFromParts(
          pricedOf(contents, parts).map(({ itemId, amount }) => ({
            quantity: amount,
            price: items.get(itemId)?.sell_price ?? null,
          })),
          contents.priced?.outputQuantity ?? contents.outputQuantity,
          contents.discount,
          customer.decimals,
        );
  return price === null ? null : lessDiscount(price, customer.discount, customer.decimals);
}
