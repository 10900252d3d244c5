import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HUNDRED_PERCENT, type Money, type Percent, type Quantity } from '../number/index.ts';
import { asBuilt, expectedBack, type WentIn } from './index.ts';

const q = (units: number) => Math.round(units * 1e6) as Quantity;
const percent = (value: number) => Math.round(value * 1e6) as Percent;
const line = (itemId: number, used: number, cost: number, more: Partial<WentIn> = {}): WentIn => ({
  lineId: itemId,
  itemId,
  used: q(used),
  cost: q(cost) as number as Money,
  units: q(4),
  waste: percent(0),
  share: null,
  comesBack: true,
  ...more,
});
const expected = (one: ReturnType<typeof asBuilt>[number] | undefined, units: number, decimals = 0) =>
  one && expectedBack({ basis: 'per-output', quantity: one.used, decimals }, q(units), one.output) / 1e6;

describe('what comes back as it was built', () => {
  it('is what really went in, less its waste, and what does not come back is left out', () => {
    const lines = asBuilt([
      line(1, 8, 30),
      line(2, 4.4, 10, { waste: percent(10) }),
      line(3, 1, 60, { comesBack: false }),
    ]);
    expect(lines.map(({ itemId, weighed }) => [itemId, weighed])).toEqual([
      [1, percent(75)],
      [2, percent(25)],
    ]);
    expect(lines.map((one) => expected(one, 2, 3))).toEqual([4, 2]);
  });

  it('has the shares that the bill of materials said, the rest by what was really paid', () => {
    const said = [line(1, 4, 1, { share: percent(60) }), line(2, 4, 30), line(3, 4, 10)];
    expect(asBuilt(said).map(({ weighed }) => weighed)).toEqual([percent(60), percent(30), percent(10)]);
    // One of those that were weighed did not go in: the others weigh as they did to each other.
    const all = [
      line(1, 4, 1, { share: percent(60) }),
      line(2, 4, 99, { share: percent(20) }),
      line(3, 0, 0, { share: percent(20) }),
    ];
    expect(asBuilt(all).map(({ weighed }) => weighed)).toEqual([percent(75), percent(25)]);
  });

  it('is after a rework without what that took out, and with what it put in', () => {
    const base = [line(1, 8, 80), line(2, 4, 20)];
    const put = line(1, 1, 12, { lineId: 9, units: q(1) });
    const out = { itemId: 1, quantity: q(1), units: q(1) };
    const lines = asBuilt([...base, put], [out], true);
    expect(lines.map((one) => [one.lineId, expected(one, 1)])).toEqual([
      [1, 1],
      [2, 1],
      [9, 1],
    ]);
    expect(asBuilt(base, [{ ...out, quantity: q(2) }], true).map(({ lineId }) => lineId)).toEqual([2]);
  });

  it('takes what came out off the lines that brought it, each by the units it was for, and weighs what is left', () => {
    const first = line(1, 8, 80);
    const second = line(1, 4, 20, { lineId: 9, units: q(2) });
    // Three of each unit: two of the first eight for four, and one of the other two for two.
    const [left, ...none] = asBuilt([first, second], [{ itemId: 1, quantity: q(3), units: q(1) }], true);
    expect([left?.lineId, left?.used, left?.cost, none]).toEqual([9, q(2), q(10), []]);
    const half = asBuilt([first, line(2, 4, 20)], [{ itemId: 1, quantity: q(1), units: q(1) }], true);
    expect(half.map(({ cost, weighed }) => [cost, Math.round(weighed / 1e4)])).toEqual([
      [q(40), 6667],
      [q(20), 3333],
    ]);
  });

  it('always weighs exactly a hundred, and never gives back more than went in', () => {
    const lines = fc.array(
      fc.record({
        itemId: fc.integer({ min: 1, max: 3 }),
        used: fc.nat(50),
        cost: fc.nat(100),
        share: fc.option(fc.nat(60)),
        waste: fc.nat(30),
      }),
      { minLength: 1, maxLength: 6 },
    );
    const out = fc.array(fc.record({ itemId: fc.integer({ min: 1, max: 3 }), quantity: fc.nat(20) }), { maxLength: 3 });
    fc.assert(
      fc.property(lines, out, fc.boolean(), (all, gone, isReworked) => {
        const wentIn = all.map((one, lineId) =>
          line(one.itemId, one.used, one.cost, {
            lineId,
            waste: percent(one.waste),
            share: one.share === null ? null : percent(one.share),
          }),
        );
        const typed = all.reduce((sum, { share }) => sum + (share ?? 0), 0);
        fc.pre(typed <= 100);
        const back = asBuilt(
          wentIn,
          gone.map((one) => ({ itemId: one.itemId, quantity: q(one.quantity), units: q(4) })),
          isReworked,
        );
        if (back.length > 0) expect(back.reduce((sum, { weighed }) => sum + weighed, 0)).toBe(HUNDRED_PERCENT);
        for (const itemId of [1, 2, 3]) {
          const sum = (own: readonly WentIn[]) =>
            own.filter((one) => one.itemId === itemId).reduce((s, { used }) => s + used, 0);
          const took = gone.filter((one) => one.itemId === itemId).reduce((s, { quantity }) => s + q(quantity), 0);
          expect(sum(back)).toBe(Math.max(0, sum(wentIn) - took));
        }
      }),
    );
  });
});
