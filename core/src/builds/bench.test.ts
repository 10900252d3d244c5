import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Money, Percent, Quantity } from '../number/index.ts';
import {
  asLastTime,
  extraLeft,
  isBeyond,
  lastUses,
  lineCode,
  openToPick,
  plannedUse,
  readLineCode,
  worthOut,
} from './index.ts';

const q = (units: number) => Math.round(units * 1e6) as Quantity;
const percent = (value: number) => Math.round(value * 1e6) as Percent;
const amount = fc.integer({ min: 0, max: 1e9 }).map((one) => one as Quantity);

describe('a part added on the bench', () => {
  const need = { basis: 'per-run' as const, quantity: q(5), waste: percent(0), decimals: 0 };
  const progress = { quantity: q(10), finished: q(4), outputQuantity: q(1) };

  it('goes with what is finished next, though the run has begun', () => {
    expect(plannedUse(need, progress, q(2))).toBe(0);
    expect(plannedUse({ ...need, extra: q(5) }, progress, q(2))).toBe(q(5));
    expect(plannedUse({ ...need, extra: q(5) }, progress, q(0))).toBe(0);
    expect(openToPick({ ...need, extra: q(5) }, progress, q(3))).toBe(q(2));
  });

  it('is used up in all, never more, whatever is finished in portions and taken back', () => {
    fc.assert(
      fc.property(amount, fc.array(amount, { maxLength: 8 }), (total, uses) => {
        let used = 0;
        for (const use of uses) {
          const left = extraLeft(total, used as Quantity);
          expect(left).toBeGreaterThanOrEqual(0);
          used += Math.min(left, use);
        }
        expect(used).toBeLessThanOrEqual(total);
        expect(used + extraLeft(total, used as Quantity)).toBe(total);
      }),
    );
  });
});

describe('a part for which an alternate stands in', () => {
  const need = { basis: 'per-output' as const, quantity: q(2), waste: percent(0), decimals: 0 };
  const progress = { quantity: q(10), finished: q(4), outputQuantity: q(1) };

  it('is needed so much less, of the last that is used', () => {
    const instead = { ...need, instead: q(3) };
    expect(openToPick(instead, progress, q(0))).toBe(q(9));
    expect(plannedUse(instead, progress, q(4))).toBe(q(8));
    expect(plannedUse(instead, progress, q(6))).toBe(q(9));
  });

  it('is needed in all less by just that, in whatever portions it is finished', () => {
    const small = fc.integer({ min: 0, max: 40 });
    fc.assert(
      fc.property(small, fc.array(small, { maxLength: 6 }), (instead, portions) => {
        const quantity = portions.reduce((sum, one) => sum + one, 0);
        const own = { ...need, instead: q(Math.min(instead, 2 * quantity)) };
        let finished = 0;
        let used = 0;
        for (const portion of portions) {
          const far = { quantity: q(quantity), finished: q(finished), outputQuantity: q(1) };
          const now = plannedUse(own, far, q(portion));
          expect(now).toBeGreaterThanOrEqual(0);
          used += now;
          finished += portion;
        }
        expect(used).toBe(q(2 * quantity) - own.instead);
      }),
    );
  });
});

describe('a tolerance', () => {
  it('lets pass what is as far off as it says, and no millionth more, either way', () => {
    expect(isBeyond(q(2), q(2.1), percent(5))).toBe(false);
    expect(isBeyond(q(2), (q(2.1) + 1) as Quantity, percent(5))).toBe(true);
    expect(isBeyond(q(2), (q(1.9) - 1) as Quantity, percent(5))).toBe(true);
    expect(isBeyond(q(0), 1 as Quantity, percent(5))).toBe(true);
    expect(isBeyond(q(2), q(90), null)).toBe(false);
  });
});

describe('what came out of a rework', () => {
  it('takes its share of the unit, and all shares never more than all of it', () => {
    const out = (share: number, went: 'stock' | 'scrap' | 'back-in' = 'stock') => ({ went, share: percent(share) });
    expect(worthOut(100 as Money, [out(33), out(50, 'scrap'), out(90, 'back-in')])).toEqual([33, 50, 0]);
    expect(() => worthOut(100 as Money, [out(60), out(40.01, 'scrap')])).toThrow('shares-over');
    const shares = fc.array(fc.integer({ min: 0, max: 20_000_000 }), { maxLength: 5 });
    fc.assert(
      fc.property(amount, shares, (unit, parts) => {
        const worth = worthOut(
          unit as number as Money,
          parts.map((share) => ({ went: 'stock' as const, share: share as Percent })),
        );
        expect(worth.reduce((sum, one) => sum + one, 0)).toBeLessThanOrEqual(unit);
      }),
    );
  });
});

describe('what the last finishes used', () => {
  const use = (planned: number, actual: number) => ({ planned: q(planned), actual: q(actual) });

  it('is together what they used, and drifted only when all of them are off to the same side', () => {
    expect(lastUses([])).toBeUndefined();
    expect(lastUses([use(0, 3)])).toBeUndefined();
    expect(lastUses([use(1, 1.1), use(2, 2.1), use(1, 1.06)])).toEqual({
      planned: q(4),
      actual: q(4.26),
      count: 3,
      isDrifted: true,
    });
    expect(lastUses([use(1, 1.3), use(1, 1.3), use(1, 0.99)])?.isDrifted).toBe(false);
    expect(lastUses([use(1, 1.3), use(1, 1.3)])?.isDrifted).toBe(false);
    expect(lastUses([use(10, 10.1), use(10, 10.1), use(10, 10.1)])?.isDrifted).toBe(false);
  });

  it.each([
    ['off by just a twentieth', 10.5, true],
    ['off by less', 10.499999, false],
    ['off by just a twentieth below', 9.5, true],
    ['off by less below', 9.500001, false],
    ['as planned once', 10, false],
  ])('are drifted from a twentieth on, either way: %s', (_, actual, isDrifted) => {
    expect(lastUses([use(10, actual), use(10, actual), use(10, actual)])?.isDrifted).toBe(isDrifted);
    expect(lastUses([use(10, 20), use(10, 20), use(10, actual < 10 ? actual : 9.9)])?.isDrifted).toBe(false);
    expect(lastUses([use(10, 5), use(10, 5), use(10, 10)])?.isDrifted).toBe(false);
    expect(lastUses([use(10, 15), use(10, 15), use(10, 10)])?.isDrifted).toBe(false);
  });

  it('makes of a plan what it comes to as the last times, in steps of the unit', () => {
    const past = { planned: q(3), actual: q(3.45), count: 3, isDrifted: true };
    expect(asLastTime(q(0.1), past, 3)).toBe(q(0.115));
    expect(asLastTime(q(7), past, 0)).toBe(q(8));
    expect(asLastTime(q(0), past, 3)).toBe(0);
  });
});

describe('the barcode of a line', () => {
  it('is read as it is written, and nothing else is', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('B', 'RP'),
        fc.integer({ min: 1, max: 1e6 }),
        fc.option(fc.nat()),
        (prefix, n, line) => {
          const number = `${prefix}-${String(n).padStart(4, '0')}`;
          expect(readLineCode(lineCode(number, line ?? undefined))).toEqual({ number, lineId: line });
        },
      ),
    );
    expect(readLineCode(' b-0012/7 ')).toEqual({ number: 'B-0012', lineId: 7 });
    for (const other of ['', 'B-', 'BOX-1', 'MAIN/A1', 'O-0012', 'B-12/', 'B-12/x', '4006381333931', 'B-0012 7'])
      expect(readLineCode(other), other).toBeNull();
  });
});
