import { expect } from 'vitest';
import {
  bringInAt,
  type Heap,
  type ItemStock,
  type Posted,
  Posting,
  type Spot,
  type StockState,
  spotKey,
} from '../src/ledger/index.ts';
import { type Money, parseDecimal, type Quantity, SCALE } from '../src/number/index.ts';

// A shelf of one item, for the tests of what stock is worth.

export const q = (text: string) => parseDecimal(text) as Quantity;
export const money = (text: string) => parseDecimal(text) as Money;
export const bin = (binId: number, more: Partial<Spot> = {}): Spot => ({
  itemId: 1,
  binId,
  lotId: null,
  serialId: null,
  holder: null,
  ...more,
});
export const serial = (serialId: number, binId = 1) => bin(binId, { serialId });
export const refusal = (code: string, facts: object = {}) =>
  expect.objectContaining({ code, facts: expect.objectContaining(facts) });

/** Applies postings one after the other, as the database does. */
export class Shelf implements StockState {
  readonly items = new Map<number, ItemStock>();
  readonly spots = new Map<string, Quantity>();
  readonly serials = new Map<number, Money>();

  post(fill: (posting: Posting) => void, mayGoBelow = false): Posted {
    const posting = new Posting(this, { mayGoBelow });
    fill(posting);
    const posted = posting.close();
    for (const [id, item] of posted.items) this.items.set(id, item);
    for (const [key, { quantity }] of posted.spots) this.spots.set(key, quantity);
    for (const [id, value] of posted.serials) {
      if (value === null) this.serials.delete(id);
      else this.serials.set(id, value);
    }
    return posted;
  }

  receive = (standing: Heap[], value: string) =>
    this.post((posting) => {
      posting.addValue('supplier', money(value), { itemId: 1 });
      bringInAt(posting, standing, money(value));
    });
  take = (spot: Spot, quantity: string, mayGoBelow = false) =>
    this.post((posting) => {
      posting.addValue('written-off', -posting.takeOut(spot, q(quantity)) as Money);
    }, mayGoBelow);
  get stock() {
    const { quantity, value, lastCost } = this.items.get(1) as ItemStock;
    return [quantity, value, lastCost].map((n) => n / SCALE);
  }
  at = (spot: Spot) => (this.spots.get(spotKey(spot)) ?? 0) / SCALE;
}
export const one = (spot: Spot): Heap => ({ spot, quantity: q('1') });
export const lines = ({ values }: Posted) => values.map(({ kind, amount, itemId }) => [kind, amount / SCALE, itemId]);
export const moved = ({ movements }: Posted) =>
  movements.map(({ quantity, value }) => [quantity / SCALE, value / SCALE]);
