import { dayAfter } from '@yosegi/core/days';

/** The Monday of the week that a day is in. */
export function mondayOf(day: string): string {
  const weekday = new Date(`${day}T12:00:00Z`).getUTCDay();
  return dayAfter(day, -((weekday + 6) % 7));
}

const WEEKS = 4;

export interface Week {
  /** Its seven days from Monday on. */
  readonly days: readonly string[];
}

/** The four weeks from this one on. */
export const weeksFrom = (today: string): Week[] =>
  Array.from({ length: WEEKS }, (_, week) => {
    const first = dayAfter(mondayOf(today), week * 7);
    return { days: Array.from({ length: 7 }, (_, day) => dayAfter(first, day)) };
  });

/** What falls on a day, before the weeks, after them, or on no day at all. */
export function onDays<T extends { readonly wantedOn: string | null }>(rows: readonly T[], weeks: readonly Week[]) {
  const first = weeks[0]?.days[0] ?? '';
  const last = weeks.at(-1)?.days.at(-1) ?? '';
  const dated = rows.filter((row) => row.wantedOn !== null);
  return {
    before: dated.filter(({ wantedOn }) => (wantedOn ?? '') < first),
    on: (day: string) => rows.filter(({ wantedOn }) => wantedOn === day),
    after: dated.filter(({ wantedOn }) => (wantedOn ?? '') > last),
    never: rows.filter(({ wantedOn }) => wantedOn === null),
  };
}
