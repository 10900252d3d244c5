/**
 * The company's day of a moment: in the zone of the machine it is reckoned on, which is the company's.
 * @param moment a date, or ISO text in UTC
 * @returns an ISO day
 */
export function dayOf(moment: Date | string): string {
  const date = typeof moment === 'string' ? new Date(moment) : moment;
  const two = (n: number) => String(n).padStart(2, '0');
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}

/** The ISO day of a date that is reckoned in UTC, as days counted from another day are; never that of a moment. */
// biome-ignore lint/plugin: the one place where a day is cut from a text
export const utcDay = (date: Date): string => date.toISOString().slice(0, 10);
