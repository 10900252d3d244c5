import { describe, expect, it } from 'vitest';
import { LATER } from '../days/index.ts';
import type { Quantity } from '../number/index.ts';
import { arrivesOn, byTurn, type Demand, isTooLate } from './index.ts';

const TODAY = '2026-11-25';

describe('goods', () => {
  it('are with whoever wanted them once they have been on their way', () => {
    expect(arrivesOn('2026-12-01', 4, TODAY)).toBe('2026-12-05');
    expect(arrivesOn('', 4, TODAY)).toBe('2026-11-29');
    expect([arrivesOn('', 0, TODAY), arrivesOn(null, 4, TODAY), arrivesOn(LATER, 4, TODAY)]).toEqual(['', null, LATER]);
  });

  it('are too late after the day they were wanted, and where nobody knows', () => {
    expect([isTooLate('2026-12-05', '2026-12-04', TODAY), isTooLate('2026-12-04', '2026-12-04', TODAY)]).toEqual([
      true,
      false,
    ]);
    expect([isTooLate('', '2026-11-24', TODAY), isTooLate(null, '2026-12-04', TODAY)]).toEqual([true, true]);
    expect([isTooLate(null, null, TODAY), isTooLate(LATER, '2026-12-04', TODAY)]).toEqual([false, true]);
  });
});

describe('of two that are wanted on one day', () => {
  const demand = (kind: 'build' | 'order', id: number, promised: string): Demand => ({
    source: { kind, id },
    lineId: 1,
    itemId: 1,
    quantity: 1e6 as Quantity,
    decimals: 0,
    turn: { begun: false, priority: null, wantedOn: '2026-12-01', age: Date.parse(promised) },
    stores: null,
    alternates: [],
  });

  it('what was promised first is served first, whatever its number', () => {
    const order = demand('order', 3, '2026-11-20T10:00:00Z');
    const build = demand('build', 40, '2026-11-20T09:00:00Z');
    const late = demand('order', 1, '2026-11-20T11:00:00Z');
    expect([late, order, build].sort(byTurn)).toEqual([build, order, late]);
  });
});
