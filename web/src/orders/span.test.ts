import { describe, expect, it } from 'vitest';
import { dayNumber, spanOf } from './span.ts';

const order = (wantedOn: string | null, ...whole: (string | null)[]) => ({
  wantedOn,
  lines: whole.map((completeOn) => ({ completeOn, wantedOn: null })) as never,
});

describe('the days that are drawn of an order', () => {
  it('begin today and reach a little beyond the last that matters', () => {
    const from = dayNumber('2026-11-25');
    expect(spanOf(order('2026-12-12', '', '2026-12-20'), '2026-11-25')).toEqual({ from, days: 28 });
    expect(spanOf(order(null, null), '2026-11-25')).toEqual({ from, days: 10 });
  });

  it('are never so many that a day could not be seen, nor begin before today', () => {
    expect(spanOf(order('2027-12-01'), '2026-11-25').days).toBe(60);
    expect(spanOf(order('2026-01-01'), '2026-11-25')).toEqual({ from: dayNumber('2026-11-25'), days: 10 });
  });
});
