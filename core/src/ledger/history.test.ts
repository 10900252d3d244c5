import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Money, type Percent, type Quantity, SCALE, splitByWeight } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import { takeApart } from '../takeapart/index.ts';
import { type Holder, type ItemStock, type Posted, Posting, postAdjustment, type Spot, spotKey } from './index.ts';

/**
 * Random histories of every kind of posting over three parts and a product, kept by the ledger and, beside it, by the
 * plainest bookkeeping there is: the sums of all movements.
 */
const PRODUCT = 9;
const BUILD = { kind: 'build', id: 1 } as const;
const spot = (itemId: number, binId = itemId, holder: Holder | null = null): Spot => ({
  itemId,
  binId,
  lotId: null,
  serialId: null,
  holder,
});
const amount = (n: number) => (n * SCALE) as Quantity;

class Books {
  items = new Map<number, ItemStock>();
  spots = new Map<string, Quantity>();
  serials = new Map<number, Money>();
  history: { posted: Posted; undone: boolean }[] = [];

  try(fill: (posting: Posting) => void, mayGoBelow = false): boolean {
    const posting = new Posting(this, { mayGoBelow });
    try {
      fill(posting);
      const posted = posting.close();
      for (const [id, item] of posted.items) this.items.set(id, item);
      for (const [key, { quantity }] of posted.spots) this.spots.set(key, quantity);
      this.history.push({ posted, undone: false });
      return true;
    } catch (error) {
      if (error instanceof Refusal) return false;
      throw error;
    }
  }
}

type Step = (books: Books) => void;
const item = fc.integer({ min: 1, max: 3 });
const receipt = fc.tuple(item, fc.integer({ min: 1, max: 50 }), fc.integer({ min: 0, max: 9_999_999 })).map(
  ([itemId, n, cost]): Step =>
    (books) => {
      const value = (n * cost) as Money;
      books.try((posting) => {
        posting.bringIn(spot(itemId), amount(n), value);
        posting.addValue('supplier', value);
      });
    },
);
const pick = fc.tuple(item, fc.integer({ min: 1, max: 20 }), fc.boolean()).map(
  ([itemId, n, force]): Step =>
    (books) => {
      books.try((posting) => posting.move(spot(itemId), spot(itemId, 99, BUILD), amount(n)), force);
    },
);
const finish = fc
  .tuple(
    fc.array(fc.tuple(item, fc.integer({ min: 1, max: 9 }), fc.boolean()), { minLength: 1, maxLength: 4 }),
    fc.integer({ min: 1, max: 7 }),
    fc.integer({ min: 0, max: 999_999 }),
    fc.boolean(),
  )
  .map(
    ([uses, good, labour, force]): Step =>
      (books) => {
        books.try((posting) => {
          const parts = uses.map(([itemId, n, fromBench]) =>
            posting.takeOut(fromBench ? spot(itemId, 99, BUILD) : spot(itemId), amount(n)),
          );
          posting.addValue('labour', labour as Money);
          posting.bringIn(spot(PRODUCT), amount(good), (parts.reduce((a, b) => a + b, 0) + labour) as Money);
        }, force);
      },
  );
const apart = fc
  .tuple(
    fc.integer({ min: 1, max: 4 }),
    fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 3, maxLength: 3 }),
    fc.boolean(),
  )
  .map(
    ([units, good, spread]): Step =>
      (books) => {
        books.try((posting) => {
          const value = posting.takeOut(spot(PRODUCT), amount(units));
          const shares = splitByWeight((100 * SCALE) as Percent, [50, 30, 20], 10_000);
          const lines = good.map((n, index) => ({
            share: shares[index] as Percent,
            expected: amount(4),
            good: amount(n),
            damaged: amount(0),
          }));
          const split = takeApart(value, lines, spread ? 'spread' : 'written-off');
          split.lines.forEach((line, index) => {
            if (good[index]) posting.bringIn(spot(index + 1), amount(good[index]), line.value);
          });
          posting.addValue('written-off', -split.writtenOff as Money);
        });
      },
  );
const adjust = fc
  .tuple(item, fc.integer({ min: -12, max: 12 }), fc.option(fc.integer({ min: 0, max: 9_999_999 })), fc.boolean())
  .map(
    ([itemId, n, cost, force]): Step =>
      (books) => {
        const change = { spot: spot(itemId), change: amount(n), unitCost: cost as Money | null };
        books.try((posting) => postAdjustment(posting, change), force);
      },
  );
const transfer = fc.tuple(item, fc.integer({ min: 1, max: 20 }), fc.boolean()).map(
  ([itemId, n, back]): Step =>
    (books) => {
      const [from, to] = back ? [spot(itemId, 50), spot(itemId)] : [spot(itemId), spot(itemId, 50)];
      books.try((posting) => posting.move(from, to, amount(n)));
    },
);
const undo = fc.nat().map(
  (pickOne): Step =>
    (books) => {
      const open = books.history.filter(({ undone, posted }) => !undone && posted.movements.length > 0);
      const chosen = open[pickOne % Math.max(1, open.length)];
      if (chosen && books.try((posting) => posting.reverse(chosen.posted.movements, chosen.posted.values))) {
        chosen.undone = true;
        const counter = books.history.at(-1);
        if (counter) counter.undone = true;
      }
    },
);

describe('any history', () => {
  it('conserves quantity and value exactly', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(receipt, receipt, pick, finish, apart, adjust, transfer, undo), { maxLength: 60 }),
        (steps) => {
          const books = new Books();
          for (const step of steps) step(books);
          const [quantities, values, spots] = [
            new Map<number, number>(),
            new Map<number, number>(),
            new Map<string, number>(),
          ];
          for (const { posted } of books.history) {
            const moved = posted.movements.reduce((sum, { value }) => sum + value, 0);
            expect(moved).toBe(posted.values.reduce((sum, line) => sum + line.amount, 0));
            for (const movement of posted.movements) {
              quantities.set(movement.itemId, (quantities.get(movement.itemId) ?? 0) + movement.quantity);
              values.set(movement.itemId, (values.get(movement.itemId) ?? 0) + movement.value);
              spots.set(spotKey(movement), (spots.get(spotKey(movement)) ?? 0) + movement.quantity);
            }
          }
          for (const [itemId, stock] of books.items) {
            expect([stock.quantity, stock.value]).toEqual([quantities.get(itemId), values.get(itemId)]);
            if (stock.quantity === 0) expect(stock.value).toBe(0);
            if (stock.quantity > 0) expect(stock.value).toBeGreaterThanOrEqual(0);
          }
          for (const [key, quantity] of books.spots) expect(quantity).toBe(spots.get(key) ?? 0);
        },
      ),
      { numRuns: 400 },
    );
  });

  it('without an override never goes below zero anywhere, and undoing everything in turn leaves nothing', () => {
    const calm = fc.oneof(receipt, receipt, pick, finish, apart).map((step): Step => step);
    fc.assert(
      fc.property(fc.array(calm, { maxLength: 40 }), (steps) => {
        const books = new Books();
        const strict = { try: (fill: (posting: Posting) => void) => Books.prototype.try.call(books, fill, false) };
        for (const step of steps) step(Object.assign(Object.create(books), strict));
        for (const quantity of books.spots.values()) expect(quantity).toBeGreaterThanOrEqual(0);
        for (const { posted } of [...books.history].reverse()) {
          expect(books.try((posting) => posting.reverse(posted.movements, posted.values))).toBe(true);
        }
        for (const stock of books.items.values()) expect([stock.quantity, stock.value]).toEqual([0, 0]);
      }),
    );
  });
});
