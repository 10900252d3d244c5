import type { Order, OrderLine, OrderPart } from '@yosegi/contract';
import { formatDecimal, least, readForText } from '@yosegi/core/number';
import type { Format } from '../ui/format.ts';

/** What of a part is still being built for it. */
const toCome = (part: OrderPart) =>
  part.builds.filter(({ quantity, kept, state }) => quantity !== kept && isOpen(state));
const isOpen = (state: string) => state === 'planned' || state === 'on-bench';

/** The builds that still make something for an order, each once. */
export const stillBuilt = (order: Order) => [
  ...new Map(
    order.lines.flatMap((line) => line.parts.flatMap(toCome)).map((build) => [build.id, build] as const),
  ).values(),
];

/**
 * How much of each line could leave now, with what builds bring to it that are finished in the same act; a kit packed per
 * order is served by none.
 * @param finishes how many good ones, by build; null while that cannot be read
 */
export function proposed(
  open: readonly OrderLine[],
  finishes: ReadonlyMap<number, { readonly good: string } | null>,
): Record<number, string> {
  return Object.fromEntries(
    open
      .filter((line) => line.revision === null)
      .map((line) => {
        const [part] = line.parts;
        const brought = (part?.builds ?? []).reduce((sum, { id, quantity, kept }) => {
          const good = finishes.get(id)?.good;
          const left = readForText(quantity) - readForText(kept);
          return good === undefined ? sum : sum + least(left, readForText(good));
        }, 0n);
        const all = least(readForText(line.open), readForText(line.canShip) + brought);
        return [line.id, all === 0n ? '' : formatDecimal(all)];
      }),
  );
}

/** Where a line stands, in the order it goes through: from the shelf, built for it, in the parcel. */
export function servedWords(line: OrderLine, format: Format): string {
  const [part] = line.parts;
  if (!part) return '';
  if (line.revision !== null) {
    const packed = line.parts.filter((own) => own.packed !== '0').length;
    return packed > 0
      ? `packed for this order, ${packed} of ${line.parts.length} parts in the parcel`
      : 'packed for this order';
  }
  const built = toCome(part).reduce((sum, { quantity, kept }) => sum + readForText(quantity) - readForText(kept), 0n);
  const shelf = readForText(part.open) - built;
  const say = (amount: bigint, words: string) =>
    amount > 0n && `${format.quantity(formatDecimal(amount), line.unit, line.decimals)} ${words}`;
  const words = [
    say(readForText(part.packed), 'in the parcel'),
    say(shelf, 'from stock'),
    say(built, 'built for this order'),
  ].filter(Boolean);
  return words.length > 0 ? words.join(', ') : 'shipped';
}

/** What is ready of an order, and how: the sentence over its actions. */
export function readyWords(order: Order, format: Format): string {
  const ready = order.lines.filter((line) => readForText(line.canShip) > 0n);
  if (ready.length === 0) return 'Nothing ready yet';
  const names = ready.map((line) => `${format.quantity(line.canShip, line.unit, line.decimals)} ${line.name}`);
  const shown = names.slice(0, 2).join('; ');
  const rest = names.length > 2 ? `; and ${names.length - 2} more` : '';
  return `${shown}${rest} ${names.length === 1 && ready[0]?.canShip === '1' ? 'is' : 'are'} ready`;
}
