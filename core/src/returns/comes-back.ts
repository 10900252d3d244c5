import {
  add,
  divide,
  least,
  type Money,
  minus,
  ONE,
  type Quantity,
  SCALE,
  stepOf,
  toExact,
  ZERO,
} from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import { type Left, worthReturned } from './returned.ts';

/** Some of one thing that left for a line, of one lot or one serial, in the order in which it left. */
export interface LeftHeap extends Left {
  readonly partId: number;
  readonly itemId: number;
  readonly name: string;
  readonly decimals: number;
  readonly lotId: number | null;
  readonly serialId: number | null;
}

/** A line as it was sent with a shipment, and how much of it is back. What is only announced is not back. */
export interface SentLine {
  readonly shipped: Quantity;
  readonly returned: Quantity;
}

/** A line and its heaps as they are once something has come back, for what comes back of them next. */
export function afterComing(
  heaps: readonly LeftHeap[],
  line: SentLine,
  now: Quantity,
  back: readonly CameBack[],
): { readonly heaps: LeftHeap[]; readonly line: SentLine } {
  return {
    line: { ...line, returned: add(line.returned, now) },
    heaps: heaps.map((heap) => {
      const own = back
        .filter((came) => came.heap.partId === heap.partId && came.heap.itemId === heap.itemId)
        .filter((came) => came.heap.lotId === heap.lotId && came.heap.serialId === heap.serialId);
      return {
        ...heap,
        returned: add(heap.returned, ...own.map(({ quantity }) => quantity)),
        returnedValue: add(heap.returnedValue, ...own.map(({ value }) => value)),
      };
    }),
  };
}

/** What comes back of it now, and at what it is worth. */
export interface CameBack {
  readonly heap: LeftHeap;
  readonly quantity: Quantity;
  readonly value: Money;
}

/** Which of it came back, where somebody can tell. */
export interface NamedBack {
  readonly serialIds: ReadonlySet<number>;
  readonly lotIds: ReadonlySet<number>;
}

/**
 * What comes back of everything that left for a line when `now` of it does: of each part its share, and with the last of the
 * line all the rest, so that however it comes back in portions it is exactly what left, to the last millionth of its worth.
 * Of what left by serial the named units come back; of lots the named ones first, else those that left first.
 * @throws Refusal `not-positive`, `more-than-shipped` with what may still come back, `serials-needed` where only some of
 * the units come back and nobody says which
 */
export function comesBack(
  heaps: readonly LeftHeap[],
  line: SentLine,
  now: Quantity,
  named: NamedBack,
  field: (name: 'quantity' | 'serials') => string = (name) => name,
): CameBack[] {
  if (now <= 0) throw new Refusal('not-positive', {}, field('quantity'));
  const left = minus(line.shipped, line.returned);
  if (now > left) throw new Refusal('more-than-shipped', { left }, field('quantity'));
  return [...new Set(heaps.map(({ partId }) => partId))].flatMap((partId) => {
    const own = heaps.filter((heap) => heap.partId === partId);
    const wanted = shareOf(own, line, now);
    return own.some(({ serialId }) => serialId !== null)
      ? unitsOf(own, wanted, named.serialIds, field('serials'))
      : amountsOf(own, wanted, named.lotIds);
  });
}

/** How much of a part comes back: its share up to now, less what has come back of it before. */
function shareOf(own: readonly LeftHeap[], { shipped, returned }: SentLine, now: Quantity): Quantity {
  const all = add(ZERO, ...own.map(({ quantity }) => quantity));
  const before = add(ZERO, ...own.map((heap) => heap.returned));
  const step = BigInt(stepOf(own[0]?.decimals ?? 0));
  const upTo = add(returned, now);
  const exact =
    upTo === shipped ? all : toExact(divide(BigInt(all) * BigInt(upTo), BigInt(shipped) * step, 'down') * step);
  return Math.max(0, exact - before) as Quantity;
}

function unitsOf(own: readonly LeftHeap[], wanted: Quantity, named: ReadonlySet<number>, field: string): CameBack[] {
  const open = own.filter((heap) => heap.returned === 0);
  const chosen = open.filter(({ serialId }) => named.has(serialId ?? 0));
  const units = wanted / SCALE;
  const going = chosen.length === 0 && open.length === units ? open : chosen;
  if (going.length !== units)
    throw new Refusal('serials-needed', { name: own[0]?.name ?? '', count: units, given: chosen.length }, field);
  return going.map((heap) => ({ heap, quantity: ONE, value: worthReturned(heap, ONE) }));
}

function amountsOf(own: readonly LeftHeap[], wanted: Quantity, lots: ReadonlySet<number>): CameBack[] {
  const inOrder = [...own].sort((a, b) => Number(lots.has(b.lotId ?? 0)) - Number(lots.has(a.lotId ?? 0)));
  let rest = wanted;
  return inOrder.flatMap((heap) => {
    const quantity = least(rest, minus(heap.quantity, heap.returned));
    if (quantity <= 0) return [];
    rest = minus(rest, quantity);
    return [{ heap, quantity, value: worthReturned(heap, quantity) }];
  });
}

/** How many days after the last on which it may come back something does; null while it is in time or there is none. */
export function daysTooLate(shippedOn: string, today: string, limits: readonly (number | null)[]): number | null {
  const known = limits.filter((limit): limit is number => limit !== null);
  if (known.length === 0) return null;
  const days = Math.round((Date.parse(today) - Date.parse(shippedOn)) / 86_400_000);
  const over = days - Math.min(...known);
  return over > 0 ? over : null;
}
