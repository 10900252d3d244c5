import type { BuildDetail, BuildLine, Task } from '@yosegi/contract';
import { formatDecimal, type Money, SCALE } from '@yosegi/core/number';
import { describe, expect, it } from 'vitest';
import { leftOf, needOf, progressOf, reckonUse } from './reckonUse.ts';

const part = (id: number, amount: string, averageCost: string, more: object = {}, item: object = {}) =>
  ({
    ...{ id, kind: 'part', basis: 'per-output', amount, waste: '0', used: '0', instead: '0', added: null },
    ...{ taken: 'when-finished', ratePerHour: null, pieces: [], bins: [] },
    item: { id: 100 + id, name: `Part ${id}`, unit: 'each', decimals: 0, measures: [], averageCost, ...item },
    ...more,
  }) as unknown as BuildLine;
const labour = (id: number, amount: string, ratePerHour: string | null) =>
  ({ ...{ id, kind: 'labour', basis: 'per-output', amount, ratePerHour, item: null } }) as unknown as BuildLine;
const charge = (id: number, amount: string, basis = 'per-run') =>
  ({ ...{ id, kind: 'charge', basis, amount, item: null } }) as unknown as BuildLine;
const task = (id: number, more: object) =>
  ({
    ...{ id, kind: 'labour', state: 'doing', taken: '0', price: null, booked: '0', added: null, planned: '0' },
    ...more,
  }) as unknown as Task;
const build = (lines: BuildLine[], more: object = {}) =>
  ({
    ...{ itemId: 1, unit: 'each', decimals: 0, quantity: '12', finished: '0', rejected: '0', outputQuantity: '1' },
    ...{ tasks: [], lines },
    ...more,
  }) as unknown as BuildDetail;

/** The worked example: 0.4 kg of wax and a wick for each of twelve candles. */
const wax = part(1, '0.4', '3', {}, { unit: 'kg', decimals: 3 });
const wick = part(2, '1', '1.2');
const candles = build([wax, wick, { id: 9, kind: 'note', item: null } as unknown as BuildLine]);
const NOTHING = new Map<number, string>();
const says = (amount: number) => formatDecimal(amount);
const faultsOf = (...asked: Parameters<typeof reckonUse>) => Object.fromEntries(reckonUse(...asked).faults);
const usedOf = (...asked: Parameters<typeof reckonUse>) =>
  [...reckonUse(...asked).actuals].map(([id, quantity]) => [id, says(quantity)]);

