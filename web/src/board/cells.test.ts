import type { Board, BoardCard } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import { beside, cardKey, keyOf, minutesOf, rowsOf, shownAt, spotIn, todayWords } from './cells.ts';

const DAYS = ['2026-11-23', '2026-11-24', '2026-11-25'];
const people = [
  { id: 1, name: 'Mo' },
  { id: 2, name: 'Bo' },
];
const card = (personId: number | null, day: string | null, more: object = {}) =>
  ({ buildId: 7, personId, day, minutes: '30', blocks: [], ...more }) as unknown as BoardCard;
const board = (cards: BoardCard[] = [], more: object = {}) =>
  ({ today: DAYS[0], days: DAYS, benchMinutes: 480, people, cards, ...more }) as unknown as Board;

describe('a spot on the board', () => {
  it('is written and read again, whoever’s it is and on whatever day', () => {
    for (const spot of [
      { personId: 2, day: '2026-11-24' },
      { personId: null, day: '2026-11-24' },
      { personId: 2, day: null },
      { personId: null, day: null },
    ])
      expect(spotIn(keyOf(spot))).toEqual(spot);
    expect(keyOf({ personId: 2, day: '2026-11-24' })).toBe('2|2026-11-24');
    expect(cardKey(card(2, null))).toBe('7|2|');
    expect(cardKey(card(null, '2026-11-24'))).toBe('7||2026-11-24');
  });

  it('shows late cards on the first day, cards for a day off on the next working day, and the rest under Later', () => {
    const shown = (day: string | null) => shownAt(card(1, day), board()).day;
    expect(['2026-11-22', '2026-11-23', '2026-11-25', '2026-11-26', null].map(shown)).toEqual([
      '2026-11-23',
      '2026-11-23',
      '2026-11-25',
      null,
      null,
    ]);
    const gap = board([], { days: ['2026-11-27', '2026-11-30'] });
    expect(shownAt(card(1, '2026-11-28'), gap)).toEqual({ personId: 1, day: '2026-11-30' });
    expect(shownAt(card(1, '2026-11-28'), board([], { days: [] })).day).toBeNull();
  });

  it('has neighbours as far as the board goes: my own row first, nobody’s last, later on the right', () => {
    expect(rowsOf(board(), 2).map(({ id }) => id)).toEqual([2, 1, null]);
    expect(rowsOf(board(), undefined).map(({ id }) => id)).toEqual([1, 2, null]);
    const from = (personId: number | null, day: string | null, key: string) =>
      beside({ personId, day }, key, board(), 2);
    expect(from(1, '2026-11-24', 'ArrowUp')).toEqual({ personId: 2, day: '2026-11-24' });
    expect(from(1, '2026-11-24', 'ArrowDown')).toEqual({ personId: null, day: '2026-11-24' });
    expect(from(1, '2026-11-24', 'ArrowLeft')).toEqual({ personId: 1, day: '2026-11-23' });
    expect(from(1, '2026-11-25', 'ArrowRight')).toEqual({ personId: 1, day: null });
    expect(from(2, '2026-11-24', 'ArrowUp')).toBeNull();
    expect(from(null, '2026-11-24', 'ArrowDown')).toBeNull();
    expect(from(1, '2026-11-23', 'ArrowLeft')).toBeNull();
    expect(from(1, null, 'ArrowRight')).toBeNull();
    expect(from(1, '2026-11-24', 'Enter')).toBeNull();
  });
});

describe('what a day comes to', () => {
  it('is the minutes of its cards, exactly', () => {
    expect([minutesOf([]), minutesOf([card(1, null, { minutes: '0.1' }), card(1, null, { minutes: '0.2' })])]).toEqual([
      '0',
      '0.3',
    ]);
  });

  it('is said of mine today, of what is on hold, and of what is nobody’s', () => {
    const says = (cards: BoardCard[], more: object = {}) => todayWords(board(cards, more), 1);
    const held = { blocks: [{ kind: 'held' }] };
    expect(says([])).toBe('You have nothing today.');
    expect(says([card(1, '2026-11-24'), card(2, DAYS[0] ?? '')])).toBe('You have nothing today.');
    expect(says([card(1, '2026-11-20'), card(1, DAYS[0] ?? '', { minutes: '30.4' })])).toBe(
      'You have 2 tasks today: 60 of 480 minutes.',
    );
    expect(says([card(1, DAYS[0] ?? '', held), card(1, DAYS[0] ?? '')])).toBe(
      'You have 2 tasks today, 1 on hold: 60 of 480 minutes.',
    );
    expect(says([card(1, DAYS[0] ?? '', held)])).toBe('You have 1 task today, all on hold: 30 of 480 minutes.');
    expect(says([card(null, null)])).toBe('You have nothing today. 1 task is unassigned.');
    expect(says([card(null, null), card(null, null)])).toBe('You have nothing today. 2 tasks are unassigned.');
    expect(says([], { today: '2026-11-22' })).toBe('You have nothing on the next working day.');
    expect(todayWords(board([card(1, DAYS[0] ?? '')]), undefined)).toBe('You have nothing today.');
  });
});
