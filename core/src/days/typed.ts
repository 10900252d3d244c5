import { dayAfter, daysBetween, isDay } from './calendar.ts';

/** How a language writes days. */
export interface DayWriting {
  readonly locale: string;
  /** In which order day, month and year stand. */
  readonly order: 'dmy' | 'mdy' | 'ymd';
  /** The names of the months and days of the week, in lower case, January and Monday first; its own and English ones. */
  readonly months: readonly (readonly string[])[];
  readonly weekdays: readonly (readonly string[])[];
}

const noonOf = (iso: string) => new Date(`${iso}T12:00:00Z`);
/** The year 2024 began on a Monday. */
const A_MONDAY = '2024-01-01';

/** @param locale a BCP 47 tag, like "de-DE" */
export function dayWritingOf(locale: string): DayWriting {
  const parts = new Intl.DateTimeFormat(locale, { dateStyle: 'short', timeZone: 'UTC' }).formatToParts(
    noonOf(A_MONDAY),
  );
  const [first, second] = parts.map(({ type }) => type).filter((type) => ['day', 'month', 'year'].includes(type));
  const names = (days: readonly string[], options: Intl.DateTimeFormatOptions) =>
    days.map((day) =>
      [locale, 'en'].map((language) =>
        new Intl.DateTimeFormat(language, { ...options, timeZone: 'UTC' }).format(noonOf(day)).toLowerCase(),
      ),
    );
  return {
    locale,
    order: first === 'year' ? 'ymd' : first === 'month' && second === 'day' ? 'mdy' : 'dmy',
    months: names(
      Array.from({ length: 12 }, (_, month) => `2024-${String(month + 1).padStart(2, '0')}-01`),
      { month: 'long' },
    ),
    weekdays: names(
      Array.from({ length: 7 }, (_, day) => dayAfter(A_MONDAY, day)),
      { weekday: 'long' },
    ),
  };
}

/**
 * Reads a day as people type it: "today", "tomorrow", "+3", "-1", "+2w", "Fri" (the next one), "25" (the next 25th),
 * "25/11", "25.11.26", "25 Nov", "Nov 25 2027", "2026-11-25". Without a year it is the nearest such day.
 * @param today the ISO day it is read on
 * @returns the ISO day, or null where it is none
 */
export function readDay(text: string, { order, months, weekdays }: DayWriting, today: string): string | null {
  const typed = text.trim().toLowerCase();
  if (typed === 'today') return today;
  if (typed === 'tomorrow') return dayAfter(today, 1);
  if (typed === 'yesterday') return dayAfter(today, -1);
  const [, sign, many, unit] = /^([+-])\s*(\d{1,3})\s*(d|w|days?|weeks?)?$/.exec(typed) ?? [];
  if (many !== undefined) {
    const days = Number(many) * (unit?.startsWith('w') ? 7 : 1);
    return dayAfter(today, sign === '-' ? -days : days);
  }
  const weekday = nameIn(weekdays, typed);
  if (weekday !== null) {
    const now = (noonOf(today).getUTCDay() + 6) % 7;
    return dayAfter(today, (weekday - now + 7) % 7 || 7);
  }
  const words = typed.match(/\p{L}+\.?|\d+/gu) ?? [];
  if (typed.replace(/\p{L}+\.?|\d+/gu, '').match(/[^\s/.,-]/)) return null;
  const named = words.flatMap((word) => (/\d/.test(word) ? [] : [nameIn(months, word.replace('.', ''))]));
  const numbers = words.filter((word) => /^\d+$/.test(word));
  const [month] = named;
  if (month === null || named.length > 1 || numbers.some((number) => number.length === 3)) return null;
  if (month !== undefined) return withMonth(month + 1, numbers, today);
  return inNumbers(numbers, order, today);
}

/** "25 Nov", "Nov 25 2027", "2027 Nov 25". */
function withMonth(month: number, numbers: readonly string[], today: string): string | null {
  const [first = '', second] = numbers;
  if (numbers.length > 2 || first === '') return null;
  const [day, year] = first.length === 4 ? [second ?? '', first] : [first, second];
  return dayOf(year, month, Number(day), today);
}

function inNumbers(numbers: readonly string[], order: DayWriting['order'], today: string): string | null {
  const [a = '', b, c] = numbers;
  if (numbers.length === 1 && a.length <= 2) return nextOfMonth(Number(a), today);
  if (numbers.length === 1 && a.length === 8) return checked(`${a.slice(0, 4)}-${a.slice(4, 6)}-${a.slice(6)}`);
  if (b === undefined || numbers.length > 3) return null;
  if (c !== undefined && (a.length === 4 || (order === 'ymd' && c.length < 4)))
    return dayOf(a, Number(b), Number(c), today);
  const [day, month] = order === 'dmy' ? [Number(a), Number(b)] : [Number(b), Number(a)];
  // What can only be meant the other way round is.
  return month > 12 && day <= 12 ? dayOf(c, day, month, today) : dayOf(c, month, day, today);
}

/** The next day with that number, today included. */
function nextOfMonth(day: number, today: string): string | null {
  if (day < 1 || day > 31) return null;
  for (let ahead = 0; ahead < 62; ahead += 1) {
    const iso = dayAfter(today, ahead);
    if (Number(iso.slice(8)) === day) return iso;
  }
  return null;
}

/** @param year as it was typed, of two or four digits; left out for the nearest such day */
function dayOf(year: string | undefined, month: number, day: number, today: string): string | null {
  const iso = (full: number) => checked(`${full}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`);
  if (year !== undefined)
    return year.length === 4 || year.length === 2 ? iso(Number(year.length === 2 ? `20${year}` : year)) : null;
  const now = Number(today.slice(0, 4));
  const near = [now, now + 1, now - 1].flatMap((full) => iso(full) ?? []);
  const distance = (one: string) => Math.abs(daysBetween(today, one));
  return near.sort((one, other) => distance(one) - distance(other))[0] ?? null;
}

const checked = (iso: string) => (isDay(iso) ? iso : null);

/** Which name a word is, or begins with at least its first three letters; null for none or several. */
function nameIn(names: readonly (readonly string[])[], word: string): number | null {
  const plain = word.replace(/\.$/, '');
  const found = names.flatMap((forms, index) =>
    forms.some((form) => form === plain || (plain.length >= 3 && form.startsWith(plain))) ? [index] : [],
  );
  return found.length === 1 ? (found[0] ?? null) : null;
}

/** A day as the language writes it in numbers, like "25/11/2026" or "25.11.2026"; what is none stays as it is. */
export function writeDay(iso: string, locale: string): string {
  if (!isDay(iso)) return iso;
  const options = { day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' } as const;
  return new Intl.DateTimeFormat(locale, options).format(noonOf(iso));
}
