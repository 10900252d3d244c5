import type { Quantity } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** A lot where it stands. */
export interface LotStock {
  readonly lotId: number;
  readonly binId: number;
  readonly quantity: Quantity;
  /** ISO day; null when it keeps. */
  readonly bestBefore: string | null;
}

/** What is written down of a lot, by name. */
export type LotAttributes = Readonly<Record<string, string>>;

/** In words: "colour dark, moisture 18 %". */
export const attributesInWords = (attributes: LotAttributes): string =>
  Object.entries(attributes)
    .map(([name, value]) => `${name} ${value}`)
    .join(', ');

/**
 * What is known of a lot once more is written down: in the order of the item's own names, what is left empty as it was.
 * @throws Refusal `unknown-choice` for a name that the item does not have
 */
export function withAttributes(
  known: LotAttributes,
  typed: LotAttributes,
  names: readonly string[],
  field?: string,
): LotAttributes {
  const own = new Map(names.map((name) => [name.toLowerCase(), name]));
  for (const name of Object.keys(typed))
    if (!own.has(name.toLowerCase())) throw new Refusal('unknown-choice', {}, field);
  const said = new Map(Object.entries(typed).map(([name, value]) => [name.toLowerCase(), value.trim()]));
  const values = names.map((name) => [name, said.get(name.toLowerCase()) || (known[name] ?? '')] as const);
  const others = Object.entries(known).filter(([name]) => !own.has(name.toLowerCase()));
  return Object.fromEntries([...values.filter(([, value]) => value !== ''), ...others]);
}

/** First to expire first; what keeps comes last, and the older lot before the newer. */
export const byExpiry = (a: LotStock, b: LotStock) =>
  (a.bestBefore ?? '9999').localeCompare(b.bestBefore ?? '9999') || a.lotId - b.lotId;

/**
 * A lot that would stay behind although it expires before one that is taken; null when the first to expire go first.
 * Lots of one day may be taken in any order.
 * @param lots what may be taken, in all the bins that count
 */
export function passedOver(
  lots: readonly LotStock[],
  takings: readonly { readonly lotId: number; readonly binId: number; readonly quantity: Quantity }[],
): LotStock | null {
  const last = lots
    .filter(({ lotId }) => takings.some((taking) => taking.lotId === lotId && taking.quantity > 0))
    .sort(byExpiry)
    .at(-1);
  if (!last) return null;
  const stays = lots.filter(({ lotId, binId, quantity }) => {
    const own = takings.filter((taking) => taking.lotId === lotId && taking.binId === binId);
    return quantity > own.reduce((sum, taking) => sum + taking.quantity, 0);
  });
  const [first] = stays.sort(byExpiry);
  return first && (first.bestBefore ?? '9999') < (last.bestBefore ?? '9999') ? first : null;
}
