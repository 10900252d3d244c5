import type { Order } from '@yosegi/contract';

/** Days since 1970, so that days can be drawn beside each other. */
export const dayNumber = (iso: string) => Math.round(Date.parse(`${iso}T00:00:00Z`) / 86_400_000);

/** The days that are drawn. */
export interface Span {
  /** The first, as {@link dayNumber}. */
  readonly from: number;
  readonly days: number;
}

const LEAST_DAYS = 10;
const MOST_DAYS = 60;

/** From today to a little after the last day that matters to an order. */
export function spanOf(order: Pick<Order, 'wantedOn' | 'lines'>, today: string): Span {
  const days = [order.wantedOn, ...order.lines.flatMap(({ completeOn, wantedOn }) => [completeOn, wantedOn])];
  const from = dayNumber(today);
  const last = Math.max(from, ...days.flatMap((day) => (day ? [dayNumber(day)] : [])));
  return { from, days: Math.min(MOST_DAYS, Math.max(LEAST_DAYS, last - from + 3)) };
}
