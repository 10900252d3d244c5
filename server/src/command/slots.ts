import { Refusal } from '@yosegi/core/refusal';

interface Waiting {
  readonly start: () => void;
}

/**
 * Lets only so many pieces of heavy work run at once. Who waits is served in turn by person, so that what one person has
 * queued never holds up the one thing that another wants.
 */
export class Slots {
  private running = 0;
  /** By person, the one served longest ago first. */
  private readonly queues = new Map<number, Waiting[]>();

  constructor(
    private readonly most: number,
    private readonly mostWaiting: number,
  ) {}

  /** @throws Refusal `too-much-waiting` when the person has queued more than can be kept */
  async run<T>(personId: number, work: () => Promise<T>): Promise<T> {
    await this.turnOf(personId);
    try {
      return await work();
    } finally {
      this.running -= 1;
      this.next();
    }
  }

  private turnOf(personId: number): Promise<void> {
    if (this.running < this.most) {
      this.running += 1;
      return Promise.resolve();
    }
    const queue = this.queues.get(personId) ?? [];
    if (queue.length >= this.mostWaiting) throw new Refusal('too-much-waiting', { most: this.mostWaiting });
    this.queues.set(personId, queue);
    return new Promise((resolve) => {
      queue.push({ start: resolve });
    });
  }

  private next(): void {
    const [first] = this.queues;
    if (!first) return;
    const [personId, queue] = first;
    const waiting = queue.shift();
    // Served now, so the others come first the next time.
    this.queues.delete(personId);
    if (queue.length > 0) this.queues.set(personId, queue);
    this.running += 1;
    waiting?.start();
  }
}
