import type { BuildDetail, Store } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import { jobOfBuild } from './job.ts';
import { stepsOf, suggestion } from './steps.ts';

const bin = (id: number, storeId = 1) => ({
  id,
  storeId,
  code: `B${id}`,
  kind: 'shelf' as const,
  pickingOrder: id,
  version: 0,
});
const stores: Store[] = [
  { id: 1, code: 'S', name: 'Store', version: 0, bins: [bin(3), bin(1)] },
  { id: 2, code: 'T', name: 'Shed', version: 0, bins: [bin(2, 2)] },
];
const line = (id: number, open: string, bins: [number, string][], taken = 'picked-first') => ({
  id,
  taken,
  open,
  item: { id, name: `Item ${id}` },
  bins: bins.map(([binId, quantity]) => ({ binId, bin: `B${binId}`, store: 'x', quantity })),
});
const build = { quantity: '8', finished: '0', rejected: '0', outputQuantity: '1', unit: 'each', decimals: 0 };
const jobOf = (...lines: object[]) => jobOfBuild({ ...build, lines } as unknown as BuildDetail);
const linesOf = (...lines: object[]) => jobOf(...lines).lines;

describe('the walk', () => {
  it('follows stores and bins as people walk, and ends with what no bin has', () => {
    const steps = stepsOf(
      linesOf(
        line(1, '5', [[2, '9']]),
        line(2, '5', []),
        line(3, '5', [[1, '9']]),
        line(4, '5', [
          [3, '2'],
          [1, '9'],
        ]),
      ),
      stores,
    );
    expect(steps.map((step) => step.line.id)).toEqual([4, 3, 1, 2]);
    expect(steps.map((step) => step.suggested)).toEqual(['2', '5', '5', '0']);
  });

  it('leaves out what is picked, what is taken when finished, and bins below zero', () => {
    const steps = stepsOf(
      linesOf(
        line(1, '0', [[1, '9']]),
        line(2, '5', [[1, '9']], 'when-finished'),
        line(3, '5', [
          [3, '-2'],
          [1, '4.5'],
        ]),
      ),
      stores,
    );
    expect(steps.map((step) => [step.line.id, step.bins[0]?.binId, step.suggested])).toEqual([[3, 1, '4.5']]);
  });

  it('suggests no more than is open', () => {
    expect(suggestion('2.25', { binId: 1, bin: 'B1', store: 'x', quantity: '9', pieces: [] })).toBe('2.25');
    expect(suggestion('2', undefined)).toBe('0');
  });

  it('knows what each line needs for some of the build, beyond what stands on the bench', () => {
    const part = (id: number, onBench: string, more: object = {}) => ({
      ...line(id, '9', [[1, '20']]),
      ...{ basis: 'per-output', amount: '2', waste: '0', used: '0', onBench, instead: '0', added: null },
      item: { id, name: `Item ${id}`, decimals: 0 },
      ...more,
    });
    const { some } = jobOf(part(1, '0'), part(2, '5'), part(3, '0', { basis: 'per-run' }));
    expect(some?.left).toBe('8');
    expect([...(some?.neededFor(3_000_000 as never) ?? [])]).toEqual([
      [1, 6_000_000],
      [2, 1_000_000],
      [3, 2_000_000],
    ]);
  });
});
