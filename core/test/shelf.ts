import { expect } from 'vitest';
import { type Money, parseDecimal, type Quantity, SCALE } from '../src/number/index.ts';
import {
  bringInAt,
  type ItemStock,
  type Place,
  type Posted,
  Posting,
  placeKey,
  type Standing,
  type StockState,
} from '../src/stock/index.ts';

// A shelf of one item, for the tests of what stock is worth.

export const q = (text: string) => parseDecimal(text) as Quantity;
export const money = (text: string) => parseDecimal(text) as Money;
export const bin = (binId: number, more: Partial<Place> = {}): Place => ({
  itemId: 1,
  binId,
  lotId: null,
  serialId: null,
  buildId: null,
  ...more,
});
export const serial = (serialId: number, binId = 1) => bin(binId, { serialId });
export const refusal = (code: string, facts: object = {}) =>
  expect.objectContaining({ code, facts: expect.objectContaining(facts) });

/** Applies postings one after the other, as the database does. */
export class Shelf implements StockState {
  readonly items = new Map<number, ItemStock>();
  readonly places = new Map<string, Quantity>();
  readonly serials = new Map<number, Money>();

  post(fill: (posting: Posting) => void, mayGoBelow = false): Posted {
    const posting = new Posting(this, { mayGoBelow });
    fill(posting);
    const posted = posting.close();
    for (const [id, item] of posted.items) this.items.set(id, item);
    for (const [key, { quantity }] of posted.places) this.places.set(key, quantity);
    for (const [id, value] of posted.serials) {
      if (value === null) this.serials.delete(id);
      else this.serials.set(id, value);
    }
    return posted;
  }

  receive = (standing: Standing[], value: string) =>
    this.post((posting) => {
      posting.addValue('supplier', money(value), { itemId: 1 });
      bringInAt(posting, standing, money(value));
    });
  take = (place: Place, quantity: string, mayGoBelow = false) =>
    this.post((posting) => {
      posting.addValue('written-off', -posting.takeOut(place, q(quantity)) as Money);
    }, mayGoBelow);
  get stock() {
    const { quantity, value, lastCost } = this.items.get(1) as ItemStock;
    return [quantity, value, lastCost].map((n) => n / SCALE);
  }
  at = (place: Place) => (this.places.get(placeKey(place)) ?? 0) / SCALE;
}
export const one = (place: Place): Standing => ({ place, quantity: q('1') });
export const lines = ({ values }: Posted) => values.map(({ kind, amount, itemId }) => [kind, amount / SCALE, itemId]);
export const moved = ({ movements }: Posted) =>
  movements.map(({ quantity, value }) => [quantity / SCALE, value / SCALE]);
