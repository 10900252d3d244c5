import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Money } from '../number/index.ts';
import { type ComparedLine, compareLines } from './index.ts';

const line = (identity: string, quantity: string, cost = 1): ComparedLine => ({
  identity,
  facts: { quantity },
  cost: cost as Money,
});

describe('comparing revisions', () => {
  it('tells added, gone, changed and same apart, where they stand', () => {
    const before = [line('brood', '1', 38), line('nails', '0.04', 2), line('oil', '0.12', 3), line('glue', '1', 4)];
    const after = [line('brood', '1', 38), line('screws', '16', 5), line('oil', '0.15', 4), line('felt', '1', 6)];
    const { lines, costBefore, costAfter } = compareLines(before, after);
    expect(lines.map(({ change, before, after }) => [change, (after ?? before)?.identity])).toEqual([
      ['same', 'brood'],
      ['added', 'screws'],
      ['gone', 'nails'],
      ['changed', 'oil'],
      ['added', 'felt'],
      ['gone', 'glue'],
    ]);
    expect(lines[3]).toMatchObject({ facts: ['quantity'], before: { cost: 3 }, after: { cost: 4 } });
    expect([costBefore, costAfter]).toEqual([47, 53]);
  });

  it('calls a line that only moved the same, and pairs equal parts in their order', () => {
    const before = [line('a', '1'), line('b', '1'), line('a', '2')];
    const { lines } = compareLines(before, [line('b', '1'), line('a', '1'), line('a', '3')]);
    expect(lines.map(({ change }) => change)).toEqual(['same', 'same', 'changed']);
  });

  const lines = fc.array(
    fc.tuple(fc.constantFrom('a', 'b', 'c', 'd'), fc.constantFrom('1', '2'), fc.nat(9)).map((parts) => line(...parts)),
    { maxLength: 9 },
  );
  it('loses no line and no cost, whatever changed', () => {
    fc.assert(
      fc.property(lines, lines, (before, after) => {
        const result = compareLines(before, after);
        const seen = result.lines.flatMap((change) => change.before ?? []);
        expect(seen).toHaveLength(before.length);
        expect(new Set(seen)).toEqual(new Set(before));
        expect(result.lines.flatMap((change) => change.after ?? [])).toEqual(after);
        const moved = result.lines.reduce(
          (sum, { before, after }) => sum + (after?.cost ?? 0) - (before?.cost ?? 0),
          0,
        );
        expect(result.costAfter - result.costBefore).toBe(moved);
        for (const change of result.lines)
          if (change.before && change.after) expect(change.before.identity).toBe(change.after.identity);
        expect(compareLines(before, before).lines.every(({ change }) => change === 'same')).toBe(true);
      }),
    );
  });
});
