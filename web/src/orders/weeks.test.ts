import { utcDay } from '@yosegi/core/days';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mondayOf, onDays, weeksFrom } from './weeks.ts';

describe('the next four weeks', () => {
  it('begin with the Monday of this one', () => {
    expect(['2026-11-23', '2026-11-25', '2026-11-29'].map(mondayOf)).toEqual(Array(3).fill('2026-11-23'));
    const weeks = weeksFrom('2026-11-25');
    expect([weeks.length, weeks[0]?.days[0], weeks[3]?.days[6]]).toEqual([4, '2026-11-23', '2026-12-20']);
  });

  it('end with a Sunday: the day before the first, both ends, the day after the last', () => {
    const days = ['2026-11-22', '2026-11-23', '2026-12-20', '2026-12-21', null];
    const { before, on, after, never } = onDays(
      days.map((wantedOn) => ({ wantedOn })),
      weeksFrom('2026-11-25'),
    );
    const dayOf = (rows: readonly { wantedOn: string | null }[]) => rows.map(({ wantedOn }) => wantedOn);
    expect([dayOf(before), dayOf(on('2026-11-23')), dayOf(on('2026-12-20')), dayOf(after), dayOf(never)]).toEqual([
      ['2026-11-22'],
      ['2026-11-23'],
      ['2026-12-20'],
      ['2026-12-21'],
      [null],
    ]);
  });

  it('show every order once, wherever its day is', () => {
    const weeks = weeksFrom('2026-11-25');
    const day = fc.option(
      fc
        .date({ min: new Date('2026-10-01'), max: new Date('2027-02-01'), noInvalidDate: true })
        .map((own) => utcDay(own)),
    );
    fc.assert(
      fc.property(fc.array(day), (days) => {
        const rows = days.map((wantedOn, id) => ({ wantedOn, id }));
        const { before, on, after, never } = onDays(rows, weeks);
        const inside = weeks.flatMap((week) => week.days.flatMap(on));
        const shown = [...before, ...inside, ...after, ...never].map(({ id }) => id);
        expect(shown.sort((a, b) => a - b)).toEqual(rows.map(({ id }) => id));
      }),
    );
  });
});
