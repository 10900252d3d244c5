import type { About, Asks, FromWorker, ToWorker } from '../workers/coverage.worker.ts';

/** The core's words for why something cannot be worked out. */
export class NotReckoned extends Error {}
/** The worker came to an end by itself. */
export class Crashed extends Error {}

interface Waiting {
  readonly resolve: (answer: FromWorker) => void;
  readonly reject: (error: Error) => void;
}

/** The worker that reckons coverage, started when it is first needed and anew when it has crashed. */
class Reckoner {
  /** Names what it has loaded; null before anything was. */
  version: string | null = null;
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private asked = 0;
  /** How many workers there were; an equal version of another one is not the same moment. */
  private started = 0;

  /**
   * Takes in a snapshot or changes, as they came from the server.
   * @returns what it knows now, by a name that no other worker gives; null where they are to something it lacks
   */
  async load(bytes: ArrayBuffer): Promise<string | null> {
    const answer = await this.post({ id: this.next(), load: bytes }, [bytes]);
    if ('version' in answer) this.version = answer.version;
    return this.version && `${this.started}.${this.version}`;
  }

  /** @throws NotReckoned in the core's words, or Crashed */
  async ask<A extends About>(about: A, ask: Asks[A]['ask']): Promise<Asks[A]['answer']> {
    if (this.version === null) throw new Crashed();
    const answer = await this.post({ id: this.next(), about, ask } as ToWorker);
    if ('refused' in answer) throw new NotReckoned(answer.refused);
    if ('answer' in answer) return answer.answer;
    throw new Crashed();
  }

  private next(): number {
    this.asked += 1;
    return this.asked;
  }

  private post(message: ToWorker, transfer: Transferable[] = []): Promise<FromWorker> {
    return new Promise((resolve, reject) => {
      this.waiting.set(message.id, { resolve, reject });
      this.running().postMessage(message, transfer);
    });
  }

  private running(): Worker {
    if (this.worker) return this.worker;
    const started = new Worker(new URL('../workers/coverage.worker.ts', import.meta.url), { type: 'module' });
    started.onmessage = ({ data }: MessageEvent<FromWorker>) => {
      this.waiting.get(data.id)?.resolve(data);
      this.waiting.delete(data.id);
    };
    started.onerror = (event) => {
      event.preventDefault();
      this.end();
    };
    this.worker = started;
    this.started += 1;
    return started;
  }

  /** Everything it had is gone with it; whoever waits is told. */
  private end(): void {
    this.worker?.terminate();
    this.worker = null;
    this.version = null;
    for (const { reject } of this.waiting.values()) reject(new Crashed());
    this.waiting.clear();
  }
}

export const reckoner = new Reckoner();
