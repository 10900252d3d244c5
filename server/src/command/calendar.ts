import type { Topic } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { Database, Writer } from '../db/database.ts';
import type { Clock } from './clock.ts';
import type { Live } from './live.ts';

/** What a new day brings about. @returns the topics it changed */
export type DayTurn = (tx: Writer, now: Date) => Promise<readonly Topic[]>;

/**
 * Turns the day. There is no clock that wakes the server: the first request of a day finds the books as they should be on
 * it, because it waits for this.
 */
export class Calendar {
  private reached = '';
  private reaching: Promise<void> | null = null;

  /** @param goesOn whether the day may begin later: what cannot be written now can still be read as it was yesterday */
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly live: Live,
    private readonly turns: readonly DayTurn[],
    private readonly goesOn: (error: unknown) => boolean,
  ) {}

  /** Returns once everything is as it should be today. */
  async reach(): Promise<void> {
    const today = dayOf(this.clock.now());
    if (today === this.reached) return;
    this.reaching ??= this.turn(today)
      .catch((error: unknown) => {
        if (!this.goesOn(error)) throw error;
      })
      .finally(() => {
        this.reaching = null;
      });
    await this.reaching;
  }

  private async turn(today: string): Promise<void> {
    const now = this.clock.now();
    const [eventId, topics] = await this.database.write(async (tx) => {
      const changed = new Set<Topic>();
      for (const turn of this.turns) for (const topic of await turn(tx, now)) changed.add(topic);
      if (changed.size === 0) return [0, []];
      const told = [...changed];
      return [await tx.driver.insert('event', { at: now.toISOString(), topics: JSON.stringify(told) }), told];
    });
    this.reached = today;
    if (eventId > 0) this.live.announce(eventId, topics);
  }
}
