import { describe, expect, it } from 'vitest';
import { type Money, parseDecimal, type Quantity } from '../number/index.ts';
import { type ItemStock, Posting, type Spot, type StockState, spotKey } from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const money = (text: string) => parseDecimal(text) as Money;
const bin = (binId: number, itemId = 1): Spot => ({ itemId, binId, lotId: null, serialId: null, holder: null });

/** Applies postings one after the other, as the database does. */
class Shelf implements StockState {
  readonly items = new Map<number, ItemStock>();
  readonly spots = new Map<string, Quantity>();
  readonly serials = new Map<number, Money>();

  post(fill: (posting: Posting) => void, mayGoBelow = false) {
    const posting = new Posting(this, { mayGoBelow });
    fill(posting);
    const posted = posting.close();
    for (const [id, item] of posted.items) this.items.set(id, item);
    for (const [key, { quantity }] of posted.spots) this.spots.set(key, quantity);
    return posted;
  }

  receive(quantity: string, unitCost: string) {
    return this.post((posting) => {
      const value = Math.round(Number(quantity) * Number(unitCost) * 1e6) as Money;
      posting.bringIn(bin(1), q(quantity), value);
      posting.addValue('supplier', value);
    });
  }

  issue(quantity: string, mayGoBelow = false) {
    return this.post((posting) => {
      posting.addValue('written-off', -posting.takeOut(bin(1), q(quantity)) as Money);
    }, mayGoBelow);
  }
}

describe('moving average', () => {
  it('100 at 2.00, then 50 at 2.60, issue 30: 66.00 out, 120 worth 264.00', () => {
    const shelf = new Shelf();
    shelf.receive('100', '2');
    shelf.receive('50', '2.6');
    expect(shelf.items.get(1)).toEqual({ quantity: q('150'), value: money('330'), lastCost: money('2.2') });
    const { movements } = shelf.issue('30');
    expect(movements).toEqual([{ ...bin(1), quantity: -q('30'), value: -money('66'), lineId: null }]);
    expect(shelf.items.get(1)).toMatchObject({ quantity: q('120'), value: money('264') });
  });

  it('the last of an item takes all of its value along', () => {
    const shelf = new Shelf();
    shelf.receive('3', '0.333333');
    shelf.issue('1');
    shelf.issue('2');
    expect(shelf.items.get(1)).toMatchObject({ quantity: 0, value: 0 });
  });
});

describe('below zero', () => {
  it('is refused with every shortage', () => {
    const shelf = new Shelf();
    shelf.receive('5', '1');
    const both = (posting: Posting) => {
      posting.takeOut(bin(1), q('7'));
      posting.takeOut(bin(1, 2), q('1'));
    };
    expect(() => shelf.post(both)).toThrow(
      expect.objectContaining({
        code: 'stock-short',
        facts: {
          lines: [
            expect.objectContaining({ itemId: 1, wanted: q('7'), there: q('5') }),
            expect.objectContaining({ itemId: 2, there: 0 }),
          ],
        },
      }),
    );
    expect(shelf.spots.get(spotKey(bin(1)))).toBe(q('5'));
  });

  it('goes out at the last known cost, and the next receipt settles the difference as its own line', () => {
    const shelf = new Shelf();
    shelf.receive('10', '2');
    const out = shelf.issue('14', true);
    expect(out.movements[0]?.value).toBe(-money('28'));
    expect(out.belowZero).toEqual([expect.objectContaining({ wanted: q('14'), there: q('10') })]);
    expect(shelf.items.get(1)).toMatchObject({ quantity: -q('4'), value: -money('8') });

    const first = shelf.receive('1', '3');
    expect(first.values.find((line) => line.kind === 'cost-difference')?.amount).toBe(-money('1'));
    expect(shelf.items.get(1)).toMatchObject({ quantity: -q('3'), value: -money('6') });
    const second = shelf.receive('10', '3');
    expect(second.values.find((line) => line.kind === 'cost-difference')?.amount).toBe(-money('3'));
    expect(second.movements.at(-1)).toMatchObject({ quantity: 0, value: -money('3') });
    expect(shelf.items.get(1)).toMatchObject({ quantity: q('7'), value: money('21'), lastCost: money('3') });
  });
});

describe('undo', () => {
  const undo = (shelf: Shelf, of: ReturnType<Shelf['receive']>) =>
    shelf.post((posting) => posting.reverse(of.movements, of.values));

  it('brings back exactly what went out', () => {
    const shelf = new Shelf();
    shelf.receive('3', '1.111111');
    const before = shelf.items.get(1);
    const issued = shelf.issue('2');
    shelf.receive('4', '9');
    undo(shelf, issued);
    expect(shelf.items.get(1)?.quantity).toBe(q('7'));
    expect(shelf.items.get(1)?.value).toBe((before?.value ?? 0) + money('36'));
  });

  it('leaves nothing but the opposite where nothing is left over', () => {
    const shelf = new Shelf();
    const received = shelf.receive('3', '2');
    const undone = undo(shelf, received);
    expect(undone.movements).toEqual([{ ...bin(1), quantity: -q('3'), value: -money('6'), lineId: null }]);
    expect(undone.values).toMatchObject([{ kind: 'supplier', amount: -money('6') }]);
  });

  it('is refused when the goods have gone', () => {
    const shelf = new Shelf();
    const received = shelf.receive('5', '1');
    shelf.issue('3');
    expect(() => undo(shelf, received)).toThrow(
      expect.objectContaining({
        code: 'undo-goods-gone',
        facts: { lines: [expect.objectContaining({ itemId: 1, binId: 1, wanted: q('5'), there: q('2') })] },
      }),
    );
  });

  it('is refused when the goods are there but their value has been used', () => {
    const shelf = new Shelf();
    const dear = shelf.receive('5', '10');
    shelf.receive('5', '1');
    shelf.issue('4');
    expect(() => undo(shelf, dear)).toThrow(expect.objectContaining({ code: 'undo-value-gone' }));
  });

  it('leaves no value without goods', () => {
    const shelf = new Shelf();
    shelf.receive('5', '1');
    const second = shelf.receive('5', '2');
    shelf.issue('5');
    const undone = undo(shelf, second);
    expect(shelf.items.get(1)).toMatchObject({ quantity: 0, value: 0 });
    expect(undone.values.map((line) => line.kind)).toEqual(['supplier', 'cost-difference']);
  });
});
