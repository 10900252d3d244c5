import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAfter, daysBetween, dayWritingOf, isDay, isPast, readDay, writeDay } from './index.ts';

/** A Wednesday. */
const TODAY = '2026-11-25';
const british = dayWritingOf('en-GB');
const american = dayWritingOf('en-US');
const german = dayWritingOf('de-DE');
const swedish = dayWritingOf('sv-SE');

describe('days of the calendar', () => {
  it('count days over months, years and clock changes', () => {
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect(dayAfter('2026-12-31', 1)).toBe('2027-01-01');
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 4000 }),
        (days) => daysBetween('2024-02-29', dayAfter('2024-02-29', days)) === days,
      ),
    );
  });
});

describe('a day that somebody typed', () => {
  it.each([
    ['today', TODAY],
    ['Tomorrow', '2026-11-26'],
    ['yesterday', '2026-11-24'],
    ['+3', '2026-11-28'],
    ['-1', '2026-11-24'],
    ['+2w', '2026-12-09'],
    ['+ 10 days', '2026-12-05'],
    ['Fri', '2026-11-27'],
    ['wed', '2026-12-02'],
    ['monday', '2026-11-30'],
    ['25', TODAY],
    ['24', '2026-12-24'],
    ['31', '2026-12-31'],
    ['25 Nov', TODAY],
    ['Nov 25', TODAY],
    ['1 feb', '2027-02-01'],
    ['1 October', '2026-10-01'],
    ['Jan. 5, 2028', '2028-01-05'],
    ['2027 mar 3', '2027-03-03'],
    ['2026-12-09', '2026-12-09'],
    ['20261209', '2026-12-09'],
    ['2026/12/9', '2026-12-09'],
  ])('is read in every language: %s', (typed, day) => {
    for (const writing of [british, american, german]) expect(readDay(typed, writing, TODAY)).toBe(day);
  });

  it('is read in the order of the language, and the other way round where only that is a day', () => {
    expect(readDay('5/12', british, TODAY)).toBe('2026-12-05');
    expect(readDay('5/12', american, TODAY)).toBe('2027-05-12');
    expect(readDay('5.12.', german, TODAY)).toBe('2026-12-05');
    expect(readDay('5.12.27', german, TODAY)).toBe('2027-12-05');
    expect(readDay('25/12', american, TODAY)).toBe('2026-12-25');
    expect(readDay('12/25/2026', british, TODAY)).toBe('2026-12-25');
    expect(readDay('26-12-05', swedish, TODAY)).toBe('2026-12-05');
    expect(readDay('25-12-2026', swedish, TODAY)).toBe('2026-12-25');
    expect(readDay('5. März', german, TODAY)).toBe('2027-03-05');
    expect(readDay('Freitag', german, TODAY)).toBe('2026-11-27');
  });

  it.each([
    '',
    'soon',
    '32',
    '31/2',
    '0/1',
    '13/13',
    'ju',
    'm',
    '1 jan feb',
    '5/12/123',
    '5/12/26/1',
    '1e3',
    '25*11',
    '+',
    '+3 dozen',
    'in +3',
    '99999',
  ])('is none of %j', (typed) => {
    for (const writing of [british, american, german, swedish]) expect(readDay(typed, writing, TODAY)).toBeNull();
  });

  it('is read as it is written, whatever the language', () => {
    const day = fc.integer({ min: -20_000, max: 20_000 }).map((days) => dayAfter(TODAY, days));
    const languages = fc.constantFrom('en-GB', 'en-US', 'en-CA', 'de-DE', 'fr-FR', 'sv-SE', 'nl-NL', 'pl-PL', 'ja-JP');
    fc.assert(
      fc.property(day, languages, (iso, locale) => readDay(writeDay(iso, locale), dayWritingOf(locale), TODAY) === iso),
      { numRuns: 300 },
    );
    expect(writeDay(TODAY, 'de-DE')).toBe('25.11.2026');
    expect(writeDay(TODAY, 'en-GB')).toBe('25/11/2026');
    expect(writeDay('not yet', 'en-GB')).toBe('not yet');
  });
});

describe('days', () => {
  it('are past from the day after them on, and none is where nobody knows it', () => {
    expect(['2026-11-24', TODAY, '2026-11-26', null].map((day) => isPast(day, TODAY))).toEqual([
      true,
      false,
      false,
      false,
    ]);
  });

  it.each([
    '2026-99-99',
    '2026-02-30',
    '0000-00-00',
    '2026-2-3',
    '9999-12-31',
    '1899-12-31',
    '2025-02-29',
    '',
    'today',
  ])('%j is none', (text) => expect(isDay(text)).toBe(false));
  it('of the calendar are', () => expect(['2024-02-29', '2026-11-25', '2999-12-31'].every(isDay)).toBe(true));
});
