import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Money } from '../number/index.ts';
import { costOf, jobSum } from './index.ts';

const money = (value: number) => Math.round(value * 1e6) as Money;
const nothing = { bought: money(0), labour: money(0), charges: money(0), stockChange: money(0), income: money(0) };

describe('a job', () => {
  it('costs what has left, whether it was bought, built or shipped under the tag, and counts nothing twice', () => {
    const bought = { ...nothing, bought: money(40), stockChange: money(40) };
    const built = { ...nothing, labour: money(10), stockChange: money(10) };
    const shipped = { ...nothing, stockChange: money(-50), income: money(80) };
    expect([bought, built, shipped].map(costOf)).toEqual([0, 0, money(50)]);
    expect(jobSum([bought, built, shipped])).toEqual({ cost: money(50), income: money(80), margin: money(30) });
    // What is written off while it is built costs at once.
    expect(costOf({ ...nothing, labour: money(10), stockChange: money(7) })).toBe(money(3));
  });

  it('comes to nothing when everything is undone', () => {
    const one = fc.integer({ min: -1e9, max: 1e9 }).map((value) => value as Money);
    const posting = fc.record({
      bought: one,
      labour: one,
      charges: one,
      stockChange: one,
      income: fc.constant(money(0)),
    });
    fc.assert(
      fc.property(fc.array(posting, { maxLength: 6 }), (postings) => {
        const undone = postings.map((posted) => ({
          bought: -posted.bought as Money,
          labour: -posted.labour as Money,
          charges: -posted.charges as Money,
          stockChange: -posted.stockChange as Money,
          income: money(0),
        }));
        expect(jobSum([...postings, ...undone]).cost === 0).toBe(true);
      }),
    );
  });
});
