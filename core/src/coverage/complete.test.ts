import { describe, expect, it } from 'vitest';
import type { PartLine, Revision } from '../definitions/index.ts';
import { type Percent, parseDecimal, type Quantity } from '../number/index.ts';
import { complete, cover } from './index.ts';
import { smallWorld } from './small-world.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const part = (itemId: number, quantity: string): PartLine => ({
  kind: 'part',
  itemId,
  basis: 'per-output',
  quantity: q(quantity),
  waste: 0 as Percent,
  taken: 'picked-first',
  decimals: 0,
});
/** A hive (1) of two frames (2) and a roof (3); a frame of four bars (4) and wire (5); bars are cut from planks (6). */
const made: Record<number, Revision> = {
  1: { outputQuantity: q('1'), lines: [part(2, '2'), part(3, '1')] },
  2: { outputQuantity: q('1'), lines: [part(4, '4'), part(5, '1')] },
  4: { outputQuantity: q('1'), lines: [part(6, '1')] },
};
const worldOf = (stock: Record<number, string>, coming: Record<number, string> = {}) =>
  smallWorld({
    revisionOf: (id) => made[id],
    stockOf: (id) => (stock[id] ? { onHand: q(stock[id]), promised: q('0') } : undefined),
    comingOf: (id) => (coming[id] ? [{ itemId: id, quantity: q('100'), date: coming[id] }] : []),
    decimalsOf: () => 0,
    items: [1, 2, 3, 4, 5, 6],
  });
const wanted = [{ itemId: 1, quantity: q('10') }];
const shown = (all: readonly { itemId: number; quantity: number }[]) =>
  all.map(({ itemId, quantity }) => [itemId, quantity / 1e6]);

describe('the complete answer', () => {
  it('builds made parts that are short, level by level, buys what those lack, and says the day', () => {
    const world = worldOf({ 2: '5', 3: '10', 4: '20' });
    const answer = complete(
      world,
      { wanted },
      new Map([
        [5, '2026-12-04'],
        [6, '2026-12-11'],
      ]),
    );
    // Twenty frames less five; sixty bars less twenty; forty planks, and wire for fifteen frames.
    expect(answer.levels.map(shown)).toEqual([[[2, 15]], [[4, 40]]]);
    expect(shown(answer.buy).sort()).toEqual([
      [5, 15],
      [6, 40],
    ]);
    // Planks come on a Friday; the bars are cut that day, the frames made and the hives as well, each a day's work at least.
    expect(answer).toMatchObject({ unknown: [], completeOn: '2026-12-11', products: ['2026-12-11'] });
    // Asking takes nothing.
    expect(cover(world, { wanted }).components.find(({ itemId }) => itemId === 2)?.short).toBe(q('15'));
  });

  it('says what nobody knows a day for, and none then', () => {
    const answer = complete(
      worldOf({ 3: '10', 2: '20' }, {}),
      { wanted: [{ itemId: 1, quantity: q('12') }] },
      new Map(),
    );
    expect(answer).toMatchObject({ unknown: [3, 5, 6], completeOn: null, products: [null] });
  });

  it('takes nothing where all is there or comes, and counts what comes', () => {
    const all = complete(worldOf({ 2: '20', 3: '10' }), { wanted }, new Map());
    expect(all).toEqual({ levels: [], buy: [], unknown: [], products: ['2026-11-25'], completeOn: '2026-11-25' });
    const later = complete(worldOf({ 2: '20' }, { 3: '2026-12-07' }), { wanted }, new Map());
    expect(later).toMatchObject({ levels: [], buy: [], completeOn: '2026-12-07' });
  });

  it('takes a part from its shelf once, also where finished ones go first', () => {
    const answer = complete(worldOf({ 2: '5', 3: '10' }), { wanted, finishedFirst: true }, new Map());
    expect(answer.levels.map(shown)).toEqual([[[2, 15]], [[4, 60]]]);
  });
});
