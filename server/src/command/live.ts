import type { Topic } from '@yosegi/contract';

/** @param isLast nothing more comes after it */
type Listener = (message: string, isLast: boolean) => void;

/** Tells whoever listens which topics changed, once a command has taken effect. */
export class Live {
  private readonly listeners = new Set<Listener>();

  announce(eventId: number, topics: readonly Topic[]): void {
    this.tell(`id: ${eventId}\ndata: ${JSON.stringify(topics)}\n\n`);
  }

  /** Says that nothing more will come. */
  close(): void {
    this.tell('event: closing\ndata: []\n\n', true);
  }

  /** @returns how to stop listening */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  private tell(message: string, isLast = false): void {
    for (const listener of this.listeners) listener(message, isLast);
  }
}
