import type { Company } from '@yosegi/contract';
import { daysBetween, isDay, LATER } from '@yosegi/core/days';
import { decimalsOf, formatDecimal, readForText } from '@yosegi/core/number';
import { createContext, useContext } from 'react';
import { companyZone, dayOf, today } from './today.ts';

export const CompanyContext = createContext<Company>({
  name: '',
  currency: 'EUR',
  locale: 'en',
  address: '',
  email: '',
  workDays: [1, 2, 3, 4, 5],
  benchMinutes: 480,
  setupStep: null,
  papers: { size: 'A4', head: '', foot: '', columns: [], logo: null },
  version: 0,
});
export const CompanyProvider = CompanyContext.Provider;
/** The company's language and way of writing numbers and days, as a BCP 47 tag. */
export const useLocale = () => useContext(CompanyContext).locale;

const NUMERIC = { day: 'numeric', month: 'numeric', timeZone: 'UTC' } as const;
const WITH_YEAR = { ...NUMERIC, year: 'numeric' } as const;
const noonOf = (iso: string) => new Date(`${iso}T12:00:00Z`);

/** From how far on a day without its year could be taken for another. */
const FAR_DAYS = 300;

/** Number and date formats of the company. Decimal texts are formatted as they are, never through a float. */
export class Format {
  private readonly numbers = new Map<string, Intl.NumberFormat>();
  private readonly days = new Map<string, Intl.DateTimeFormat>();
  private relative: Intl.RelativeTimeFormat | undefined;

  constructor(private readonly company: Pick<Company, 'currency' | 'locale'>) {}

  /** Whether the company writes days as the texts do; else months are numbers, since their names would be of another language. */
  private get isEnglish(): boolean {
    return /^en\b/.test(this.company.locale);
  }

  /** Making one takes a hundred times as long as using it. */
  private numberFormat(options: Intl.NumberFormatOptions): Intl.NumberFormat {
    return kept(this.numbers, JSON.stringify(options), () => new Intl.NumberFormat(this.company.locale, options));
  }

  private dayFormat(options: Intl.DateTimeFormatOptions, locale = this.company.locale): Intl.DateTimeFormat {
    return kept(this.days, locale + JSON.stringify(options), () => new Intl.DateTimeFormat(locale, options));
  }

  /** The name of a weekday is a word, so it is of the language of the texts. */
  private weekday(iso: string, weekday: 'short' | 'long'): string {
    return this.dayFormat({ weekday, timeZone: 'UTC' }, 'en').format(noonOf(iso));
  }

  /** A decimal text with grouping and at least `least` decimals. */
  number(text: string, least = 0, most = 6): string {
    const format = this.numberFormat({
      minimumFractionDigits: least,
      maximumFractionDigits: Math.max(least, most),
    });
    return format.format(text as Intl.StringNumericLiteral);
  }

  /** A percentage, like 12.5%, as the texts write it: the figure is the company's, the sign the language's. */
  percent(text: string, least = 0, most = Math.max(least, 2)): string {
    return `${this.number(text, least, most)}%`;
  }

  /** A number as it was read from what somebody typed, with what stands behind it. */
  typed = (plain: string) => plain.replace(/^\s*[+-]?\d+(\.\d+)?/, (number) => this.number(number.trim()));

  /** A quantity with its unit; pieces need none. */
  quantity(text: string, unit: string, decimals = 0): string {
    const amount = this.number(text, unit === 'each' ? 0 : Math.min(decimals, 3));
    return unit === 'each' ? amount : `${amount} ${unit}`;
  }

  /** How many decimals the currency has: two for most, none for some. */
  get currencyDecimals(): number {
    return decimalsOf(this.company.currency);
  }

  /** What one costs on a paper: with all the decimals it has, so that the line can be checked. */
  price(text: string): string {
    const [, rest = ''] = text.split('.');
    return this.money(text, Math.max(this.currencyDecimals, rest.length));
  }

  /** An amount of money without its currency. */
  amount = (text: string) => this.number(text, this.currencyDecimals, this.currencyDecimals);

  /** What one costs, without the currency; a dash where it cannot be told. */
  costOrDash = (text: string | null) =>
    text === null ? '–' : this.number(text, this.currencyDecimals + 1, this.currencyDecimals + 1);

  /** An amount of money in the currency's own decimals; unit costs show one more. */
  money(text: string, decimals = this.currencyDecimals): string {
    const format = this.numberFormat({
      style: 'currency',
      currency: this.company.currency,
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
    });
    return format.format(text as Intl.StringNumericLiteral);
  }

