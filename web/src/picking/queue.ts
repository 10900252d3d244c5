import type { api, Problem } from '@yosegi/contract';
import { ApiProblem, type Input } from '@yosegi/contract/client';
import { newKey } from '@yosegi/contract/key';

type PickInput = Input<(typeof api)['pickOnRun']>['body'];
export type QueuedLine = PickInput['lines'][number];

/** Something that was picked and that the server may not know yet. It stays on this machine until the server has answered. */
export interface Queued {
  /** Of the command: sent again, it is done once. */
  readonly key: string;
  readonly runId: number;
  readonly personId: number;
  readonly lines: readonly QueuedLine[];
  /** In words, to show it by. */
  readonly says: string;
  /** ISO time. */
  readonly at: string;
  /** Why the server refused it; null while it waits. */
  readonly problem: Problem | null;
  /** Whether the server may have heard of it. */
  readonly tried: boolean;
  /** The document that it became; null until the server has answered. */
  readonly act: number | null;
  /** Of the undo that follows it, where it was taken back after the server may have heard of it. */
  readonly undoKey: string | null;
}

/** Sends one, and its undo where it was taken back; @throws ApiProblem when it is refused, anything else when the server cannot be reached. */
export type SendPick = (entry: Queued) => Promise<{ readonly id: number }>;

/** Where it is kept between visits. */
export interface Keeping {
  read(): string | null;
  write(text: string): void;
}

/** The server could not be reached. */
const LOST = 'lost';

const readAll = (text: string | null): readonly Queued[] => {
  try {
    const all: unknown = JSON.parse(text ?? '[]');
    return Array.isArray(all) ? (all as Queued[]) : [];
  } catch {
    return [];
  }
};

/**
 * Picks in the order they were made. They are sent one after the other, each with its own key, so that none is lost and
 * none is done twice, however often the connection goes. What the server refuses stays, with why, until somebody decides.
 */
export class PickQueue {
  private listeners = new Set<() => void>();
  private entries: readonly Queued[];
  private sending: Promise<void> | null = null;
  /** Whether the server could not be reached the last time. */
  private cutOff = false;
  /** Whether this machine had no room for what is here. */
  private isFull = false;
  private snapshot: { readonly entries: readonly Queued[]; readonly cutOff: boolean; readonly isFull: boolean };

  constructor(
    private readonly keeping: Keeping,
    private readonly send: SendPick,
    /** What follows once something was sent or refused: what is shown knows of it when this is through; @throws as `send` */
    private readonly onSent: (entry: Queued) => Promise<void> = async () => {},
  ) {
    this.entries = readAll(keeping.read());
    this.snapshot = { entries: this.entries, cutOff: false, isFull: false };
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  state = () => this.snapshot;

  /** Keeps a pick; it is safe on this machine when this returns, unless `isFull` says that there is no room. */
  add(entry: Omit<Queued, 'key' | 'problem' | 'tried' | 'act' | 'undoKey'>): void {
    this.set([...this.fresh(), { ...entry, key: newKey(), problem: null, tried: false, act: null, undoKey: null }]);
  }

  /** Gives up what was refused: nothing of it was done. */
  drop(key: string): void {
    this.set(this.fresh().filter((entry) => entry.key !== key || entry.problem === null));
  }

  /** Takes back what waits: it is forgotten, or undone where the server may have heard of it. */
  takeBack(key: string): void {
    const entries = this.fresh().filter((entry) => entry.key !== key || entry.tried);
    this.set(entries.map((entry) => (entry.key === key ? { ...entry, undoKey: entry.undoKey ?? newKey() } : entry)));
  }

  /** Tries a refused one again as it is: what stood in its way may have changed. A new intention has a new key. */
  again(key: string): void {
    this.set(
      this.fresh().map((entry) =>
        entry.key === key ? { ...entry, key: newKey(), problem: null, tried: false } : entry,
      ),
    );
  }

  /**
   * Sends what waits of a person, in order, until nothing does or the server cannot be reached. Called again meanwhile, it
   * is the same sending.
   */
  flush(personId: number): Promise<void> {
    this.sending ??= this.sendAll(personId).finally(() => {
      this.sending = null;
    });
    return this.sending;
  }

  private async sendAll(personId: number): Promise<void> {
    for (;;) {
      const next = this.fresh().find((entry) => entry.problem === null && entry.personId === personId);
      if (!next) return this.reach(true);
      this.change(next.key, { tried: true });
      const problem = await this.refusalOf(async () => {
        const { id } = await this.send(next);
        this.change(next.key, { act: id });
      });
      if (problem === LOST) return this.reach(false);
      this.reach(true);
      if (problem) this.change(next.key, { problem });
      // Until what is shown knows of it, it goes on counting here; sent again it is done once.
      if ((await this.refusalOf(() => this.onSent(next))) === LOST) return this.reach(false);
      // What was taken back meanwhile is sent once more, with its undo.
      if (!problem) this.set(this.fresh().filter(({ key, undoKey }) => key !== next.key || undoKey !== next.undoKey));
    }
  }

  /** Why the server refuses something; null where it does not. */
  private async refusalOf(work: () => Promise<void>): Promise<Problem | typeof LOST | null> {
    try {
      await work();
      return null;
    } catch (error) {
      // Where the server itself is in trouble, nothing is wrong with the pick.
      return error instanceof ApiProblem && error.problem.status < 500 ? error.problem : LOST;
    }
  }

  private change(key: string, values: Partial<Queued>): void {
    this.set(this.fresh().map((entry) => (entry.key === key ? { ...entry, ...values } : entry)));
  }

  private reach(isReached: boolean): void {
    if (this.cutOff === !isReached) return;
    this.cutOff = !isReached;
    this.tell();
  }

  /** Another tab may have added or sent something; what found no room on this machine is here alone. */
  private fresh(): readonly Queued[] {
    return this.isFull ? this.entries : readAll(this.keeping.read());
  }

  private set(entries: readonly Queued[]): void {
    this.entries = entries;
    try {
      this.keeping.write(JSON.stringify(entries));
      this.isFull = false;
    } catch {
      this.isFull = true;
    }
    this.tell();
  }

  private tell(): void {
    this.snapshot = { entries: this.entries, cutOff: this.cutOff, isFull: this.isFull };
    for (const listener of this.listeners) listener();
  }
}