describe('what a finish costs while it is typed', () => {
  it('is as planned where nothing is typed', () => {
    const { cost, unitCost, writtenOff, faults } = reckonUse(candles, '12', NOTHING);
    expect(usedOf(candles, '12', NOTHING)).toEqual([
      [1, '4.8'],
      [2, '12'],
    ]);
    expect([says(cost.actual), says(unitCost), says(writtenOff), faults.size]).toEqual(['28.8', '2.4', '0', 0]);
  });

  it('is what was really used where that is typed, with its difference in quantity and money', () => {
    const { cost, unitCost } = reckonUse(candles, '12', new Map([[1, '5.1']]));
    const [line] = cost.lines;
    expect([says(cost.actual), says(unitCost)]).toEqual(['29.7', '2.475']);
    expect([says(line?.difference ?? 0), says(line?.costDifference ?? 0)]).toEqual(['0.3', '0.9']);
    // Typed in another unit, and nothing at all.
    const measures = [{ name: 'g', one: '0.001' }];
    const typed = build([part(1, '0.4', '3', {}, { unit: 'kg', decimals: 3, measures })]);
    expect(usedOf(typed, '12', new Map([[1, '5100 g']]))).toEqual([[1, '5.1']]);
    expect(usedOf(candles, '12', new Map([[2, '']]))).toContainEqual([2, '0']);
  });

  it('is of a portion, and of what is still to come after it', () => {
    const begun = build([part(1, '1', '2'), part(2, '3', '1', { basis: 'per-run' })], {
      finished: '4',
      rejected: '1',
    });
    expect(says(leftOf(begun))).toBe('7');
    expect(progressOf(begun)).toEqual({ quantity: 12 * SCALE, finished: 5 * SCALE, outputQuantity: SCALE });
    expect(usedOf(begun, '2', NOTHING)).toEqual([
      [1, '2'],
      [2, '0'],
    ]);
    expect(usedOf(begun, '2', NOTHING, { rejectedText: ' 1 ' })[0]).toEqual([1, '3']);
  });

  it('leaves out what an alternate replaces, and uses added parts with the next finish', () => {
    const swapped = build([part(1, '1', '2', { instead: '5' })]);
    expect(usedOf(swapped, '12', NOTHING)).toEqual([[1, '7']]);
    const added = build([part(1, '3', '2', { added: { by: 'Mo', because: 'One fell' }, used: '1' })]);
    expect(usedOf(added, '2', NOTHING)).toEqual([[1, '2']]);
    expect(needOf(labour(3, '5', '24'))).toBeNull();
    expect(needOf(wick)).toMatchObject({ decimals: 0, instead: undefined, extra: undefined, basis: 'per-output' });
  });

  it('counts work at its rate: as planned, as its task says, or as typed', () => {
    const work = build([labour(3, '5', '24'), labour(4, '1', null)]);
    const { cost } = reckonUse(work, '6', NOTHING);
    expect(usedOf(work, '6', NOTHING)).toEqual([
      [3, '30'],
      [4, '6'],
    ]);
    expect(says(cost.actual)).toBe('12');
    expect(usedOf(work, '6', new Map([[3, '12.5']]))[0]).toEqual([3, '12.5']);
    expect(usedOf(work, '6', new Map([[3, '']]))[0]).toEqual([3, '0']);
    // Ninety minutes were written down of a task that is done: half of them go with half of the build.
    const done = { ...work, tasks: [task(3, { state: 'done', taken: '90' })] } as BuildDetail;
    expect(usedOf(done, '6', NOTHING)[0]).toEqual([3, '45']);
    const booked = { ...done, finished: '6', tasks: [task(3, { state: 'done', taken: '90', booked: '30' })] };
    expect(usedOf(booked as BuildDetail, '3', NOTHING)[0]).toEqual([3, '37.5']);
    // The build is over with what is finished now, whether all of it is made or no more will be.
    expect(usedOf(done, '6', NOTHING, { isClosing: true })[0]).toEqual([3, '90']);
    expect(usedOf(done, '12', NOTHING)[0]).toEqual([3, '90']);
  });

  it('counts charges as planned, as their task was priced, or not at all where it was skipped', () => {
    const service = build([charge(5, '12'), charge(6, '1', 'per-output')]);
    const costs = (tasks: Task[], good = '12') =>
      says(reckonUse({ ...service, tasks } as BuildDetail, good, NOTHING).cost.actual);
    expect(costs([])).toBe('24');
    expect(costs([task(5, { kind: 'charge', price: '20', state: 'done' })])).toBe('32');
    expect(costs([task(5, { kind: 'charge', state: 'skipped' })])).toBe('12');
    // What was added on the bench goes with whatever is finished next.
    expect(costs([task(5, { kind: 'charge', added: { by: 'Mo' }, planned: '7' })], '3')).toBe('10');
  });

  it('writes off the share of what is rejected, or lets the good ones carry it', () => {
    const ways = (isWrittenOff: boolean, good = '9', rejectedText = '3') => {
      const { writtenOff, unitCost } = reckonUse(candles, good, NOTHING, { rejectedText, isWrittenOff });
      return [says(writtenOff), says(unitCost)];
    };
    expect(ways(false)).toEqual(['0', '3.2']);
    expect(ways(true)).toEqual(['7.2', '2.4']);
    // With none that is good all of it is written off, whatever was really used.
    expect(ways(true, '0', '12')).toEqual(['28.8', '0']);
    const less = reckonUse(candles, '0', new Map([[1, '1']]), { rejectedText: '12', isWrittenOff: true });
    expect(says(less.writtenOff)).toBe('17.4');
  });

  it('takes what came out of a unit off what it is worth', () => {
    const unit = part(1, '1', '80', {}, { id: 1, tracking: 'serial' });
    const rework = build([unit, part(2, '1', '5')], { quantity: '1' });
    const out = [
      { went: 'stock' as const, share: ' 25 ' },
      { went: 'scrap' as const, share: '' },
    ];
    expect(says(reckonUse(rework, '1', NOTHING, { out }).unitCost)).toBe('65');
    const over = [{ went: 'stock' as const, share: '101' }];
    const wrong = reckonUse(rework, '1', NOTHING, { out: over });
    expect(wrong.faults.get('out')).toContain('101%');
    expect(says(wrong.unitCost)).toBe('85');
  });
});

