import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Posting, type Spot, spotKey, spotOf } from '../ledger/index.ts';
import { type Money, type Percent, parseDecimal, type Quantity, SCALE } from '../number/index.ts';
import { type FinishingPart, postFinish } from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const money = (text: string) => parseDecimal(text) as Money;
const PRODUCT = 9;
const progress = { quantity: q('4'), finished: q('0'), outputQuantity: q('1') };
const part = (lineId: number, itemId: number, actual: string, more: Partial<FinishingPart> = {}): FinishingPart => ({
  kind: 'part',
  lineId,
  itemId,
  basis: 'per-output',
  quantity: q('1'),
  waste: 0 as Percent,
  decimals: 0,
  actual: q(actual),
  onBench: 0 as Quantity,
  bench: [],
  shelves: [],
  usual: spotOf(itemId, 1),
  ...more,
});

/** Stock of items at 2.00, 3.00, … each, standing where it is said. */
function stand(...there: [spot: Spot, quantity: string][]) {
  const items = new Map<number, { quantity: Quantity; value: Money; lastCost: Money }>();
  for (const [{ itemId }, quantity] of there) {
    const before = items.get(itemId)?.quantity ?? 0;
    const cost = money(String(itemId + 1));
    const sum = (before + q(quantity)) as Quantity;
    items.set(itemId, { quantity: sum, value: ((sum / SCALE) * cost) as Money, lastCost: cost });
  }
  const spots = new Map(there.map(([spot, quantity]) => [spotKey(spot), q(quantity)]));
  return new Posting({ items, spots, serials: new Map() }, { mayGoBelow: true });
}
const output = [{ spot: spotOf(PRODUCT, 5), quantity: q('2') }];

