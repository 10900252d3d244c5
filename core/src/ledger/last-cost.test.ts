import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Money, type Quantity, SCALE } from '../number/index.ts';
import { type ItemStock, lastCostAfter, NO_STOCK, Posting, postRevaluation, type Step } from './index.ts';

const step = (quantity: number, value: number, changed = 0): Step => ({
  quantity: (quantity * SCALE) as Quantity,
  value: Math.round(value * SCALE) as Money,
  changed: Math.round(changed * SCALE) as Money,
});
const cost = (...steps: Step[]) => {
  const known = lastCostAfter(steps);
  return known === undefined ? undefined : known / SCALE;
};

describe('the last cost that was known', () => {
  it('is the average after what came last, also once all of it has left', () => {
    expect(cost()).toBeUndefined();
    expect(cost(step(-2, -4))).toBeUndefined();
    expect(cost(step(10, 20), step(10, 40))).toBe(3);
    expect(cost(step(10, 20), step(10, 40), step(-20, -60))).toBe(3);
    expect(cost(step(10, 20), step(-10, -20), step(5, 45), step(-5, -45))).toBe(9);
  });

  it('is what it came in at while more is owed than there is', () => {
    expect(cost(step(2, 6), step(-7, -21), step(3, 12))).toBe(4);
    // 5 are owed; of 10 at 4 there stay 5 at 4, whatever the 5 left at.
    expect(cost(step(2, 6), step(-7, -21), step(10, 40, -5))).toBe(4);
    expect(cost(step(2, 6), step(-7, -21), step(10, 40, -5), step(5, 40))).toBe(6);
    expect(cost(step(2, 6), step(-7, -21), step(5, 20, -5), step(4, 8))).toBe(2);
  });

  it('follows a change of worth while there is some, never below nothing', () => {
    expect(cost(step(10, 20), step(0, 0, 5))).toBe(2.5);
    expect(cost(step(10, 20), step(-10, -20), step(0, 0, 5))).toBe(2);
    expect(cost(step(10, 20), step(-5, -40), step(0, 0, -90))).toBe(0);
    // A rework takes in the unit that it gives back, worth what was spent on it besides.
    expect(cost(step(2, 20), step(0, 6))).toBe(13);
  });

  it('is told by what came last, whatever was owed or there before', () => {
    expect(cost(step(10, 20), step(-10, -20), step(4, 12, 5))).toBe(3);
    expect(cost(step(10, 20), step(-12, -24), step(2, 8, -4))).toBe(4);
    expect(cost(step(10, 20), step(-12, -24), step(2, 8, -4), step(3, 3))).toBe(1);
    expect(cost(step(3, 1), step(-1, -0.333333), step(1, 1))).toBe(0.555556);
    expect(cost(step(10, 20), step(0, 5, -5), step(0, 3, 2))).toBe(2.5);
    expect(cost(step(10, 20), step(-20, -40), step(0, 0, 9))).toBe(2);
  });

  it('holds nothing of what was undone, though others left at an average that did', () => {
    // 10 at 2 stand; 10 at 10 were undone, after ten had left at the average of 6.
    expect(cost(step(10, 20), step(-9, -54), step(-1, -6))).toBe(2);
  });

  it('is what the ledger keeps as long as nothing is undone', () => {
    const change = fc.oneof(
      fc.record({ do: fc.constant('in' as const), n: fc.integer({ min: 1, max: 30 }), cost: fc.nat(9_999_999) }),
      fc.record({ do: fc.constant('out' as const), n: fc.integer({ min: 1, max: 40 }), cost: fc.constant(0) }),
      fc.record({ do: fc.constant('worth' as const), n: fc.constant(0), cost: fc.nat(9_999_999) }),
    );
    fc.assert(
      fc.property(fc.array(change, { maxLength: 30 }), (changes) => {
        const spot = { itemId: 1, binId: 1, lotId: null, serialId: null, holder: null };
        let item: ItemStock = NO_STOCK;
        let there = 0 as Quantity;
        const steps: Step[] = [];
        for (const { do: what, n, cost: each } of changes) {
          const state = { items: new Map([[1, item]]), spots: new Map([['1:1:::', there]]), serials: new Map() };
          const posting = new Posting(state, { mayGoBelow: true });
          const quantity = (n * SCALE) as Quantity;
          if (what === 'in') {
            posting.addValue('supplier', (n * each) as Money);
            posting.bringIn(spot, quantity, (n * each) as Money);
          } else if (what === 'out') posting.addValue('adjusted', -posting.takeOut(spot, quantity) as Money);
          else if (item.quantity <= 0) continue;
          else postRevaluation(posting, 1, each as Money, [{ spot, quantity: item.quantity }]);
          const { movements, items } = posting.close();
          item = items.get(1) ?? item;
          there = item.quantity;
          const sum = (of: typeof movements, part: 'quantity' | 'value') => of.reduce((a, b) => a + b[part], 0);
          const [goods, rest] = [movements.filter((m) => m.quantity !== 0), movements.filter((m) => m.quantity === 0)];
          steps.push({
            quantity: sum(goods, 'quantity') as Quantity,
            value: sum(goods, 'value') as Money,
            changed: sum(rest, 'value') as Money,
          });
          expect(lastCostAfter(steps) ?? 0).toBe(item.lastCost);
        }
      }),
    );
  });

  it('of units with costs of their own is what those that are left cost', () => {
    const unit = (serialId: number) => ({ itemId: 1, binId: 1, lotId: null, serialId, holder: null });
    const bring = new Posting({ items: new Map(), spots: new Map(), serials: new Map() });
    bring.addValue('supplier', 100 as Money);
    bring.bringIn(unit(1), SCALE as Quantity, 10 as Money);
    bring.bringIn(unit(2), SCALE as Quantity, 90 as Money);
    const { items, spots } = bring.close();
    expect(items.get(1)?.lastCost).toBe(50);
    const serials = new Map([
      [1, 10 as Money],
      [2, 90 as Money],
    ]);
    const stood = new Map([...spots].map(([key, { quantity }]) => [key, quantity]));
    const take = new Posting({ items, spots: stood, serials });
    take.addValue('adjusted', -take.takeOut(unit(2), SCALE as Quantity) as Money);
    expect(take.close().items.get(1)).toMatchObject({ value: 10, lastCost: 10 });
    const steps: Step[] = [
      { quantity: (2 * SCALE) as Quantity, value: 100 as Money, changed: 0 as Money },
      { quantity: -SCALE as Quantity, value: -90 as Money, changed: 0 as Money },
    ];
    expect([lastCostAfter(steps, true), lastCostAfter(steps)]).toEqual([10, 50]);
    // What others left at by then is nothing to what stays: half of a hundred, and ten more.
    const more = { quantity: 0 as Quantity, value: 0 as Money, changed: 10 as Money };
    expect([lastCostAfter([...steps, more], true), lastCostAfter([...steps, more])]).toEqual([20, 60]);
    const gone = { quantity: -SCALE as Quantity, value: -10 as Money, changed: 0 as Money };
    expect(lastCostAfter([...steps, gone], true)).toBe(10);
  });
});