describe('units that keep their own cost', () => {
  const piece = (serial: string, value: string | null) => ({ serial, value, lot: null });
  const scales = part(1, '1', '50', {
    pieces: [piece('S1', '40'), piece('S2', '90')],
    bins: [{ binId: 1, pieces: [piece('S3', '70'), piece('S4', null)] }],
  });
  const of = build([{ ...scales, item: { ...scales.item, tracking: 'serial' } } as BuildLine], { quantity: '4' });
  const costs = (good: string, serials: string) =>
    says(reckonUse(of, good, NOTHING, { tracks: new Map([[1, { serials }]]) }).cost.actual as Money);

  it('cost what they are worth: those that are named, or those on the bench', () => {
    expect(costs('2', '')).toBe('130');
    expect(costs('2', 's3, S1')).toBe('110');
    expect(says(reckonUse(of, '2', NOTHING).cost.actual)).toBe('130');
  });

  it('cost the average where it is not known which, or what they are worth', () => {
    expect(costs('1', '')).toBe('50');
    expect(costs('2', 'S1, S4')).toBe('100');
    expect(costs('2', 'S1, S9')).toBe('100');
    expect(costs('2', 'S1..')).toBe('100');
    expect(says(reckonUse(of, '2', new Map([[1, '0']])).cost.actual)).toBe('0');
    const plain = build([scales], { quantity: '4' });
    expect(says(reckonUse(plain, '2', NOTHING).cost.actual)).toBe('100');
  });
});

describe('what cannot be finished', () => {
  it('is said where it was typed, with the way out', () => {
    expect(faultsOf(candles, '', NOTHING)).toHaveProperty('good');
    expect(faultsOf(candles, '0', NOTHING)).toEqual({ good: 'Enter how many are good.' });
    expect(faultsOf(candles, '-1', NOTHING)).toHaveProperty('good');
    expect(faultsOf(candles, '1.5', NOTHING)).toHaveProperty('good');
    expect(faultsOf(candles, 'few', NOTHING).good).not.toBe('Enter how many are good.');
    expect(faultsOf(candles, '13', NOTHING)).toEqual({ good: 'Only 12 left. Plan another build for more.' });
    expect(faultsOf(candles, '12', NOTHING)).toEqual({});
    const begun = { ...candles, finished: '4', rejected: '2' } as BuildDetail;
    expect(faultsOf(begun, '7', NOTHING)).toEqual({ good: 'Only 6 left. Plan another build for more.' });
  });

  it('is said of rejects: none to carry them, more than are left, what cannot be read', () => {
    const rejected = (good: string, rejectedText: string, isWrittenOff = false) =>
      faultsOf(candles, good, NOTHING, { rejectedText, isWrittenOff });
    expect(rejected('0', '2')).toEqual({
      rejectCost: 'There are no good units to absorb the cost of the rejects. Write it off.',
    });
    expect(rejected('0', '2', true)).toEqual({});
    expect(rejected('1', '2')).toEqual({});
    expect(rejected('10', '3')).toEqual({ rejected: 'Only 12 left in total.' });
    expect(rejected('10', '2')).toEqual({});
    expect(rejected('13', '1')).toEqual({ good: 'Only 12 left. Plan another build for more.' });
    expect(rejected('1', 'two')).toHaveProperty('rejected');
    expect(rejected('1', '  ')).toEqual({});
  });

  it('is shown at its own line, and the other lines are still costed', () => {
    const typed = new Map([
      [1, 'much'],
      [2, '13'],
    ]);
    expect(Object.keys(faultsOf(candles, '12', typed))).toEqual(['line1']);
    expect(usedOf(candles, '12', typed)).toEqual([
      [1, '0'],
      [2, '13'],
    ]);
    expect(Object.keys(faultsOf(candles, '12', new Map([[1, '-1']])))).toEqual(['line1']);
    const work = build([labour(3, '5', '24')]);
    expect(Object.keys(faultsOf(work, '12', new Map([[3, 'long']])))).toEqual(['line3']);
  });

  it('is a cost beyond what can be kept, which ends no page', () => {
    const dear = build([part(1, '1', '9000000000')]);
    const { faults, cost } = reckonUse(dear, '12', new Map([[1, '9000000000']]));
    expect(faults.get('good') ?? faults.get('line1')).toMatch(/\w/);
    expect(says(cost.actual)).toBe('0');
  });
});