describe('posting a finish', () => {
  it('takes from the bench first and the shelves in order, and brings the good units in at what was used', () => {
    const [bench, first, second] = [spotOf(1, 8, { kind: 'build', id: 7 }), spotOf(1, 2), spotOf(1, 3)];
    const posting = stand([bench, '3'], [first, '2'], [second, '9']);
    const lines = [
      part(1, 1, '6', { onBench: q('3'), bench: [bench], shelves: [first, second] }),
      { kind: 'labour' as const, lineId: 2, actual: q('90'), ratePerHour: money('24') },
      { kind: 'charge' as const, lineId: 3, basis: 'per-run' as const, amount: money('5') },
    ];
    const done = postFinish(posting, { output, good: q('2'), progress, lines });
    const { movements, values } = posting.close();
    expect(
      movements.map(({ binId, quantity, value, lineId }) => [binId, quantity / SCALE, value / SCALE, lineId]),
    ).toEqual([
      [8, -3, -6, 1],
      [2, -2, -4, 1],
      [3, -1, -2, 1],
      [5, 2, 53, null],
    ]);
    expect(values.map(({ kind, amount, lineId }) => [kind, amount / SCALE, lineId])).toEqual([
      ['labour', 36, 2],
      ['charge', 5, 3],
    ]);
    expect([...done.costs].map(([id, cost]) => [id, cost / SCALE])).toEqual([
      [1, 12],
      [2, 36],
      [3, 5],
    ]);
    expect([...done.fromBench]).toEqual([[1, q('3')]]);
    expect(done.total).toBe(money('53'));
  });

  it('leaves out of the good units what is written off with the rejected ones, and never a cent of value', () => {
    const amount = fc.integer({ min: 0, max: 4 });
    const cents = fc.integer({ min: 0, max: 99_999 }).map((n) => (n * 10_000) as Money);
    fc.assert(
      fc.property(
        amount,
        amount,
        cents,
        fc.option(cents, { nil: null }),
        (goodUnits, rejectedUnits, charge, writeOff) => {
          fc.pre(goodUnits + rejectedUnits > 0);
          const [good, rejected] = [q(String(goodUnits)), q(String(rejectedUnits))];
          const posting = stand([spotOf(1, 2), '9']);
          const lines = [
            part(1, 1, String(goodUnits + rejectedUnits), { shelves: [spotOf(1, 2)] }),
            { kind: 'charge' as const, lineId: 3, basis: 'per-run' as const, amount: charge },
          ];
          const done = postFinish(posting, {
            output: goodUnits > 0 ? [{ spot: spotOf(PRODUCT, 5), quantity: good }] : [],
            good,
            rejected,
            writeOff: writeOff ?? (0 as Money),
            progress: { ...progress, quantity: q('8') },
            lines,
          });
          const { movements, values } = posting.close();
          const made = movements.filter(({ itemId }) => itemId === PRODUCT).reduce((sum, { value }) => sum + value, 0);
          expect(made + done.writtenOff).toBe(done.total);
          expect(done.writtenOff).toBe(goodUnits === 0 ? done.total : Math.min(done.total, writeOff ?? 0));
          const added = values.reduce((sum, one) => sum + one.amount, 0);
          expect(movements.reduce((sum, { value }) => sum + value, 0)).toBe(added);
        },
      ),
    );
  });

  it('gives what came out of a unit its share of that unit alone: to stock, or written off with the scrap', () => {
    const posting = stand([spotOf(5, 2), '1'], [spotOf(1, 2), '9']);
    const parts = (['stock', 'scrap', 'back-in'] as const).map((went, index) => ({
      went,
      share: parseDecimal(['30', '20', '40'][index] ?? '') as Percent,
      standing: went === 'stock' ? [{ spot: spotOf(3, 4), quantity: q('1') }] : [],
    }));
    const lines = [part(1, 5, '1', { shelves: [spotOf(5, 2)] }), part(2, 1, '2', { shelves: [spotOf(1, 2)] })];
    const one = [{ spot: spotOf(PRODUCT, 5), quantity: q('1') }];
    const done = postFinish(posting, { output: one, good: q('1'), progress, lines, out: { itself: 5, parts } });
    const { movements, values } = posting.close();
    // The unit was worth 6.00 and 4.00 of parts went in; 1.80 goes to stock, 1.20 is scrap.
    expect([done.out.map((worth) => worth / SCALE), done.writtenOff / SCALE, done.total / SCALE]).toEqual([
      [1.8, 1.2, 0],
      1.2,
      10,
    ]);
    expect(
      movements.filter(({ quantity }) => quantity > 0).map(({ itemId, value }) => [itemId, value / SCALE]),
    ).toEqual([
      [3, 1.8],
      [PRODUCT, 7],
    ]);
    expect(values.map(({ kind, amount }) => [kind, amount / SCALE])).toEqual([['written-off', -1.2]]);
  });

  it('is all cost of a repair where what is made is not ours, and brings nothing in', () => {
    const posting = stand([spotOf(1, 2), '9']);
    const lines = [part(1, 1, '2', { shelves: [spotOf(1, 2)] })];
    const done = postFinish(posting, { output: [], good: q('1'), progress, lines, isRepair: true });
    const { movements, values } = posting.close();
    expect(done).toMatchObject({ total: money('4'), writtenOff: 0, out: [] });
    expect(values.map(({ kind, amount }) => [kind, amount / SCALE])).toEqual([['repaired', -4]]);
    expect(movements.map(({ quantity }) => quantity / SCALE)).toEqual([-2]);
  });

  it('brings nothing in where nothing is good, and writes off all of it', () => {
    const posting = stand([spotOf(1, 2), '9']);
    const lines = [part(1, 1, '2', { shelves: [spotOf(1, 2)] })];
    const done = postFinish(posting, { output: [], good: q('0'), rejected: q('2'), progress, lines });
    expect(done.writtenOff).toBe(money('4'));
    expect(posting.close().movements.map(({ quantity }) => quantity / SCALE)).toEqual([-2]);
  });

  it('notes what no place has where it usually stands, on the bench where it was to be', () => {
    const posting = stand([spotOf(1, 2), '1']);
    const lines = [part(1, 1, '3', { shelves: [spotOf(1, 2)], usual: spotOf(1, 4) })];
    postFinish(posting, { output, good: q('2'), progress, lines });
    expect(posting.close().belowZero).toEqual([{ ...spotOf(1, 4), wanted: q('2'), there: 0 }]);
    const gone = stand([spotOf(1, 2), '9']);
    const bench = spotOf(1, 8, { kind: 'build', id: 7 });
    postFinish(gone, { output, good: q('2'), progress, lines: [part(1, 1, '2', { onBench: q('2'), bench: [bench] })] });
    expect(gone.close().belowZero.map(({ binId, holder }) => [binId, holder?.id])).toEqual([[8, 7]]);
    const nowhere = stand([spotOf(1, 2), '9']);
    postFinish(nowhere, { output, good: q('2'), progress, lines: [part(1, 1, '2', { onBench: q('2') })] });
    expect(nowhere.close().belowZero.map(({ binId }) => binId)).toEqual([1]);
  });

  it('lets a second line of the same part go on where the first has emptied a place', () => {
    const [near, far] = [spotOf(1, 2), spotOf(1, 3)];
    const posting = stand([near, '3'], [far, '3']);
    const lines = [1, 2].map((lineId) => part(lineId, 1, '2', { shelves: [near, far] }));
    const done = postFinish(posting, { output, good: q('2'), progress, lines });
    const { movements, belowZero } = posting.close();
    expect(belowZero).toEqual([]);
    expect(movements.slice(0, 3).map(({ binId, quantity, lineId }) => [binId, quantity / SCALE, lineId])).toEqual([
      [2, -2, 1],
      [2, -1, 2],
      [3, -1, 2],
    ]);
    expect(done.total).toBe(money('8'));
  });
});
