import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { add, type Quantity, ZERO } from '../number/index.ts';
import { type Heap, type Spot, shareOut, spotKey, spotOf } from './index.ts';

const q = (n: number) => (n * 1e6) as Quantity;
const lotAt = (binId: number, lotId: number): Spot => ({ ...spotOf(1, binId), lotId });
const shown = (heaps: readonly Heap[]) => heaps.map(({ spot, quantity }) => [spot.binId, spot.lotId, quantity / 1e6]);

describe('places shared out over the lines of a deed', () => {
  const there = (stock: Record<string, number>) => (spot: Spot) => q(stock[spotKey(spot)] ?? 0);

  it('go on to the next bin where an earlier line has emptied the first', () => {
    const at = there({ [spotKey(spotOf(1, 1))]: 5, [spotKey(spotOf(1, 2))]: 5 });
    const spots = [spotOf(1, 1), spotOf(1, 2)];
    const line = { wanted: q(4), spots, fallback: spotOf(1, 1) };
    expect(shareOut(at, [line, line]).map(shown)).toEqual([
      [[1, null, 4]],
      [
        [1, null, 1],
        [2, null, 3],
      ],
    ]);
  });

  it('leave a lot to the line that names it', () => {
    const [early, late] = [lotAt(1, 7), lotAt(1, 8)];
    const at = there({ [spotKey(early)]: 3, [spotKey(late)]: 3 });
    const any = { wanted: q(3), spots: [early, late], fallback: early };
    const named = { wanted: q(3), spots: [early], fallback: early };
    expect(shareOut(at, [any, named]).map(shown)).toEqual([[[1, 8, 3]], [[1, 7, 3]]]);
  });

  it('note what is missing once, where it is looked for', () => {
    const at = there({ [spotKey(spotOf(1, 1))]: 1 });
    const line = { wanted: q(1), spots: [spotOf(1, 1)], fallback: spotOf(1, 1) };
    expect(shareOut(at, [line, line, { ...line, wanted: ZERO }]).map(shown)).toEqual([
      [[1, null, 1]],
      [[1, null, 1]],
      [],
    ]);
  });

  it('serve every line whenever all can be served, and never give anything twice', () => {
    const stock = fc.array(fc.nat(6), { minLength: 4, maxLength: 4 });
    const line = fc.record({ wanted: fc.nat(5), lot: fc.constantFrom(null, 0, 1, 2, 3) });
    fc.assert(
      fc.property(stock, fc.array(line, { maxLength: 6 }), (lots, lines) => {
        const spots = lots.map((_, lot) => lotAt(1, lot));
        const at = (spot: Spot) => q(lots[spot.lotId ?? 0] ?? 0);
        const shares = shareOut(
          at,
          lines.map(({ wanted, lot }) => {
            const own = lot === null ? spots : [spots[lot] as Spot];
            return { wanted: q(wanted), spots: own, fallback: own[0] as Spot };
          }),
        );
        shares.forEach((share, index) => {
          expect(add(ZERO, ...share.map(({ quantity }) => quantity))).toBe(q(lines[index]?.wanted ?? 0));
        });
        const named = lots.map((_, lot) => lines.reduce((sum, one) => sum + (one.lot === lot ? one.wanted : 0), 0));
        const all = lines.reduce((sum, { wanted }) => sum + wanted, 0);
        const enough = named.every((sum, lot) => sum <= (lots[lot] ?? 0)) && all <= lots.reduce((a, b) => a + b, 0);
        const taken = lots.map((_, lot) =>
          shares.flat().reduce((sum, { spot, quantity }) => sum + (spot.lotId === lot ? quantity : 0), 0),
        );
        if (enough) for (const [lot, sum] of taken.entries()) expect(sum).toBeLessThanOrEqual(q(lots[lot] ?? 0));
      }),
    );
  });
});
