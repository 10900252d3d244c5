import { isDay } from '@yosegi/core/days';
import { formatDecimal } from '@yosegi/core/number';
import type { Amount } from '@yosegi/core/refusal';

interface Writing {
  readonly number: (text: string) => string;
  readonly day: (iso: string) => string;
}

const PLAIN: Writing = { number: (text) => text, day: (iso) => iso };
const known = new Map<string, Writing>();
let writing = PLAIN;

/** Numbers and days as people who write so would type them; making one takes a hundred times as long as using it. */
function writingOf(locale: string): Writing {
  const before = known.get(locale);
  if (before) return before;
  const numbers = new Intl.NumberFormat(locale, { useGrouping: false, maximumFractionDigits: 6 });
  // Months are named in the language of the texts only, where no other way of writing a day is as plain.
  const named = { dateStyle: 'medium', timeZone: 'UTC' } as const;
  const numeric = { day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' } as const;
  const days = new Intl.DateTimeFormat(locale, /^en\b/.test(locale) ? named : numeric);
  const made: Writing = {
    number: (text) => numbers.format(text as Intl.StringNumericLiteral),
    day: (iso) => (isDay(iso) ? days.format(new Date(`${iso}T12:00:00Z`)) : iso),
  };
  known.set(locale, made);
  return made;
}

/** From now on refusals write figures as the company does: for a screen, which is of one company. @param locale a BCP 47 tag */
export function writeFiguresAs(locale: string): void {
  writing = writingOf(locale);
}

/** What `work` says at once, with figures as this company writes them; undefined leaves them as they are. */
export function withFigures<T>(locale: string | undefined, work: () => T): T {
  const before = writing;
  if (locale !== undefined) writing = writingOf(locale);
  try {
    return work();
  } finally {
    writing = before;
  }
}

/** An amount as it would be typed, like 12.5. */
export const figure = (amount: Amount): string => writing.number(formatDecimal(amount));

/** A decimal text, the same way. */
export const figureOf = (text: string): string => writing.number(text);

/** A day as screens write it; what is no day stays as it is. @param iso like 2026-12-09 */
export const dayFigure = (iso: string): string => writing.day(iso);
