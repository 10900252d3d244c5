import { type ChildProcess, fork } from 'node:child_process';
import type { Answer, Ask } from './bed-process.ts';

/** A process that runs tests of the copy. */
export class Bed {
  private process: ChildProcess | null = null;

  private constructor(private readonly args: readonly string[]) {
    process.on('exit', () => this.close());
  }

  static async open(work: string, together: boolean): Promise<Bed> {
    const bed = new Bed(together ? [work, 'together'] : [work]);
    await bed.start();
    return bed;
  }

  private start(): Promise<void> {
    const child = fork('scripts/mutants/bed-process.ts', [...this.args], {
      execArgv: ['--import', 'tsx'],
      silent: true,
      // With a group of its own, what it has started ends with it: a mutant may run for ever in there.
      detached: true,
    });
    this.process = child;
    child.stderr?.on('data', (text: Buffer) => process.env.BED && process.stderr.write(text));
    return new Promise((resolve) => child.once('message', () => resolve()));
  }

  /** @returns null when it didn't answer in this time; then the process is a new one */
  async ask(ask: Ask, seconds: number): Promise<Answer | null> {
    const child = this.process;
    if (!child) throw new Error('no process');
    const answer = await new Promise<Answer | null>((resolve) => {
      const end = setTimeout(() => resolve(null), seconds * 1000);
      const done = (answer: Answer | null) => {
        clearTimeout(end);
        child.removeAllListeners('message');
        child.removeAllListeners('exit');
        resolve(answer);
      };
      child.once('message', (message) => done(message as Answer));
      child.once('exit', () => done(null));
      child.send(ask);
    });
    if (answer) return answer;
    this.close();
    await this.start();
    return null;
  }

  close(): void {
    try {
      if (this.process?.pid) process.kill(-this.process.pid, 'SIGKILL');
    } catch {
      // It is gone already.
    }
  }
}

/** Does each of them once, as many at a time as there are beds. */
export async function spread<One>(
  beds: readonly Bed[],
  all: readonly One[],
  work: (bed: Bed, one: One) => Promise<unknown>,
): Promise<void> {
  const left = [...all];
  await Promise.all(
    beds.map(async (bed) => {
      for (let one = left.shift(); one !== undefined; one = left.shift()) await work(bed, one);
    }),
  );
}
