/** Where time comes from, so that tests and the demo can set it. */
export interface Clock {
  now(): Date;
}
export const systemClock: Clock = { now: () => new Date() };

/** The ISO day of a moment in this machine's zone, which is the company's. */
export function dayOf(moment: Date): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
}

/** The moment a day begins in this machine's zone, `later` days on, as ISO text in UTC. */
export function startOf(day: string, later = 0): string {
  const start = new Date(`${day}T00:00:00`);
  start.setDate(start.getDate() + later);
  return start.toISOString();
}
