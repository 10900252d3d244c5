import type { ProductRow, ProductSort } from '@yosegi/contract';
import { byWorry, lineCosts, marginOf, type Worrying } from '@yosegi/core/definitions';
import { type Quantity, toExact } from '@yosegi/core/number';
import { decimal, decimalOrNull, orNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { averageCostOf } from '../items/index.ts';
import { type Judged, judgeAll } from './faults.ts';
import { canMakeOf } from './lists.sql.ts';

/** Staves of a picture as small as in a list. */
const MOST_PIECES = 8;

interface Product extends Judged, Omit<Worrying, 'faults'> {}

/** All products as an owner looks at them; their figures are reckoned here, so that they sort by them. */
export async function listProducts(db: Reader, query: QueryOf<'products'>) {
  const text = query.q?.trim().toLowerCase() ?? '';
  const judged = (await judgeAll(db)).filter(({ loaded: { product } }) =>
    `${product.code} ${product.name}`.toLowerCase().includes(text),
  );
  const can = await canMakeOf(
    db,
    judged
      .filter(({ record, loaded }) => record.purpose === 'build' && loaded.revision.state === 'in-use')
      .map(({ record }) => record.id),
  );
  const products = judged.map((one): Product => {
    const { unitCost, price, isAtLeast } = one;
    const margin = unitCost === null || price === null || isAtLeast ? null : marginOf(price, unitCost);
    return { ...one, canMake: can.get(one.record.id) ?? null, margin };
  });
  const order = comparators[query.sort];
  // Sorting is stable and they come by code, so that equals stay in that order.
  products.sort((one, other) => (query.down ? order(other, one) : order(one, other)));
  const start = Number(query.cursor ?? 0);
  const end = start + query.limit;
  const drafts = await draftsOf(db);
  return {
    rows: products.slice(start, end).map((product) => toRow(product, drafts)),
    next: end < products.length ? String(end) : null,
  };
}

type Comparator = (one: Product, other: Product) => number;
const textOf = (read: (product: Product) => string): Comparator => {
  const { compare } = new Intl.Collator('en', { sensitivity: 'base' });
  return (one, other) => compare(read(one), read(other));
};
/** What is not known sorts before all that is. */
const amountOf = (read: (product: Product) => number | null): Comparator => {
  const known = (product: Product) => read(product) ?? Number.MIN_SAFE_INTEGER;
  return (one, other) => known(one) - known(other);
};
const worryOf = ({ faults, canMake, margin }: Product): Worrying => ({
  faults: faults.map(({ fault }) => fault),
  canMake,
  margin,
});

const comparators: Readonly<Record<ProductSort, Comparator>> = {
  worry: (one, other) => byWorry(worryOf(one), worryOf(other)),
  code: textOf(({ loaded }) => loaded.product.code),
  name: textOf(({ loaded }) => loaded.product.name),
  unitCost: amountOf(({ unitCost }) => unitCost),
  sellPrice: amountOf(({ price }) => price),
  margin: amountOf(({ margin }) => margin),
  canMakeNow: amountOf(({ canMake }) => canMake),
};

/** The numbers of the drafts that wait, by definition. */
async function draftsOf(db: Reader): Promise<ReadonlyMap<number, number>> {
  const drafts = await db.models.revision.findAll({ where: { state: 'draft' } });
  return new Map(drafts.map(({ definition_id, number }) => [definition_id, number]));
}

function toRow(product: Product, drafts: ReadonlyMap<number, number>): ProductRow {
  const { record, loaded, unitCost, isAtLeast, price, margin, canMake, faults } = product;
  return {
    id: record.id,
    itemId: loaded.product.id,
    code: loaded.product.code,
    name: loaded.product.name,
    unit: loaded.product.unit,
    purpose: record.purpose,
    made: record.made,
    inUse: loaded.revision.state === 'in-use' ? loaded.revision.number : null,
    draft: drafts.get(record.id) ?? null,
    canMakeNow: decimalOrNull(canMake),
    unitCost: decimalOrNull(unitCost),
    isAtLeast,
    sellPrice: decimalOrNull(price),
    margin: decimalOrNull(margin),
    faults: faults.map(({ fault }) => fault),
    pieces: piecesOf(product),
  };
}

function piecesOf({ loaded: { core, lines, parts } }: Product): ProductRow['pieces'] {
  const costs = lineCosts(core, (itemId) => averageCostOf(found(parts.get(itemId))));
  const pieces = lines.flatMap((line, index) => {
    const cost = orNull(() => toExact(costs[index] ?? 0n));
    const part = line.item_id === null ? null : found(parts.get(line.item_id));
    return cost === null || cost <= 0 ? [] : [{ code: part?.code ?? null, name: part?.name ?? line.text, cost }];
  });
  return pieces
    .sort((one, other) => other.cost - one.cost)
    .slice(0, MOST_PIECES)
    .map((piece) => ({ ...piece, cost: decimal(piece.cost as Quantity) }));
}
