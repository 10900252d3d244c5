import type { FastifyBaseLogger } from 'fastify';
import type { Database } from '../db/database.ts';
import { type Clock, dayOf } from '../http/context.ts';
import type { Live } from '../http/live.ts';
import { storageRefusal } from '../http/storage.ts';
import { holdPassed } from '../stock/lots.ts';
import { takeDueRevisions } from './revisions.ts';

/**
 * Puts revisions in use on the day they were set for, and holds lots whose day has passed. There is no clock that wakes the server: the first request of a
 * day finds the books as they should be on it, because it waits for this.
 */
export class Calendar {
  private reached = '';
  private reaching: Promise<void> | null = null;

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly live: Live,
    private readonly log: Pick<FastifyBaseLogger, 'error'>,
  ) {}

  /** Returns once everything is as it should be today. */
  async reach(): Promise<void> {
    const today = dayOf(this.clock.now());
    if (today === this.reached) return;
    this.reaching ??= this.turn(today)
      .catch((error: unknown) => this.goOn(error))
      .finally(() => {
        this.reaching = null;
      });
    await this.reaching;
  }

  /** Where the data cannot be written now, it can still be read as it was yesterday. */
  private goOn(error: unknown): void {
    if (!storageRefusal(error)) throw error;
    this.log.error({ err: error }, 'the day could not be begun');
  }

  private async turn(today: string): Promise<void> {
    const now = this.clock.now();
    const [eventId, held] = await this.database.write(async (tx) => [
      await takeDueRevisions(tx, now),
      await holdPassed(tx, now),
    ]);
    this.reached = today;
    if (eventId > 0) this.live.announce(eventId, ['definitions', 'items', 'builds']);
    if (held > 0) this.live.announce(eventId, ['items', 'stock', 'builds']);
  }
}
