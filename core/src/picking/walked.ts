import { CLAIM_MINUTES } from './offer.ts';

/** Something picked at one stop: when whoever did it set out for it, and when it was done. ISO times. */
export interface PickedAt {
  /** The same for everything that was taken at once. */
  readonly act: number;
  readonly begunAt: string | null;
  readonly at: string;
  /** Stops and lines that it brought something for. */
  readonly stops: number;
  readonly lines: number;
}

export interface Walked {
  readonly stops: number;
  readonly lines: number;
  /** Whole minutes on the way, of all who walked together. */
  readonly minutes: number;
  /** Null while less than a minute was walked. */
  readonly linesPerHour: number | null;
}

/**
 * What was walked. A stop took from when somebody set out for it until it was done, at most as long as it is theirs; what
 * was typed in afterwards took no time that anybody knows.
 */
export function walked(picks: readonly PickedAt[]): Walked {
  const acts = new Map<number, { ms: number; timedLines: number }>();
  for (const { act, begunAt, at, lines } of picks) {
    const ms = begunAt === null ? 0 : Math.max(0, Date.parse(at) - Date.parse(begunAt));
    const known = acts.get(act) ?? { ms: Math.min(ms, CLAIM_MINUTES * 60_000), timedLines: 0 };
    acts.set(act, { ...known, timedLines: known.timedLines + (begunAt === null ? 0 : lines) });
  }
  const all = [...acts.values()];
  const ms = all.reduce((sum, one) => sum + one.ms, 0);
  const timed = all.reduce((sum, one) => sum + one.timedLines, 0);
  return {
    stops: picks.reduce((sum, { stops }) => sum + stops, 0),
    lines: picks.reduce((sum, { lines }) => sum + lines, 0),
    minutes: Math.round(ms / 60_000),
    linesPerHour: ms < 60_000 ? null : Math.round((timed * 3_600_000) / ms),
  };
}
