import type { Company } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { createContext, useContext, useMemo } from 'react';

export const CompanyContext = createContext<Company>({
  name: '',
  currency: 'EUR',
  locale: 'en',
  address: '',
  email: '',
  version: 0,
});
export const CompanyProvider = CompanyContext.Provider;

/** Number and date formats of the company. Decimal texts are formatted as they are, never through a float. */
export class Format {
  constructor(private readonly company: Pick<Company, 'currency' | 'locale'>) {}

  /** A decimal text with grouping and at least `least` decimals. */
  number(text: string, least = 0, most = 6): string {
    const format = new Intl.NumberFormat(this.company.locale, {
      minimumFractionDigits: least,
      maximumFractionDigits: Math.max(least, most),
    });
    return format.format(text as Intl.StringNumericLiteral);
  }

  /** A quantity with its unit; pieces need none. */
  quantity(text: string, unit: string, decimals = 0): string {
    const amount = this.number(text, unit === 'each' ? 0 : Math.min(decimals, 3));
    return unit === 'each' ? amount : `${amount} ${unit}`;
  }

  /** How many decimals the currency has: two for most, none for some. */
  get currencyDecimals(): number {
    const format = new Intl.NumberFormat(this.company.locale, { style: 'currency', currency: this.company.currency });
    return format.resolvedOptions().maximumFractionDigits ?? 2;
  }

  /** An amount of money without its currency. */
  amount = (text: string) => this.number(text, this.currencyDecimals, this.currencyDecimals);

  /** What one costs, without the currency; a dash where it cannot be told. */
  costOrDash = (text: string | null) =>
    text === null ? '–' : this.number(text, this.currencyDecimals + 1, this.currencyDecimals + 1);

  /** An amount of money in the currency's own decimals; unit costs show one more. */
  money(text: string, decimals = this.currencyDecimals): string {
    const format = new Intl.NumberFormat(this.company.locale, {
      style: 'currency',
      currency: this.company.currency,
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
    });
    return format.format(text as Intl.StringNumericLiteral);
  }

  /** An amount of money to the last millionth, where it has to add up on screen. */
  exactMoney(text: string): string {
    const format = new Intl.NumberFormat(this.company.locale, {
      style: 'currency',
      currency: this.company.currency,
      maximumFractionDigits: 6,
    });
    return format.format(text as Intl.StringNumericLiteral);
  }

  /** How the currency is written beside an amount, like €. */
  get currencySign(): string {
    const parts = new Intl.NumberFormat(this.company.locale, { style: 'currency', currency: this.company.currency });
    return parts.formatToParts(0).find(({ type }) => type === 'currency')?.value ?? this.company.currency;
  }

  unitCost = (text: string) => this.money(text, this.currencyDecimals + 1);

  /** A day like "Wed 9 Dec". */
  day(iso: string): string {
    const options = { weekday: 'short', day: 'numeric', month: 'short' } as const;
    return new Intl.DateTimeFormat(this.company.locale, options).format(new Date(`${iso}T12:00:00`)).replace(',', '');
  }

  /** A day with its year, like "9 Dec 2027". */
  longerDay(iso: string): string {
    return new Intl.DateTimeFormat(this.company.locale, { dateStyle: 'medium' }).format(new Date(`${iso}T12:00:00`));
  }

  longDay(date: Date): string {
    return new Intl.DateTimeFormat(this.company.locale, { weekday: 'long', day: 'numeric', month: 'long' }).format(
      date,
    );
  }

  moment(iso: string): string {
    return new Intl.DateTimeFormat(this.company.locale, { dateStyle: 'medium', timeStyle: 'short' }).format(
      new Date(iso),
    );
  }

  /** How long ago, in the largest unit that fits. */
  ago(iso: string): string {
    const [then, now] = [new Date(iso), new Date()];
    const seconds = (then.getTime() - now.getTime()) / 1000;
    const format = new Intl.RelativeTimeFormat(this.company.locale, { numeric: 'auto' });
    // "Yesterday" is a day of the calendar, not a span of hours; noon is clear of any change of the clocks.
    if (Math.abs(seconds) >= 86_400) return format.format(Math.round((noon(then) - noon(now)) / 86_400_000), 'day');
    if (Math.abs(seconds) >= 3600) return format.format(Math.trunc(seconds / 3600), 'hour');
    return format.format(Math.trunc(seconds / 60) || 0, 'minute');
  }
}

const noon = (day: Date) => new Date(day.getFullYear(), day.getMonth(), day.getDate(), 12).getTime();

/** The company's formats; the same object as long as the company is the same. */
export function useFormat(): Format {
  const company = useContext(CompanyContext);
  return useMemo(() => new Format(company), [company]);
}

/** "1 build", "3 builds". */
export const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** A decimal text with the other sign, exactly. */
export const negated = (text: string) => formatDecimal(-readForText(text));
