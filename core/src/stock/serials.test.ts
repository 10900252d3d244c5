import { describe, expect, it } from 'vitest';
import { type Money, parseDecimal, type Quantity, SCALE } from '../number/index.ts';
import {
  bringInAt,
  type ItemStock,
  type Place,
  type Posted,
  Posting,
  placeKey,
  placeOf,
  postAdjustment,
  postPriceDifference,
  postRevaluation,
  type Standing,
  type StockState,
  stillHere,
} from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const money = (text: string) => parseDecimal(text) as Money;
const bin = (binId: number, more: Partial<Place> = {}): Place => ({
  itemId: 1,
  binId,
  lotId: null,
  serialId: null,
  buildId: null,
  ...more,
});
const serial = (serialId: number, binId = 1) => bin(binId, { serialId });
const refusal = (code: string, facts: object = {}) =>
  expect.objectContaining({ code, facts: expect.objectContaining(facts) });

/** Applies postings one after the other, as the database does. */
class Shelf implements StockState {
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
const one = (place: Place): Standing => ({ place, quantity: q('1') });
const lines = ({ values }: Posted) => values.map(({ kind, amount, itemId }) => [kind, amount / SCALE, itemId]);
const moved = ({ movements }: Posted) => movements.map(({ quantity, value }) => [quantity / SCALE, value / SCALE]);

describe('places', () => {
  it('are told apart by item, bin, lot, serial and build', () => {
    const all = [
      placeOf(1, 2),
      placeOf(2, 2),
      placeOf(1, 3),
      placeOf(1, 2, 4),
      bin(2, { lotId: 4 }),
      bin(2, { serialId: 4 }),
      bin(2, { lotId: 4, serialId: 4 }),
    ];
    expect(new Set(all.map(placeKey)).size).toBe(all.length);
    expect(placeKey(placeOf(1, 2))).toBe('1:2:::');
    expect(placeOf(1, 2, 4)).toEqual(bin(2, { buildId: 4 }));
  });
});

describe('goods that come in to several places', () => {
  it('carry their part of the value each, and no millionth is lost', () => {
    const shelf = new Shelf();
    const posted = shelf.receive([one(bin(1)), one(bin(2)), one(bin(3))], '1');
    expect(moved(posted)).toEqual([
      [1, 0.333334],
      [1, 0.333333],
      [1, 0.333333],
    ]);
    expect(shelf.stock).toEqual([3, 1, 0.333333]);
  });
});

describe('a serial', () => {
  it('keeps its own cost wherever it goes, and is nothing once it has left', () => {
    const shelf = new Shelf();
    shelf.receive([one(serial(7))], '30');
    shelf.receive([one(serial(8))], '50');
    const posted = shelf.post((posting) => posting.move(serial(7), serial(7, 2), q('1')));
    expect(moved(posted)).toEqual([
      [-1, -30],
      [1, 30],
    ]);
    expect([...posted.serials]).toEqual([[7, money('30')]]);
    const out = shelf.take(serial(7, 2), '1');
    expect([...out.serials]).toEqual([[7, null]]);
    expect(shelf.stock).toEqual([1, 50, 40]);
    expect(shelf.at(serial(7, 2))).toBe(0);
  });

  it('is refused where it is not, and where it is already, whoever allows it', () => {
    const shelf = new Shelf();
    shelf.receive([one(serial(7))], '30');
    expect(() => shelf.take(serial(7, 2), '1', true)).toThrow(
      refusal('serial-not-there', { lines: [{ ...serial(7, 2), wanted: q('1'), there: 0 }] }),
    );
    expect(() => shelf.receive([one(serial(7, 2))], '30')).toThrow(
      refusal('serial-in-stock', { lines: [serial(7), serial(7, 2)].slice(1) }),
    );
    expect(() => shelf.take(bin(2), '1', true)).not.toThrow();
  });

  it('comes in again after it has left within the same posting, as a rework gives it back', () => {
    const shelf = new Shelf();
    shelf.receive([one(serial(7))], '30');
    const posted = shelf.post((posting) => {
      const cost = posting.takeOut(serial(7), q('1'));
      posting.addValue('labour', money('5'));
      bringInAt(posting, [one(serial(7, 3))], (cost + money('5')) as Money);
    });
    expect([...posted.serials]).toEqual([[7, money('35')]]);
    expect(shelf.stock).toEqual([1, 35, 35]);
  });

  it('is found at what it is told to be worth, and undone without leaving anything', () => {
    const shelf = new Shelf();
    const receipt = shelf.receive([one(serial(7)), one(serial(8))], '60');
    const worth = shelf.post((posting) => {
      posting.addWorth(serial(7), money('4'));
      posting.addValue('revalued', money('4'), { itemId: 1 });
    });
    expect(shelf.serials.get(7)).toBe(money('34'));
    const undone = shelf.post((posting) => posting.reverse(receipt.movements, receipt.values));
    expect(shelf.stock.slice(0, 2)).toEqual([0, 0]);
    expect([...undone.serials.values()]).toEqual([null, null]);
    // What the serial had become worth besides goes with it, as a difference in cost.
    expect(lines(undone)).toEqual([
      ['supplier', -60, 1],
      ['cost-difference', -4, 1],
    ]);
    expect(worth.values[0]).toMatchObject({ kind: 'revalued', itemId: 1, buildLineId: null });
  });

  it('cannot be made worth less than nothing by an undo', () => {
    const shelf = new Shelf();
    shelf.receive([one(serial(7)), one(serial(8))], '60');
    const more = shelf.post((posting) => {
      posting.addWorth(serial(7), money('20'));
      posting.addValue('revalued', money('20'), { itemId: 1 });
    });
    shelf.post((posting) => {
      posting.addWorth(serial(7), -money('45') as Money);
      posting.addValue('revalued', -money('45') as Money, { itemId: 1 });
    });
    expect(() => shelf.post((posting) => posting.reverse(more.movements, more.values))).toThrow(
      refusal('undo-value-gone', { itemIds: [1] }),
    );
  });
});

describe('values', () => {
  it('must account for what moved, or nothing is posted', () => {
    const shelf = new Shelf();
    expect(() => shelf.post((posting) => posting.bringIn(bin(1), q('2'), money('6')))).toThrow(
      'posting does not conserve value: moved 6000000, accounted 0',
    );
    const posted = shelf.post((posting) => {
      posting.addValue('charge', 0 as Money);
      posting.addValue('labour', money('6'), { buildLineId: 9 });
      posting.bringIn(bin(1), q('2'), money('6'), 9);
    });
    expect(posted.values).toEqual([{ kind: 'labour', amount: money('6'), itemId: null, buildLineId: 9 }]);
    const undone = shelf.post((posting) => posting.reverse(posted.movements, posted.values));
    expect(undone.values).toEqual([{ kind: 'labour', amount: -money('6'), itemId: null, buildLineId: 9 }]);
    expect(undone.movements[0]).toMatchObject({ buildLineId: 9, quantity: -q('2') });
  });

  it('and quantities are refused beyond what can be kept of one item', () => {
    const shelf = new Shelf();
    const most = { place: bin(1), quantity: q('999999999') };
    shelf.receive([most, { ...most, place: bin(2) }], '0');
    expect(() => shelf.receive([{ place: bin(3), quantity: q('3') }], '0')).toThrow(
      refusal('too-large', { largest: '2000000000' }),
    );
    shelf.receive([{ place: bin(3), quantity: q('2') }], '0');
    expect(shelf.stock[0]).toBe(2_000_000_000);
  });
});

describe('a change of worth', () => {
  it('is told by the last known cost only while something is there', () => {
    const shelf = new Shelf();
    shelf.receive([{ place: bin(1), quantity: q('4') }], '8');
    const change = (amount: string) =>
      shelf.post((posting) => {
        posting.addWorth(bin(1), money(amount));
        posting.addValue('revalued', money(amount), { itemId: 1 });
      });
    change('2');
    expect(shelf.stock).toEqual([4, 10, 2.5]);
    expect(shelf.post((posting) => posting.addWorth(bin(1), 0 as Money)).movements).toEqual([]);
    shelf.take(bin(1), '6', true);
    expect(shelf.stock).toEqual([-2, -5, 2.5]);
    change('1');
    expect(shelf.stock).toEqual([-2, -4, 2.5]);
  });
});

describe('a price known later', () => {
  const post = (shelf: Shelf, received: string, difference: string, here: Standing[], standing?: string) => {
    let told = {};
    const posted = shelf.post((posting) => {
      told = postPriceDifference(posting, {
        itemId: 1,
        received: q(received),
        difference: money(difference),
        here,
        ...(standing === undefined ? {} : { standing: q(standing) }),
      });
    });
    return { posted, told };
  };

  it('goes where the goods are by what stands there, the rest is a difference in cost', () => {
    const shelf = new Shelf();
    shelf.receive([{ place: bin(1), quantity: q('10') }], '20');
    shelf.post((posting) => posting.move(bin(1), bin(2), q('2')));
    shelf.take(bin(1), '4');
    const here = [
      { place: bin(1), quantity: q('4') },
      { place: bin(2), quantity: q('2') },
      { place: bin(3), quantity: 0 as Quantity },
    ];
    const { posted, told } = post(shelf, '10', '5', here);
    expect(told).toEqual({ intoStock: money('3'), gone: money('2') });
    expect(moved(posted)).toEqual([
      [0, 2],
      [0, 1],
    ]);
    expect(lines(posted)).toEqual([
      ['supplier', 5, 1],
      ['cost-difference', -2, 1],
    ]);
    expect(shelf.stock).toEqual([6, 15, 2.5]);
  });

  it('counts what other lines have a claim on as gone, and places that owe as less', () => {
    const shelf = new Shelf();
    shelf.receive([{ place: bin(1), quantity: q('10') }], '20');
    const here = [{ place: bin(1), quantity: q('10') }];
    expect(post(shelf, '10', '10', here, '4').told).toEqual({ intoStock: money('4'), gone: money('6') });
    const owing = [...here, { place: bin(2), quantity: -q('8') as Quantity }];
    expect(stillHere(q('10'), owing, q('10'))).toBe(q('2'));
    expect([stillHere(q('3'), here, q('10')), stillHere(q('9'), here, q('5')), stillHere(q('9'), [], q('5'))]).toEqual([
      q('3'),
      q('5'),
      0,
    ]);
    expect(stillHere(q('9'), owing, -q('3') as Quantity)).toBe(0);
  });

  it('never makes what is there worth less than nothing', () => {
    const shelf = new Shelf();
    shelf.receive([{ place: bin(1), quantity: q('2') }], '4');
    const { told } = post(shelf, '2', '-9', [{ place: bin(1), quantity: q('2') }]);
    expect(told).toEqual({ intoStock: -money('4'), gone: -money('5') });
    expect(shelf.stock.slice(0, 2)).toEqual([2, 0]);
  });
});

describe('a revaluation', () => {
  const revalue = (shelf: Shelf, cost: string, here: Standing[]) =>
    shelf.post((posting) => postRevaluation(posting, 1, money(cost), here));

  it('lands where most of it stands, or on each serial', () => {
    const shelf = new Shelf();
    shelf.receive(
      [
        { place: bin(1), quantity: q('1') },
        { place: bin(2), quantity: q('3') },
      ],
      '8',
    );
    const here = [
      { place: bin(1), quantity: q('1') },
      { place: bin(2), quantity: q('3') },
    ];
    const posted = revalue(shelf, '5', here);
    expect(posted.movements).toEqual([{ ...bin(2), quantity: 0, value: money('12'), buildLineId: null }]);
    expect(lines(posted)).toEqual([['revalued', 12, 1]]);
    expect(shelf.stock).toEqual([4, 20, 5]);
    const own = new Shelf();
    own.receive([one(serial(7))], '30');
    own.receive([one(serial(8))], '50');
    const each = revalue(own, '45', [one(serial(7)), one(serial(8))]);
    expect(moved(each)).toEqual([
      [0, 15],
      [0, -5],
    ]);
    expect([...own.serials.values()]).toEqual([money('45'), money('45')]);
  });

  it('is refused where nothing is', () => {
    const shelf = new Shelf();
    const refused = expect.objectContaining({ code: 'nothing-on-hand', field: 'unitCost' });
    expect(() => revalue(shelf, '5', [])).toThrow(refused);
    shelf.take(bin(1), '1', true);
    expect(() => revalue(shelf, '5', [])).toThrow(refused);
  });
});

describe('an adjustment', () => {
  const adjust = (shelf: Shelf, change: string, unitCost: string | null = null, mayGoBelow = false) =>
    shelf.post(
      (posting) =>
        postAdjustment(posting, {
          place: bin(1),
          change: q(change),
          unitCost: unitCost === null ? null : money(unitCost),
        }),
      mayGoBelow,
    );

  it('takes at the average, finds at it or at what is told, and says so of the item', () => {
    const shelf = new Shelf();
    shelf.receive([{ place: bin(1), quantity: q('4') }], '8');
    shelf.receive([{ place: bin(1), quantity: q('4') }], '16');
    expect(lines(adjust(shelf, '-2'))).toEqual([['adjusted', -6, 1]]);
    expect(lines(adjust(shelf, '2'))).toEqual([['adjusted', 6, 1]]);
    expect(lines(adjust(shelf, '2', '7'))).toEqual([['adjusted', 14, 1]]);
    expect(lines(adjust(shelf, '1', '0'))).toEqual([]);
    expect(shelf.stock).toEqual([11, 38, 3.454545]);
  });

  it('finds at the last known cost where nothing is left, and asks where none is known', () => {
    const shelf = new Shelf();
    const unknown = expect.objectContaining({ code: 'cost-unknown', field: 'unitCost' });
    expect(() => adjust(shelf, '1')).toThrow(unknown);
    adjust(shelf, '1', '4');
    adjust(shelf, '-1');
    expect(lines(adjust(shelf, '2'))).toEqual([['adjusted', 8, 1]]);
    adjust(shelf, '-5', null, true);
    // What is owed at 4 is settled by what is found at 4.
    expect(lines(adjust(shelf, '1'))).toEqual([['adjusted', 4, 1]]);
    expect(shelf.stock).toEqual([-2, -8, 4]);
  });
});

describe('what is owed', () => {
  it('is settled by what comes: all of it, just so, or a part', () => {
    const owing = () => {
      const shelf = new Shelf();
      shelf.receive([{ place: bin(1), quantity: q('2') }], '6');
      shelf.take(bin(1), '6', true);
      return shelf;
    };
    const more = owing();
    expect(lines(more.receive([{ place: bin(1), quantity: q('6') }], '30'))).toEqual([
      ['supplier', 30, 1],
      ['cost-difference', -8, 1],
    ]);
    expect(more.stock).toEqual([2, 10, 5]);
    const just = owing();
    expect(lines(just.receive([{ place: bin(1), quantity: q('4') }], '20'))).toEqual([
      ['supplier', 20, 1],
      ['cost-difference', -8, 1],
    ]);
    expect(just.stock).toEqual([0, 0, 5]);
    const part = owing();
    expect(lines(part.receive([{ place: bin(1), quantity: q('1') }], '5'))).toEqual([
      ['supplier', 5, 1],
      ['cost-difference', -2, 1],
    ]);
    expect(part.stock).toEqual([-3, -9, 5]);
    const same = owing();
    expect(lines(same.receive([{ place: bin(1), quantity: q('6') }], '18'))).toEqual([['supplier', 18, 1]]);
  });

  it('is not made up by an undo that would leave worth without goods, or goods without worth', () => {
    const shelf = new Shelf();
    shelf.receive([{ place: bin(1), quantity: q('2') }], '2');
    const dear = shelf.receive([{ place: bin(2), quantity: q('2') }], '18');
    shelf.take(bin(1), '2');
    expect(() => shelf.post((posting) => posting.reverse(dear.movements, dear.values))).not.toThrow();
    expect(shelf.stock.slice(0, 2)).toEqual([0, 0]);
    const other = new Shelf();
    other.receive([{ place: bin(1), quantity: q('3') }], '3');
    const late = other.receive([{ place: bin(2), quantity: q('2') }], '18');
    other.take(bin(1), '2');
    expect(() => other.post((posting) => posting.reverse(late.movements, late.values))).toThrow(
      refusal('undo-value-gone', { itemIds: [1] }),
    );
  });

  it('is costed anew by what stands once the price it was known by is undone', () => {
    const shelf = new Shelf();
    shelf.receive([{ place: bin(1), quantity: q('2') }], '4');
    shelf.take(bin(1), '2');
    const dear = shelf.receive([{ place: bin(2), quantity: q('1') }], '99');
    shelf.post((posting) => posting.reverse(dear.movements, dear.values, () => money('2')));
    expect(shelf.stock).toEqual([0, 0, 2]);
    shelf.post((posting) => posting.reverse([], [], () => money('7')));
    const again = shelf.receive([{ place: bin(2), quantity: q('1') }], '9');
    shelf.receive([{ place: bin(3), quantity: q('1') }], '3');
    // Of what is there the average says more than any record.
    shelf.post((posting) => posting.reverse(again.movements, again.values, () => money('2')));
    expect(shelf.stock).toEqual([1, 3, 3]);
    const unknown = shelf.receive([{ place: bin(2), quantity: q('1') }], '9');
    shelf.take(bin(3), '1');
    shelf.post((posting) => posting.reverse(unknown.movements, unknown.values));
    expect(shelf.stock).toEqual([0, 0, 6]);
  });
});
