import type { Topic } from '@yosegi/contract';

/** Tells whoever listens which topics changed, once a command has taken effect. */
export class Live {
  private readonly listeners = new Set<(message: string) => void>();

  announce(eventId: number, topics: readonly Topic[]): void {
    this.tell(`id: ${eventId}\ndata: ${JSON.stringify(topics)}\n\n`);
  }

  /** Says that nothing more will come. */
  close(): void {
    this.tell('event: closing\ndata: []\n\n');
  }

  /** @returns how to stop listening */
  listen(listener: (message: string) => void): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  private tell(message: string): void {
    for (const listener of this.listeners) listener(message);
  }
}
