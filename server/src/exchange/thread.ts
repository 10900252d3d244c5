import { Worker } from 'node:worker_threads';
import { Refusal, refusalOf } from '@yosegi/core/refusal';
import type { Slots } from '../command/slots.ts';
import type { Ask, Told } from './worker.ts';

/** What a file may take in memory before its thread is ended. */
const MOST_MEGABYTES = 1536;

/** How long a file may take; nothing that a catalogue holds takes nearly as long. */
const MOST_MILLISECONDS = 60_000;

/** A thread that reads and writes files, one question at a time. */
export class FileThread {
  private over = false;
  /** What was asked before, and is answered first. */
  private before: Promise<unknown> = Promise.resolve();
  private readonly worker = new Worker(new URL('./worker-start.mjs', import.meta.url), {
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
  });

  /**
   * @throws Refusal as the thread refuses; `file-too-much` when it ran out of memory; `file-too-slow` when it ran out of
   * time; `import-cancelled` when it was ended meanwhile
   */
  ask<T>(asked: Ask, onProgress: (done: number, total: number) => void = () => undefined): Promise<T> {
    const answer = this.before.then(() => this.askNow<T>(asked, onProgress));
    this.before = answer.catch(() => undefined);
    return answer;
  }

  private askNow<T>(asked: Ask, onProgress: (done: number, total: number) => void): Promise<T> {
    if (this.over) return Promise.reject(new Refusal('import-cancelled'));
    const { worker } = this;
    return new Promise<T>((resolve, reject) => {
      const timer = setTimeout(() => {
        this.over = true;
        settle(() => reject(new Refusal('file-too-slow')));
        void worker.terminate();
      }, MOST_MILLISECONDS);
      const settle = (then: () => void) => {
        clearTimeout(timer);
        worker.off('message', heard);
        worker.off('error', failed);
        worker.off('exit', ended);
        then();
      };
      const heard = (told: Told) => {
        if (told.told === 'progress') return onProgress(told.done, told.total);
        settle(() => {
          if (told.told === 'answer') resolve(told.answer as T);
          else if (told.told === 'refused') reject(refusalOf(told.refused));
          else reject(new Error(told.message));
        });
      };
      const failed = (error: Error & { code?: string }) => {
        this.over = true;
        settle(() => reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new Refusal('file-too-much') : error));
      };
      const ended = () => {
        this.over = true;
        settle(() => reject(new Refusal('import-cancelled')));
      };
      worker.on('message', heard);
      worker.on('error', failed);
      worker.on('exit', ended);
      worker.postMessage(asked);
    });
  }

  /** Whether it can be asked nothing more. */
  get isOver(): boolean {
    return this.over;
  }

  async end(): Promise<void> {
    this.over = true;
    await this.worker.terminate();
  }
}

/**
 * Threads that write files and read messages. One that has done its work waits for the next, because starting one takes
 * longer than most of them do.
 */
export class WorkThreads {
  private readonly idle: FileThread[] = [];

  constructor(private readonly slots: Slots) {}

  /** @throws Refusal `too-much-waiting`, and what {@link FileThread.ask} throws */
  run<T = Uint8Array>(personId: number, make: () => Promise<Ask>): Promise<T> {
    return this.slots.run(personId, async () => {
      const asked = await make();
      const thread = this.idle.pop() ?? new FileThread();
      try {
        return await thread.ask<T>(asked);
      } finally {
        if (!thread.isOver) this.idle.push(thread);
      }
    });
  }

  async end(): Promise<void> {
    await Promise.all(this.idle.splice(0).map((thread) => thread.end()));
  }
}
