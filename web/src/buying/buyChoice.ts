import type { BuyRow, Offer } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { bestQuantity, priceFor } from '@yosegi/core/buying';
import { formatDecimal, lineAmount, type Money, type Quantity, readExact } from '@yosegi/core/number';
import { z } from 'zod';
import { readTyped } from '../ui/measuring.ts';

/** What a person changed of a row: left out, another quantity, another supplier. */
export const Change = z.object({
  out: z.boolean().exactOptional(),
  quantity: z.string().exactOptional(),
  supplierId: z.number().exactOptional(),
});
export type Change = Readonly<z.infer<typeof Change>>;

/** What a person changed, without the suppliers they chose by hand. */
export const withoutSuppliers = (changes: ReadonlyMap<number, Change>): ReadonlyMap<number, Change> =>
  new Map([...changes].map(([itemId, { supplierId: _, ...rest }]) => [itemId, rest]));

export interface Chosen {
  readonly row: BuyRow;
  readonly offer: Offer;
  readonly typed: string;
  readonly quantity: Quantity;
  readonly error?: string;
  readonly out: boolean;
}

const toCore = ({ price, pack, minimum, breaks }: Offer) => ({
  price: readExact(price) as Money,
  pack: readExact(pack) as Quantity,
  minimum: readExact(minimum) as Quantity,
  breaks: breaks.map((one) => ({ from: readExact(one.from) as Quantity, price: readExact(one.price) as Money })),
});
/** What one of it costs in the quantity chosen. */
export const priceOf = ({ quantity, offer }: Pick<Chosen, 'quantity' | 'offer'>): Money =>
  priceFor(quantity, toCore(offer));
/** @param decimals of the currency */
export const worth = (line: Chosen, decimals: number): bigint => lineAmount(line.quantity, priceOf(line), decimals);

/** What is bought of whom, as proposed and as changed; and what nobody sells. */
export function bySupplier(rows: readonly BuyRow[], changes: ReadonlyMap<number, Change>) {
  const groups = new Map<number, { supplier: Offer; lines: Chosen[] }>();
  for (const row of rows) {
    const own = changes.get(row.itemId) ?? {};
    const offer = row.offers.find(({ supplierId }) => supplierId === own.supplierId) ?? row.offers[0];
    if (!offer) continue;
    const group = groups.get(offer.supplierId) ?? { supplier: offer, lines: [] };
    groups.set(offer.supplierId, group);
    const typed = own.quantity ?? proposed(row, offer);
    group.lines.push({ row, offer, typed, out: own.out ?? false, ...read(row, typed) });
  }
  return {
    groups: [...groups.values()].sort((a, b) => a.supplier.supplier.localeCompare(b.supplier.supplier)),
    nobody: rows.filter((row) => row.offers.length === 0),
  };
}

/** What costs the least of what is enough, in whole packs; what is needed itself where packs are so large that they cannot be counted. */
function proposed(row: BuyRow, offer: Offer): string {
  try {
    return formatDecimal(bestQuantity(readExact(row.needed) as Quantity, toCore(offer)));
  } catch {
    return row.needed;
  }
}

function read(row: BuyRow, typed: string): { quantity: Quantity; error?: string } {
  try {
    const quantity = readTyped(typed, row);
    return quantity > 0
      ? { quantity }
      : { quantity: 0 as Quantity, error: 'Enter a quantity above zero, or remove the line.' };
  } catch (error) {
    return { quantity: 0 as Quantity, error: entryFault(error) };
  }
}
