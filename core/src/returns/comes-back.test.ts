import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Money, Quantity } from '../number/index.ts';
import { afterComing, type CameBack, comesBack, daysTooLate, isWrittenOff, type LeftHeap, outcomes } from './index.ts';

const q = (units: number) => (units * 1e6) as Quantity;
const heap = (partId: number, units: number, value: number, more: Partial<LeftHeap> = {}): LeftHeap => ({
  partId,
  itemId: partId,
  name: `part ${partId}`,
  decimals: 0,
  lotId: null,
  serialId: null,
  quantity: q(units),
  value: value as Money,
  returned: q(0),
  returnedValue: 0 as Money,
  ...more,
});
const nobody = { serialIds: new Set<number>(), lotIds: new Set<number>() };
const line = (shipped: number, returned = 0) => ({ shipped: q(shipped), returned: q(returned) });
const shown = (back: readonly CameBack[]) =>
  back.map(({ heap: one, quantity, value }) => [one.partId, quantity / 1e6, value]);

describe('what comes back of a line', () => {
  it('is its share of each part, swaps and lots included, and with the last all the rest', () => {
    const kit = [heap(1, 6, 100), heap(2, 1, 7), heap(2, 2, 9, { lotId: 5 })];
    expect(shown(comesBack(kit, line(3), q(1), nobody))).toEqual([
      [1, 2, 33],
      [2, 1, 7],
    ]);
    expect(shown(comesBack(kit, line(3), q(1), { ...nobody, lotIds: new Set([5]) }))).toEqual([
      [1, 2, 33],
      [2, 1, 4],
    ]);
    expect(shown(comesBack(kit, line(3), q(3), nobody))).toEqual([
      [1, 6, 100],
      [2, 1, 7],
      [2, 2, 9],
    ]);
  });

  it('is the units that are named, or all of them, and never one twice or more than left', () => {
    const units = [1, 2].map((serialId) => heap(1, 1, 50 + serialId, { serialId }));
    const named = (...ids: number[]) => ({ ...nobody, serialIds: new Set(ids) });
    expect(shown(comesBack(units, line(2), q(1), named(2)))).toEqual([[1, 1, 52]]);
    expect(shown(comesBack(units, line(2), q(2), nobody))).toHaveLength(2);
    const code = (of: string) => expect.objectContaining({ code: of });
    expect(() => comesBack(units, line(2), q(1), nobody)).toThrow(code('serials-needed'));
    expect(() => comesBack(units, line(2), q(2), named(1))).toThrow(code('serials-needed'));
    expect(() => comesBack(units, line(2, 1), q(2), nobody)).toThrow(code('more-than-shipped'));
    expect(() => comesBack(units, line(2), q(0), nobody)).toThrow(code('not-positive'));
    const once = [heap(1, 1, 51, { serialId: 1, returned: q(1) }), heap(1, 1, 52, { serialId: 2 })];
    expect(shown(comesBack(once, line(2, 1), q(1), nobody))).toEqual([[1, 1, 52]]);
  });

  it('is in whatever portions exactly what left, in quantity and worth', () => {
    const amount = fc.integer({ min: 1, max: 40 });
    const parts = fc.array(fc.record({ part: fc.integer({ min: 1, max: 3 }), units: amount, value: fc.nat(1e9) }), {
      minLength: 1,
      maxLength: 6,
    });
    fc.assert(
      fc.property(parts, fc.array(amount, { minLength: 1, maxLength: 6 }), fc.nat(3), (sent, portions, decimals) => {
        const shipped = portions.reduce((sum, one) => sum + one, 0);
        let heaps = sent.map(({ part, units, value }, index) =>
          heap(part, units, value, { lotId: index + 1, decimals }),
        );
        let sentLine = line(shipped);
        let worth = 0;
        for (const portion of portions) {
          const back = comesBack(heaps, sentLine, q(portion), nobody);
          worth += back.reduce((sum, one) => sum + one.value, 0);
          ({ heaps, line: sentLine } = afterComing(heaps, sentLine, q(portion), back));
        }
        expect(sentLine.returned).toBe(sentLine.shipped);
        for (const one of heaps) expect(one.returned).toBe(one.quantity);
        expect(worth).toBe(sent.reduce((sum, { value }) => sum + value, 0));
      }),
    );
  });
});

it('what came back is known of the unit and the lot that it was, and of no other', () => {
  const heaps = [
    heap(1, 1, 51, { serialId: 1 }),
    heap(1, 1, 52, { serialId: 2 }),
    heap(2, 3, 30, { lotId: 1 }),
    heap(2, 3, 60, { lotId: 2 }),
    heap(3, 3, 9, { lotId: 2 }),
  ];
  const [, unit, , lot] = heaps as [LeftHeap, LeftHeap, LeftHeap, LeftHeap];
  const back = [
    { heap: unit, quantity: q(1), value: 52 as Money },
    { heap: lot, quantity: q(2), value: 40 as Money },
  ];
  const after = afterComing(heaps, line(3), q(1), back);
  expect(after.heaps.map(({ returned, returnedValue }) => [returned, returnedValue])).toEqual([
    [0, 0],
    [q(1), 52],
    [0, 0],
    [q(2), 40],
    [0, 0],
  ]);
});

it('the worth of what is scrapped, damaged, missing or not ours is lost, and of nothing else', () => {
  expect(outcomes.filter(isWrittenOff)).toEqual(['scrap', 'damaged', 'missing', 'not-ours']);
});

describe('the days to bring something back', () => {
  it('are the fewest that anybody set, and none where nobody did', () => {
    expect(daysTooLate('2026-11-01', '2026-11-20', [30, null])).toBe(null);
    expect(daysTooLate('2026-11-01', '2026-11-20', [30, 14])).toBe(5);
    expect(daysTooLate('2026-11-01', '2026-11-15', [14])).toBe(null);
    expect(daysTooLate('2020-11-01', '2026-11-15', [null, null])).toBe(null);
  });
});
