import { describe, expect, it } from 'vitest';
import { bin, lines, money, moved, one, q, refusal, Shelf, serial } from '../../test/shelf.ts';
import type { Money, Quantity } from '../number/index.ts';
import { type Heap, postAdjustment, postPriceDifference, postRevaluation, stillHere } from './index.ts';

describe('a change of worth', () => {
  it('is told by the last known cost only while something is there', () => {
    const shelf = new Shelf();
    shelf.receive([{ spot: bin(1), quantity: q('4') }], '8');
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
  const post = (shelf: Shelf, received: string, difference: string, here: Heap[], standing?: string) => {
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
    shelf.receive([{ spot: bin(1), quantity: q('10') }], '20');
    shelf.post((posting) => posting.move(bin(1), bin(2), q('2')));
    shelf.take(bin(1), '4');
    const here = [
      { spot: bin(1), quantity: q('4') },
      { spot: bin(2), quantity: q('2') },
      { spot: bin(3), quantity: 0 as Quantity },
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
    shelf.receive([{ spot: bin(1), quantity: q('10') }], '20');
    const here = [{ spot: bin(1), quantity: q('10') }];
    expect(post(shelf, '10', '10', here, '4').told).toEqual({ intoStock: money('4'), gone: money('6') });
    const owing = [...here, { spot: bin(2), quantity: -q('8') as Quantity }];
    expect(stillHere(q('10'), owing, q('10'))).toBe(q('2'));
    expect([stillHere(q('3'), here, q('10')), stillHere(q('9'), here, q('5')), stillHere(q('9'), [], q('5'))]).toEqual([
      q('3'),
      q('5'),
      0,
    ]);
    expect(stillHere(q('9'), owing, -q('3') as Quantity)).toBe(0);
  });

  it('passes over what is held in returns', () => {
    const held = { spot: bin(3, { holder: { kind: 'return', id: 1 } }), quantity: q('5') };
    const here = [{ spot: bin(1), quantity: q('2') }, held];
    expect([stillHere(q('9'), here, q('9')), stillHere(q('9'), [held], q('9'))]).toEqual([q('2'), 0]);
  });

  it('never makes what is there worth less than nothing', () => {
    const shelf = new Shelf();
    shelf.receive([{ spot: bin(1), quantity: q('2') }], '4');
    const { told } = post(shelf, '2', '-9', [{ spot: bin(1), quantity: q('2') }]);
    expect(told).toEqual({ intoStock: -money('4'), gone: -money('5') });
    expect(shelf.stock.slice(0, 2)).toEqual([2, 0]);
  });
});

describe('a revaluation', () => {
  const revalue = (shelf: Shelf, cost: string, here: Heap[]) =>
    shelf.post((posting) => postRevaluation(posting, 1, money(cost), here));

  it('lands where most of it stands, or on each serial', () => {
    const shelf = new Shelf();
    shelf.receive(
      [
        { spot: bin(1), quantity: q('1') },
        { spot: bin(2), quantity: q('3') },
      ],
      '8',
    );
    const here = [
      { spot: bin(1), quantity: q('1') },
      { spot: bin(2), quantity: q('3') },
    ];
    const posted = revalue(shelf, '5', here);
    expect(posted.movements).toEqual([{ ...bin(2), quantity: 0, value: money('12'), lineId: null }]);
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
          spot: bin(1),
          change: q(change),
          unitCost: unitCost === null ? null : money(unitCost),
        }),
      mayGoBelow,
    );

  it('takes at the average, finds at it or at what is told, and says so of the item', () => {
    const shelf = new Shelf();
    shelf.receive([{ spot: bin(1), quantity: q('4') }], '8');
    shelf.receive([{ spot: bin(1), quantity: q('4') }], '16');
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
      shelf.receive([{ spot: bin(1), quantity: q('2') }], '6');
      shelf.take(bin(1), '6', true);
      return shelf;
    };
    const more = owing();
    expect(lines(more.receive([{ spot: bin(1), quantity: q('6') }], '30'))).toEqual([
      ['supplier', 30, 1],
      ['cost-difference', -8, 1],
    ]);
    expect(more.stock).toEqual([2, 10, 5]);
    const just = owing();
    expect(lines(just.receive([{ spot: bin(1), quantity: q('4') }], '20'))).toEqual([
      ['supplier', 20, 1],
      ['cost-difference', -8, 1],
    ]);
    expect(just.stock).toEqual([0, 0, 5]);
    const part = owing();
    expect(lines(part.receive([{ spot: bin(1), quantity: q('1') }], '5'))).toEqual([
      ['supplier', 5, 1],
      ['cost-difference', -2, 1],
    ]);
    expect(part.stock).toEqual([-3, -9, 5]);
    const same = owing();
    expect(lines(same.receive([{ spot: bin(1), quantity: q('6') }], '18'))).toEqual([['supplier', 18, 1]]);
  });

  it('is not made up by an undo that would leave worth without goods, or goods without worth', () => {
    const shelf = new Shelf();
    shelf.receive([{ spot: bin(1), quantity: q('2') }], '2');
    const dear = shelf.receive([{ spot: bin(2), quantity: q('2') }], '18');
    shelf.take(bin(1), '2');
    expect(() => shelf.post((posting) => posting.reverse(dear.movements, dear.values))).not.toThrow();
    expect(shelf.stock.slice(0, 2)).toEqual([0, 0]);
    const other = new Shelf();
    other.receive([{ spot: bin(1), quantity: q('3') }], '3');
    const late = other.receive([{ spot: bin(2), quantity: q('2') }], '18');
    other.take(bin(1), '2');
    expect(() => other.post((posting) => posting.reverse(late.movements, late.values))).toThrow(
      refusal('undo-value-gone', { itemIds: [1] }),
    );
  });

  it('and what an undo leaves over without goods is a difference in cost of that item alone', () => {
    const shelf = new Shelf();
    const other = (binId: number) => bin(binId, { itemId: 2 });
    const both = shelf.post((posting) => {
      posting.addValue('supplier', money('12'));
      posting.bringIn(bin(1), q('2'), money('4'));
      posting.bringIn(other(1), q('2'), money('8'));
    });
    shelf.post((posting) => {
      posting.addWorth(other(1), money('3'));
      posting.addValue('revalued', money('3'), { itemId: 2 });
    });
    const undone = shelf.post((posting) => posting.reverse(both.movements, both.values));
    expect(lines(undone)).toEqual([
      ['supplier', -12, null],
      ['cost-difference', -3, 2],
    ]);
    expect(undone.movements.at(-1)).toEqual({ ...other(1), quantity: 0, value: -money('3'), lineId: null });
    expect([...shelf.items.values()].map(({ quantity, value }) => [quantity, value])).toEqual([
      [0, 0],
      [0, 0],
    ]);
  });

  it('may not be worth something: an undo that would leave it so is refused', () => {
    const shelf = new Shelf();
    shelf.receive([{ spot: bin(1), quantity: q('2') }], '2');
    const out = shelf.take(bin(1), '2');
    shelf.take(bin(2), '3', true);
    // 3 are owed at 1; without the taking of 2 only one is, and all of it was worth 2.
    shelf.post((posting) => posting.reverse(out.movements, out.values));
    expect(shelf.stock).toEqual([-1, -1, 1]);
    const dear = shelf.post((posting) => {
      posting.addWorth(bin(2), -money('4') as Money);
      posting.addValue('revalued', -money('4') as Money, { itemId: 1 });
    });
    expect(shelf.stock).toEqual([-1, -5, 1]);
    const cheap = shelf.post((posting) => {
      posting.addWorth(bin(2), money('5'));
      posting.addValue('revalued', money('5'), { itemId: 1 });
    });
    expect(() => shelf.post((posting) => posting.reverse(dear.movements, dear.values))).toThrow(
      refusal('undo-value-gone', { itemIds: [1] }),
    );
    shelf.post((posting) => posting.reverse(cheap.movements, cheap.values));
  });

  it('is costed anew by what stands once the price it was known by is undone', () => {
    const shelf = new Shelf();
    shelf.receive([{ spot: bin(1), quantity: q('2') }], '4');
    shelf.take(bin(1), '2');
    const dear = shelf.receive([{ spot: bin(2), quantity: q('1') }], '99');
    shelf.post((posting) => posting.reverse(dear.movements, dear.values, () => money('2')));
    expect(shelf.stock).toEqual([0, 0, 2]);
    shelf.post((posting) => posting.reverse([], [], () => money('7')));
    const again = shelf.receive([{ spot: bin(2), quantity: q('1') }], '9');
    shelf.receive([{ spot: bin(3), quantity: q('1') }], '3');
    // Of what is there the average says more than any record.
    shelf.post((posting) => posting.reverse(again.movements, again.values, () => money('2')));
    expect(shelf.stock).toEqual([1, 3, 3]);
    const unknown = shelf.receive([{ spot: bin(2), quantity: q('1') }], '9');
    shelf.take(bin(3), '1');
    shelf.post((posting) => posting.reverse(unknown.movements, unknown.values));
    expect(shelf.stock).toEqual([0, 0, 6]);
  });
});
