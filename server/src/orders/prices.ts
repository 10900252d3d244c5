import { type Money, ZERO } from '@yosegi/core/number';
import { type Content, withWishes } from '@yosegi/core/orders';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { itemRows } from '../items/index.ts';
import { type Contents, contentsOf, isNotForSale, pricedOf, priceFor, readKits } from './contents.ts';

/**
 * What an order of a customer charges for one of each item, as it usually is; items that cannot be ordered, or have no
 * price, are left out.
 * @param customerId null for somebody who has never ordered
 */
export async function pricesFor(
  db: Reader,
  customerId: number | null,
  itemIds: readonly number[],
): Promise<ReadonlyMap<number, Money>> {
  const customer = customerId === null ? null : await db.models.customer.findByPk(customerId);
  const terms = { discount: customer?.discount ?? ZERO, decimals: await currencyDecimals(db) };
  const items = await itemRows(db, itemIds);
  const kits = await readKits(db, itemIds);
  const sold = [...items.values()].flatMap((item) => {
    const contents = orderable(() => contentsOf(kits, item, 'itemId'));
    return contents ? [{ item, contents, parts: asUsual(contents) }] : [];
  });
  const priced = sold.flatMap(({ contents, parts }) => pricedOf(contents, parts).map(({ itemId }) => itemId));
  const all = new Map([...items, ...(await itemRows(db, priced))]);
  return new Map(
    sold.flatMap(({ item, contents, parts }): [number, Money][] => {
      const price = priceFor(contents, parts, item, all, terms);
      return price === null ? [] : [[item.id, price]];
    }),
  );
}

const asUsual = ({ base, rule, swaps }: Contents): Content[] => withWishes(base, [], rule, swaps);

/** What cannot be ordered is not for sale. */
function orderable(contents: () => Contents): Contents | null {
  try {
    return contents();
  } catch (error) {
    if (isNotForSale(error)) return null;
    throw error;
  }
}
