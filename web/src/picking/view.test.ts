import type { RunDetail, RunStop } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import type { Queued } from './queue.ts';
import { readRunScan } from './runScan.ts';
import { handedOut, serialsFor, stopsLeft } from './view.ts';

const line = (id: number, lineId: number, quantity: string) => ({ kind: 'build' as const, id, lineId, quantity });
const stop = (binId: number, code: string, lines: ReturnType<typeof line>[], more: Partial<RunStop> = {}): RunStop => ({
  key: `${binId}:${code}:`,
  after: null,
  storeId: 1,
  store: 'Main',
  binId,
  bin: `A${binId}`,
  item: { id: 1, code, name: `The ${code}`, barcode: null, lotOrder: 'prescribed' } as RunStop['item'],
  lot: null,
  bestBefore: null,
  lotSays: '',
  pieces: [],
  there: '9',
  quantity: String(lines.reduce((sum, one) => sum + Number(one.quantity), 0)),
  lines,
  ...more,
});
const run = (stops: RunStop[], acts: number[] = []) => ({ stops, picks: acts.map((act) => ({ act })) as never[] });
const queued = (binId: number, lineId: number, quantity: string, more: Partial<Queued> = {}): Queued => ({
  key: 'k',
  runId: 1,
  personId: 1,
  lines: [{ kind: 'build', id: 1, lineId, binId, quantity, lot: null, serials: [] }],
  says: '',
  at: '',
  problem: null,
  tried: true,
  act: null,
  undoKey: null,
  ...more,
});

describe('the stops that are left', () => {
  const stops = [stop(1, 'NAIL', [line(1, 10, '5'), line(2, 20, '2')]), stop(2, 'NAIL', [line(1, 10, '3')])];
  const shown = (left: RunStop[]) =>
    left.map(({ binId, quantity, lines }) => [binId, quantity, lines.map((one) => one.quantity).join(' ')]);

  it('are without what waits to be sent, part or whole, at the bin where it was taken', () => {
    expect(shown(stopsLeft(run(stops), [queued(1, 10, '4')]))).toEqual([
      [1, '3', '1 2'],
      [2, '3', '3'],
    ]);
    expect(shown(stopsLeft(run(stops), [queued(2, 10, '3')]))).toEqual([[1, '7', '5 2']]);
  });

  it('count once what the run knows of, and not what was refused or is taken back', () => {
    const all = shown(stops);
    expect(shown(stopsLeft(run(stops, [7]), [queued(1, 10, '4', { act: 7 })]))).toEqual(all);
    expect(shown(stopsLeft(run(stops), [queued(1, 10, '4', { undoKey: 'u' })]))).toEqual(all);
    expect(shown(stopsLeft(run(stops), [queued(1, 10, '4', { problem: {} as never })]))).toEqual(all);
    expect(shown(stopsLeft(run(stops), [queued(1, 10, '4', { act: 7 })]))[0]).toEqual([1, '3', '1 2']);
  });

  it('are without a lot that was taken at the stop of that lot, once, and at the next where another was meant', () => {
    const lots = ['EARLY', 'LATE'].map((lot) => stop(1, 'WAX', [line(1, 10, '3')], { lot, key: lot }));
    const of = (lot: string | null, quantity: string) => queued(1, 10, quantity, lotted(lot, quantity));
    const lotted = (lot: string | null, quantity: string) => ({
      lines: [{ kind: 'build' as const, id: 1, lineId: 10, binId: 1, quantity, lot, serials: [] }],
    });
    const left = (...queue: Queued[]) => stopsLeft(run(lots), queue).map(({ key, quantity }) => [key, quantity]);
    expect(left(of('late', '2'))).toEqual([
      ['EARLY', '3'],
      ['LATE', '1'],
    ]);
    expect(left(of('LATE', '2'), of('EARLY', '1'))).toEqual([
      ['EARLY', '2'],
      ['LATE', '1'],
    ]);
    // Neither lot is the one that was taken, and together they ask for less by it.
    expect(left(of('OTHER', '4'))).toEqual([['LATE', '2']]);
    expect(left(of('EARLY', '3'), of(null, '3'))).toEqual([]);
  });

  it('hand out what was taken in the order of their lines, and serials with it', () => {
    const [first] = stops;
    expect(handedOut(first as RunStop, 6e6)).toEqual([5e6, 1e6]);
    expect(serialsFor([2, 1], ['a', 'b', 'c'])).toEqual([['a', 'b'], ['c']]);
    expect(serialsFor([0, 2], ['a', 'b'])).toEqual([[], ['a', 'b']]);
  });
});

describe('a scan on a run', () => {
  const bin = (id: number) => ({ id, code: `A${id}`, kind: 'shelf', storeId: 1, pickingOrder: id, version: 0 });
  const stores = [{ id: 1, code: 'MAIN', name: 'Main', version: 0, bins: [bin(1), bin(2), bin(3)] }] as never[];
  const lots = stop(1, 'WAX', [line(1, 10, '5')], {
    lot: 'L1',
    pieces: [{ lot: 'L1', serial: null } as never],
  });
  const scales = stop(2, 'SCALE', [line(1, 11, '1')], { pieces: [{ lot: null, serial: 'S-1' } as never] });
  const goals = [{ slot: 'A', codes: ['B-0001'] }] as RunDetail['goals'];
  const read = (text: string, now = lots) => readRunScan(text, { now, stops: [lots, scales], goals, stores });

  it('means the stop that is shown, another one, a bench, or what does not belong here', () => {
    expect(read('main/a1')).toEqual({ is: 'bin' });
    expect(read('MAIN/A2')).toEqual({ is: 'stop', key: scales.key, scan: null });
    expect(read('MAIN/A3')).toEqual({ is: 'wrong', was: 'bin A3' });
    expect(read('WAX')).toEqual({ is: 'goods', scan: {} });
    expect(read('l1')).toEqual({ is: 'goods', scan: { lot: 'L1' } });
    expect(read('s-1')).toEqual({ is: 'stop', key: scales.key, scan: { serial: 'S-1' } });
    expect(read('SCALE', scales)).toEqual({ is: 'goods', scan: {} });
    expect(read('b-0001')).toEqual({ is: 'goal', goal: goals[0] });
    expect(read('HONEY')).toEqual({ is: 'unknown' });
  });

  it('of another lot leads to where that one is wanted from the same bin, and nowhere else', () => {
    const other = (binId: number, code: string, lot: string, id = 1) =>
      stop(binId, code, [line(1, 12, '2')], { key: `${binId}:${code}:${lot}`, lot, item: { ...lots.item, id, code } });
    const stops = [lots, other(1, 'WAX', 'L2'), other(2, 'WAX', 'L3'), other(1, 'HONEY', 'L4', 2)];
    const label = (lot: string) => readRunScan(`(10)${lot}`, { now: lots, stops, goals, stores });
    expect(label('L2')).toEqual({ is: 'stop', key: '1:WAX:L2', scan: { lot: 'L2' } });
    for (const lot of ['L1', 'L3', 'L4']) expect(label(lot), lot).toEqual({ is: 'goods', scan: { lot } });
  });

  it('finds the goods of another stop, and with no stop left only benches and bins', () => {
    expect(read('SCALE')).toEqual({ is: 'stop', key: scales.key, scan: {} });
    const done = (text: string) => readRunScan(text, { now: null, stops: [], goals, stores });
    expect([done(' B-0001 ').is, done('MAIN/A1'), done('WAX')]).toEqual([
      'goal',
      { is: 'wrong', was: 'bin A1' },
      { is: 'unknown' },
    ]);
  });
});
