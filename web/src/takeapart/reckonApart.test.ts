import type { ApartPlan } from '@yosegi/contract';
import { formatDecimal, type Quantity } from '@yosegi/core/number';
import { describe, expect, it } from 'vitest';
import { asWentIn, readable, reckonApart } from './reckonApart.ts';

const line = (lineId: number, share: string, more: Partial<ApartPlan['lines'][number]> = {}) => ({
  lineId,
  itemId: lineId,
  code: `P-${lineId}`,
  name: `Part ${lineId}`,
  unit: 'each',
  decimals: 0,
  measures: [],
  tracking: 'none' as const,
  wentIn: [],
  share,
  basis: 'per-output' as const,
  quantity: '1',
  output: '1',
  homeBinId: null,
  ...more,
});
const plan = (more: Partial<ApartPlan> = {}): ApartPlan => ({
  itemId: 9,
  definitionId: 1,
  revisionId: 1,
  revision: 1,
  isInUse: true,
  build: null,
  madeBy: [],
  asBuilt: null,
  decimals: 0,
  unit: 'each',
  tracking: 'none',
  measures: [],
  stockQuantity: '2',
  stockValue: '54',
  ownValue: null,
  piece: null,
  bins: [],
  lines: [line(1, '50'), line(2, '30'), line(3, '20')],
  ...more,
});
const figures = ({ value, writtenOff, rows, faults }: ReturnType<typeof reckonApart>) => ({
  value: formatDecimal(value),
  writtenOff: formatDecimal(writtenOff),
  rows: rows.map((row) =>
    [row.expected, row.good, row.damaged, row.missing, row.value].map((n) => formatDecimal(n)).join(' '),
  ),
  faults: [...faults.keys()],
});

describe('what taking apart brings back, while it is typed', () => {
  it('what came back at exactly what it left with, and shares as they are typed for this once', () => {
    const piece = { id: 4, returnId: 2, number: 'RT-0002', bin: 'Returns', waiting: '2', value: '31' };
    const back = plan({ piece });
    expect(figures(reckonApart(back, '1', new Map(), 'written-off'))).toMatchObject({ value: '15.5', writtenOff: '0' });
    // More than waits is worth no more than what waits.
    expect(figures(reckonApart(back, '3', new Map(), 'written-off'))).toMatchObject({ value: '31' });
    const typed = new Map([[1, { share: '80' }]]);
    expect(figures(reckonApart(back, '2', typed, 'written-off'))).toMatchObject({
      value: '31',
      rows: ['2 2 0 0 24.8', '2 2 0 0 3.72', '2 2 0 0 2.48'],
      faults: [],
    });
    const over = new Map([
      [1, { share: '80' }],
      [2, { share: '30' }],
    ]);
    expect(figures(reckonApart(back, '2', over, 'written-off')).faults).toEqual(['lines.0.share']);
    expect(figures(reckonApart(back, '2', new Map([[1, { share: 'x' }]]), 'written-off')).faults).toEqual([
      'lines.0.share',
    ]);
  });

  it('a unit worth 27.00, shares 50/30/20, the second damaged: 13.50 + 5.40 in, 8.10 off, or spread', () => {
    const typed = new Map([[2, { damaged: '1' }]]);
    expect(figures(reckonApart(plan(), '1', typed, 'written-off'))).toEqual({
      value: '27',
      writtenOff: '8.1',
      rows: ['1 1 0 0 13.5', '1 0 1 0 0', '1 1 0 0 5.4'],
      faults: [],
    });
    expect(figures(reckonApart(plan(), '1', typed, 'spread'))).toMatchObject({
      writtenOff: '0',
      rows: ['1 1 0 0 19.285714', '1 0 1 0 0', '1 1 0 0 7.714286'],
    });
  });

  it('more than is there is worth no more than all of it, and a serial its own cost', () => {
    expect(figures(reckonApart(plan(), '5', new Map(), 'spread')).value).toBe('54');
    expect(figures(reckonApart(plan({ ownValue: '31.5' }), '1', new Map(), 'spread')).value).toBe('31.5');
    expect(figures(reckonApart(plan({ stockQuantity: '0', stockValue: '0' }), '1', new Map(), 'spread')).value).toBe(
      '0',
    );
  });

  it('some of the value may be written off for this once, and the shares part what is left', () => {
    const off = (percent: string, typed = new Map<number, object>(), more: Partial<ApartPlan> = {}) =>
      figures(reckonApart(plan(more), '1', typed, 'written-off', percent));
    // Of 27.00 a tenth is written off; 24.30 is parted 50/30/20.
    expect(off('10')).toMatchObject({
      writtenOff: '2.7',
      rows: ['1 1 0 0 12.15', '1 1 0 0 7.29', '1 1 0 0 4.86'],
      faults: [],
    });
    expect(off('10', new Map([[1, { share: '60' }]]))).toMatchObject({
      writtenOff: '2.7',
      rows: ['1 1 0 0 16.2', '1 1 0 0 4.86', '1 1 0 0 3.24'],
    });
    expect(off('100')).toMatchObject({ writtenOff: '27', rows: ['1 1 0 0 0', '1 1 0 0 0', '1 1 0 0 0'] });
    expect(off('101').faults).toEqual(['writeOff']);
    expect(off('10', new Map([[2, { share: '95' }]])).faults).toEqual(['lines.1.share']);
    expect(off('').writtenOff).toBe('0');
  });

  it('what cannot be is told at its field, and what is left out is missing', () => {
    const said = (typed: object, quantity = '1') =>
      figures(reckonApart(plan(), quantity, new Map([[1, typed]]), 'written-off'));
    expect(said({ good: '0' })).toMatchObject({
      rows: ['1 0 0 1 0', '1 1 0 0 8.1', '1 1 0 0 5.4'],
      writtenOff: '13.5',
    });
    expect(said({ good: '2' }).faults).toEqual(['lines.0.good']);
    expect(said({ good: '1', damaged: '1' }).faults).toEqual(['lines.0.damaged']);
    expect(said({ good: '-1' }).faults).toEqual(['lines.0.good']);
    expect(said({ damaged: 'one' }).faults).toEqual(['lines.0.damaged']);
    expect(said({}, '0').faults).toEqual(['quantity']);
    expect(said({}, '1.5').faults).toEqual(['quantity']);
  });

  it('the lot or as many serials as are good come back as they went in', () => {
    const wentIn = ['S1', 'S2', 'S3'].map((serial) => ({
      lot: null,
      bestBefore: null,
      says: '',
      serial,
      quantity: '1',
      value: null,
      held: null,
    }));
    expect(asWentIn(line(1, '50', { wentIn }), 2_000_000 as Quantity).serials).toBe('S1..2');
    expect([readable('S1, S2'), readable('S9..S1'), readable('  '), readable(null)]).toEqual([
      'S1, S2',
      undefined,
      undefined,
      undefined,
    ]);
  });
});
