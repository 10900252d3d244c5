import type { BuildDetail } from '@yosegi/contract';
import type { Quantity } from '@yosegi/core/number';
import { expect, it } from 'vitest';
import { NOTHING_USED, usedIds, usedLines, withUse } from './typedUse.ts';

const item = (tracking: string) => ({
  ...{ id: 1, name: 'Wax', unit: 'kg', decimals: 3, tracking },
  measures: [{ name: 'g', one: '0.001' }],
});
const build = {
  lines: [
    { id: 1, item: item('none') },
    { id: 2, item: item('lot') },
    { id: 3, item: null },
  ],
} as unknown as BuildDetail;
const track = { lot: ' L1 ', bestBefore: '', serials: '' };

it('is sent line by line as it was typed, and as it was reckoned where only a lot or a reason was', () => {
  let typed = withUse(NOTHING_USED, 'actuals', 1, '5100 g');
  typed = withUse(typed, 'why', 1, ' It was wet ');
  typed = withUse(typed, 'tracks', 2, track);
  typed = withUse(typed, 'actuals', 3, '12');
  expect(usedIds(typed)).toEqual([1, 3, 2]);
  expect(usedLines(build, typed, new Map([[2, 4_800_000 as Quantity]]))).toEqual([
    { lineId: 1, actual: '5.1', because: 'It was wet', lot: null, serials: [] },
    { lineId: 3, actual: '12', because: '' },
    { lineId: 2, actual: '4.8', because: '', lot: 'L1', serials: [] },
  ]);
  expect(NOTHING_USED.actuals.size).toBe(0);
  expect(usedLines(build, withUse(NOTHING_USED, 'why', 9, 'x'), new Map())).toEqual([
    { lineId: 9, actual: '0', because: 'x' },
  ]);
});
