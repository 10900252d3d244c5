import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  HUNDRED_PERCENT,
  type Money,
  type Percent,
  parseDecimal,
  type Quantity,
  splitByWeight,
} from '../number/index.ts';
import { expectedBack, takeApart } from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const money = (text: string) => parseDecimal(text) as Money;
const line = (share: string, expected: string, good: string, damaged = '0') => ({
  share: parseDecimal(share) as Percent,
  expected: q(expected),
  good: q(good),
  damaged: q(damaged),
});

describe('take apart', () => {
  const returned = [line('50', '1', '1'), line('30', '1', '0', '1'), line('20', '1', '1')];

  it('27.00 by 50/30/20 with the second damaged: 13.50 + 5.40 into stock, 8.10 written off', () => {
    const { lines, writtenOff } = takeApart(money('27'), returned, 'written-off');
    expect(lines.map(({ value }) => value)).toEqual([money('13.5'), 0, money('5.4')]);
    expect(writtenOff).toBe(money('8.1'));
  });

  it('spreads the rest over the good parts when asked', () => {
    const { lines, writtenOff } = takeApart(money('27'), returned, 'spread');
    expect(writtenOff).toBe(0);
    expect(lines.map(({ value }) => value)).toEqual([money('19.285714'), 0, money('7.714286')]);
  });

  it('writes everything off when nothing is good', () => {
    expect(takeApart(money('9'), [line('100', '2', '0', '1')], 'spread')).toMatchObject({
      writtenOff: money('9'),
      lines: [{ missing: q('1'), value: 0 }],
    });
  });

  it('refuses more than went in', () => {
    const refused = (good: string, damaged: string) => {
      try {
        takeApart(money('1'), [line('50', '2', '1', '0'), line('50', '2', good, damaged)], 'spread');
        return null;
      } catch (error) {
        const { code, field } = error as { code: string; field: string };
        return `${field}: ${code}`;
      }
    };
    expect([
      refused('-1', '0'),
      refused('0', '-1'),
      refused('3', '0'),
      refused('0', '3'),
      refused('2', '1'),
      refused('1', '1'),
    ]).toEqual([
      'lines.1.good: negative',
      'lines.1.damaged: negative',
      'lines.1.good: more-than-expected',
      'lines.1.damaged: more-than-expected',
      'lines.1.damaged: more-than-expected',
      null,
    ]);
    // What was expected to be none is worth nothing, and nothing good of something is too.
    const none = takeApart(money('4'), [line('50', '0', '0', '0'), line('50', '2', '0', '1')], 'written-off');
    expect(none).toEqual({
      lines: [
        { missing: 0, value: 0, writtenOff: money('2') },
        { missing: q('1'), value: 0, writtenOff: money('2') },
      ],
      writtenOff: money('4'),
    });
    expect(() => takeApart(money('1'), [line('100', '2', '2', '1')], 'spread')).toThrow(
      expect.objectContaining({ code: 'more-than-expected', field: 'lines.0.damaged', facts: { expected: q('2') } }),
    );
  });

  it('expects back what was used without waste, in whole units', () => {
    expect(expectedBack({ basis: 'per-output', quantity: q('0.46'), decimals: 3 }, q('3'), q('1'))).toBe(q('1.38'));
    expect(expectedBack({ basis: 'per-output', quantity: q('100'), decimals: 0 }, q('4'), q('150'))).toBe(q('2'));
    expect(expectedBack({ basis: 'per-run', quantity: q('2'), decimals: 0 }, q('9'), q('1'))).toBe(q('2'));
  });

  it('splits every value exactly and gives nothing a negative value', () => {
    const part = fc.record({
      weight: fc.integer({ min: 0, max: 1000 }),
      expected: fc.integer({ min: 0, max: 9 }),
      good: fc.integer({ min: 0, max: 9 }),
      damaged: fc.integer({ min: 0, max: 9 }),
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1e12 }),
        fc.array(part, { minLength: 1, maxLength: 12 }),
        fc.constantFrom('written-off' as const, 'spread' as const),
        (value, parts, leftover) => {
          const shares = splitByWeight(
            HUNDRED_PERCENT,
            parts.map(({ weight }) => weight),
            10_000,
          );
          const lines = parts.map(({ expected, good, damaged }, index) => ({
            share: shares[index] as Percent,
            expected: expected as Quantity,
            good: Math.min(good, expected) as Quantity,
            damaged: Math.min(damaged, expected - Math.min(good, expected)) as Quantity,
          }));
          const result = takeApart(value as Money, lines, leftover);
          const into = result.lines.reduce((sum, { value: worth }) => sum + worth, 0);
          expect(into + result.writtenOff).toBe(value);
          for (const { value: worth, missing } of result.lines)
            expect(Math.min(worth, missing)).toBeGreaterThanOrEqual(0);
          if (leftover === 'written-off')
            expect(result.lines.reduce((sum, { writtenOff }) => sum + writtenOff, 0)).toBe(result.writtenOff);
        },
      ),
    );
  });
});