  /** An amount of money to the last millionth, where it has to add up on screen. */
  exactMoney(text: string): string {
    const format = this.numberFormat({
      style: 'currency',
      currency: this.company.currency,
      maximumFractionDigits: 6,
    });
    return format.format(text as Intl.StringNumericLiteral);
  }

  /** How the currency is written beside an amount, like €. */
  get currencySign(): string {
    const parts = this.numberFormat({ style: 'currency', currency: this.company.currency });
    return parts.formatToParts(0).find(({ type }) => type === 'currency')?.value ?? this.company.currency;
  }

  unitCost = (text: string) => this.money(text, this.currencyDecimals + 1);

  /** A day like "Wed 9 Dec"; one that is most of a year away has its year, and what is no day stays as it is. */
  day(iso: string): string {
    if (!isDay(iso)) return iso;
    if (iso >= LATER) return 'later than 2100';
    if (Math.abs(daysBetween(today(), iso)) > FAR_DAYS) return this.longerDay(iso);
    if (!this.isEnglish) return `${this.weekday(iso, 'short')} ${this.dayFormat(NUMERIC).format(noonOf(iso))}`;
    const options = { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' } as const;
    return this.dayFormat(options).format(noonOf(iso)).replace(',', '');
  }

  /** The day of the month of a day counted since 1970, with its month where one begins. */
  dayOfMonth(sinceEpoch: number): string {
    const day = new Date(sinceEpoch * 86_400_000 + 43_200_000);
    return this.dayFormat({
      day: 'numeric',
      timeZone: 'UTC',
      ...(day.getUTCDate() <= 7 ? { month: this.isEnglish ? 'short' : 'numeric' } : {}),
    }).format(day);
  }

  /** A day with its year, like "9 Dec 2027". */
  longerDay(iso: string): string {
    const options = this.isEnglish ? ({ dateStyle: 'medium', timeZone: 'UTC' } as const) : WITH_YEAR;
    return this.dayFormat(options).format(noonOf(iso));
  }

  /** A day in full, like "Wednesday 9 December". */
  longDay(iso: string): string {
    if (!this.isEnglish) return `${this.weekday(iso, 'long')} ${this.dayFormat(NUMERIC).format(noonOf(iso))}`;
    const options = { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' } as const;
    return this.dayFormat(options).format(noonOf(iso));
  }

  moment(iso: string): string {
    const zone = companyZone();
    const date = this.isEnglish ? 'medium' : 'short';
    return this.dayFormat({ dateStyle: date, timeStyle: 'short', ...(zone ? { timeZone: zone } : {}) }).format(
      new Date(iso),
    );
  }

  /** How long ago, in the largest unit that fits. */
  ago(iso: string): string {
    const [then, now] = [new Date(iso), new Date()];
    const seconds = (then.getTime() - now.getTime()) / 1000;
    this.relative ??= new Intl.RelativeTimeFormat('en', { numeric: 'auto' });
    const format = this.relative;
    // "Yesterday" is a day of the calendar, not a span of hours.
    if (Math.abs(seconds) >= 86_400) return format.format(daysBetween(dayOf(now), dayOf(then)), 'day');
    if (Math.abs(seconds) >= 3600) return format.format(Math.trunc(seconds / 3600), 'hour');
    return format.format(Math.trunc(seconds / 60) || 0, 'minute');
  }
}

function kept<Made>(made: Map<string, Made>, key: string, make: () => Made): Made {
  const known = made.get(key);
  if (known !== undefined) return known;
  const fresh = make();
  made.set(key, fresh);
  return fresh;
}

/** The company's formats; the same object as long as the company is the same. */
export function useFormat(): Format {
  const company = useContext(CompanyContext);
  const known = formats.get(company) ?? new Format(company);
  formats.set(company, known);
  return known;
}
/** One for the whole application: what they are made of takes long to make. */
const formats = new WeakMap<object, Format>();

/** "1 build", "3 builds". */
export const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** A decimal text with the other sign, exactly. */
export const negated = (text: string) => formatDecimal(-readForText(text));

/** What of a price is left after its cost, in percent; a dash where nothing was paid. */
export function marginWords(sold: string, cost: string, format: Format): string {
  const [worth, spent] = [readForText(sold), readForText(cost)];
  if (worth <= 0n) return '–';
  // In tenths of a percent, to the nearest.
  const tenths = ((worth - spent) * 10_000n) / worth;
  const rounded = tenths >= 0n ? (tenths + 5n) / 10n : (tenths - 5n) / 10n;
  return format.percent(formatDecimal(rounded * 100_000n), 1);
}

/** A name on a button, which must leave room for others: cut at a word where it is long. */
export const shortly = (name: string): string =>
  name.length <= 40 ? name : `${name.slice(0, 38).replace(/\s+\S*$/, '')}…`;
