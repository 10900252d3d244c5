import type { Containing, Freed } from '@yosegi/contract';
import { peg, type Share, sharesOf, sourceKey } from '@yosegi/core/demand';
import { minus, type Quantity, ZERO } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, found } from '../command/doing.ts';
import { sourcesOf } from '../coverage/index.ts';
import type { Reader } from '../db/database.ts';
import { readPicture } from '../demand/index.ts';
import { itemRows } from '../items/index.ts';
import { productsContaining } from './containing.sql.ts';

/** The most of those who wait that are named. */
const MOST = 50;

/**
 * Whose missing parts taking something apart would bring: everybody is served anew, in turn, with the parts on shelves and
 * the product gone.
 */
export async function apartFrees(db: Reader, { taken, parts }: BodyOf<'apartFrees'>, today: string): Promise<Freed[]> {
  const ids = parts.map(({ itemId }) => itemId);
  const picture = await readPicture(db, today, [...ids, taken.itemId]);
  const before = sharesOf(peg(picture).pegged);
  const shelf = { from: { kind: 'shelf' as const, id: 0 }, on: '', storeId: null, only: null };
  const more = parts.filter(({ quantity }) => quantity > 0).map((part) => ({ ...shelf, ...part }));
  const gone = { ...shelf, itemId: taken.itemId, quantity: minus(ZERO, taken.quantity) };
  const after = sharesOf(peg({ ...picture, supplies: [...picture.supplies, ...more, gone] }).pegged);
  const served = [...before.values()].flatMap((share) => {
    const now = after.get(sourceKey(share.source));
    const got = now ? gained(share, now) : [];
    return now && got.length > 0 && got.every(([, quantity]) => quantity > 0)
      ? [{ share, got, whole: now.short.size === 0 }]
      : [];
  });
  const items = await itemRows(
    db,
    served.flatMap(({ got }) => got.map(([itemId]) => itemId)),
  );
  const named = await sourcesOf(
    db,
    served.map(({ share }) => share.source),
  );
  return served
    .flatMap(({ share: { source }, got, whole }): Freed[] => {
      const known = named.get(`${source.kind}${source.id}`);
      if (!known || (source.kind !== 'build' && source.kind !== 'order')) return [];
      const brought = got.map(([itemId, quantity]) => {
        const { code, name, unit } = found(items.get(itemId));
        return { code, name, unit, quantity: decimal(quantity) };
      });
      return [{ kind: source.kind, id: source.id, number: known.number, who: known.who, whole, parts: brought }];
    })
    .sort((a, b) => Number(b.whole) - Number(a.whole))
    .slice(0, MOST);
}

/** What somebody lacks less of than before, by item. */
function gained(before: Share, after: Share): [itemId: number, quantity: Quantity][] {
  return [...before.short].flatMap(([itemId, { quantity }]): [number, Quantity][] => {
    const less = minus(quantity, after.short.get(itemId)?.quantity ?? ZERO);
    return less === 0 ? [] : [[itemId, less]];
  });
}

/** Products on shelves in which parts are that come back when they are taken apart. @param partIds numbers with commas */
export async function containing(db: Reader, partIds: string): Promise<Containing[]> {
  const ids = partIds
    .split(',')
    .map(Number)
    .filter((id) => id > 0);
  if (ids.length === 0) return [];
  return (await productsContaining(db, ids)).map(({ free, each, ...row }) => ({
    ...row,
    free: decimal(free),
    each: decimal(each),
  }));
}
