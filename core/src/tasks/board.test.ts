import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Quantity } from '../number/index.ts';
import { type BoardBuild, type BoardTask, daysAhead, placeWork } from './index.ts';

const build = (id: number, personId: number | null = null, day: string | null = null): BoardBuild => ({
  id,
  personId,
  day,
});
const task = (id: number, buildId: number, personId: number | null = null, day: string | null = null): BoardTask => ({
  id,
  buildId,
  personId,
  day,
  left: 10 as Quantity,
});

describe('the board', () => {
  it('places a build where it is planned, its tasks with it, and those by someone else by themselves', () => {
    const cards = placeWork(
      [build(1, 7, '2026-11-26'), build(2)],
      [task(11, 1), task(12, 1, 8), task(13, 1, null, '2026-11-27')],
    );
    expect(cards).toEqual([
      { buildId: 1, personId: 7, day: '2026-11-26', taskIds: [11], left: 10, isWhole: true },
      { buildId: 1, personId: 8, day: '2026-11-26', taskIds: [12], left: 10, isWhole: false },
      { buildId: 1, personId: 7, day: '2026-11-27', taskIds: [13], left: 10, isWhole: false },
      { buildId: 2, personId: null, day: null, taskIds: [], left: 0, isWhole: true },
    ]);
  });

  it('shows every task once, and every build at least once', () => {
    const people = fc.option(fc.integer({ min: 1, max: 3 }));
    const days = fc.option(fc.constantFrom('2026-11-26', '2026-11-27'));
    const builds = fc.array(fc.tuple(people, days), { minLength: 1, maxLength: 5 });
    const tasks = fc.array(fc.tuple(fc.nat(4), people, days), { maxLength: 12 });
    fc.assert(
      fc.property(builds, tasks, (made, done) => {
        const all = made.map(([person, day], index) => build(index, person, day));
        const own = done.map(([of, person, day], index) => task(index, of % made.length, person, day));
        const cards = placeWork(all, own);
        expect(cards.flatMap(({ taskIds }) => taskIds).sort((a, b) => a - b)).toEqual(own.map(({ id }) => id));
        expect(new Set(cards.map(({ buildId }) => buildId)).size).toBe(all.length);
        expect(cards.reduce((sum, { left }) => sum + left, 0)).toBe(own.length * 10);
      }),
    );
  });

  it('stands on the next working days, today among them where it is one', () => {
    const week = new Set([1, 2, 3, 4, 5]);
    expect(daysAhead('2026-11-26', week, 3)).toEqual(['2026-11-26', '2026-11-27', '2026-11-30']);
    expect(daysAhead('2026-11-28', week, 1)).toEqual(['2026-11-30']);
    expect(daysAhead('2026-11-28', new Set([6]), 2)).toEqual(['2026-11-28', '2026-12-05']);
  });
});
