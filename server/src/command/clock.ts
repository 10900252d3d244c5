/** Where time comes from, so that tests and the demo can set it. */
export interface Clock {
  now(): Date;
}
export const systemClock: Clock = { now: () => new Date() };

/** The moment a day begins in this machine's zone, `later` days on, as ISO text in UTC. */
export function startOf(day: string, later = 0): string {
  const start = new Date(`${day}T00:00:00`);
  start.setDate(start.getDate() + later);
  return start.toISOString();
}
