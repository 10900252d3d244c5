import { describe, expect, it } from 'vitest';
import { bin, lines, money, moved, one, q, refusal, Shelf, serial } from '../../test/shelf.ts';
import type { Money } from '../number/index.ts';
import { bringInAt, spotKey, spotOf } from './index.ts';

describe('places', () => {
  it('are told apart by item, bin, lot, serial and build', () => {
    const all = [
      spotOf(1, 2),
      spotOf(2, 2),
      spotOf(1, 3),
      spotOf(1, 2, { kind: 'build', id: 4 }),
      bin(2, { lotId: 4 }),
      bin(2, { serialId: 4 }),
      bin(2, { lotId: 4, serialId: 4 }),
    ];
    expect(new Set(all.map(spotKey)).size).toBe(all.length);
    expect(spotKey(spotOf(1, 2))).toBe('1:2:::');
    expect(spotOf(1, 2, { kind: 'build', id: 4 })).toEqual(bin(2, { holder: { kind: 'build', id: 4 } }));
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
    expect(shelf.stock).toEqual([1, 50, 50]);
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
    expect(worth.values[0]).toMatchObject({ kind: 'revalued', itemId: 1, lineId: null });
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
      posting.addValue('labour', money('6'), { lineId: 9 });
      posting.bringIn(bin(1), q('2'), money('6'), 9);
    });
    expect(posted.values).toEqual([{ kind: 'labour', amount: money('6'), itemId: null, lineId: 9 }]);
    const undone = shelf.post((posting) => posting.reverse(posted.movements, posted.values));
    expect(undone.values).toEqual([{ kind: 'labour', amount: -money('6'), itemId: null, lineId: 9 }]);
    expect(undone.movements[0]).toMatchObject({ lineId: 9, quantity: -q('2') });
  });

  it('and quantities are refused beyond what can be kept of one item', () => {
    const shelf = new Shelf();
    const most = { spot: bin(1), quantity: q('999999999') };
    shelf.receive([most, { ...most, spot: bin(2) }], '0');
    expect(() => shelf.receive([{ spot: bin(3), quantity: q('3') }], '0')).toThrow(
      refusal('too-large', { largest: 2_000_000_000_000_000 }),
    );
    shelf.receive([{ spot: bin(3), quantity: q('2') }], '0');
    expect(shelf.stock[0]).toBe(2_000_000_000);
  });
});
