import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ImportJob, ImportRow } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import {
  type DecimalSign,
  type FileKindName,
  fileKinds,
  type Matching,
  type PlannedChange,
  type RowFate,
} from '@yosegi/core/exchange';
import { writingOf } from '@yosegi/core/number';
import { Refusal, refusalOf } from '@yosegi/core/refusal';
import type { FastifyBaseLogger } from 'fastify';
import type { Doing } from '../command/doing.ts';
import type { Slots } from '../command/slots.ts';
import type { Database, Reader } from '../db/database.ts';
import { applyChanges } from './apply.sql.ts';
import { FileThread } from './thread.ts';
import type { Checked, Opened, Some } from './worker.ts';
import { changeCount, readWorld } from './world.sql.ts';

/** A person's file waiting in memory is forgotten when that person brings newer ones. */
const MOST_OF_ONE = 3;
/** The most files that wait at all. */
const MOST_JOBS = 24;
/** Folders of uploads are named after the process they belong to. */
const FOLDER = 'yosegi-import-';

/** How long a question for the next step is left open; shorter than any proxy's patience. */
const PATIENCE = 15_000;

interface Job {
  readonly id: string;
  step: number;
  /** Those who wait for the next step. */
  readonly waiting: Set<() => void>;
  readonly kind: FileKindName;
  readonly file: string;
  readonly personId: number;
  readonly thread: FileThread;
  state: ImportJob['state'];
  done: number;
  total: number;
  problem: string | null;
  opened: Opened | null;
  matching: Matching;
  /** As somebody chose it; null for what the amounts speak for. */
  chosenSign: DecimalSign | null;
  /** As it was read. */
  sign: DecimalSign;
  checked: Checked | null;
  /** The books' change count when the plan was made. */
  stamp: number;
}

/**
 * Files on their way in: read and judged in a thread of their own, looked at by their person, then brought in entirely
 * or not at all. Nothing of this is kept over a restart, because nothing has happened yet.
 */
export class ImportJobs {
  private readonly jobs = new Map<string, Job>();
  private readonly folder: string;

  constructor(
    private readonly database: Database,
    private readonly log: FastifyBaseLogger,
    private readonly slots: Slots,
  ) {
    removeLeftovers();
    this.folder = mkdtempSync(join(tmpdir(), `${FOLDER}${process.pid}-`));
  }

  /** A place for an uploaded file. */
  newPath(): string {
    return join(this.folder, randomUUID());
  }

  /**
   * Begins to read a file that lies at `path`; the file itself is removed once it is read.
   * @throws Refusal `imports-full`
   */
  begin(personId: number, kind: FileKindName, file: string, path: string): ImportJob {
    const own = [...this.jobs.values()].filter((job) => job.personId === personId && job.state !== 'applying');
    for (const old of own.slice(0, Math.max(0, own.length - MOST_OF_ONE + 1))) this.forget(old);
    if (this.jobs.size >= MOST_JOBS) {
      rmSync(path, { force: true });
      throw new Refusal('imports-full');
    }
    const job: Job = {
      id: randomUUID(),
      step: 1,
      waiting: new Set(),
      kind,
      file: file.slice(0, 200),
      personId,
      thread: new FileThread(),
      state: 'reading',
      done: 0,
      total: 0,
      problem: null,
      opened: null,
      matching: [],
      chosenSign: null,
      sign: 'point',
      checked: null,
      stamp: 0,
    };
    this.jobs.set(job.id, job);
    void this.read(job, path);
    return describe(job);
  }

  /** How far an import is; when that was `seen` already, its next step or, after a while, the same again. */
  async follow(personId: number, id: string, seen?: number): Promise<ImportJob> {
    const job = this.of(personId, id);
    if (seen === job.step) {
      await new Promise<void>((resolve) => {
        const go = () => {
          clearTimeout(timer);
          job.waiting.delete(go);
          resolve();
        };
        const timer = setTimeout(go, PATIENCE);
        job.waiting.add(go);
      });
    }
    return describe(job);
  }

  /** Rows from the one after `after`, of one fate or of all. */
  async rows(
    personId: number,
    id: string,
    query: { fate?: RowFate['fate'] | undefined; cursor?: string | undefined; limit: number },
  ) {
    const job = this.of(personId, id);
    const titles = new Map(fileKinds[job.kind].columns.map(({ key, title }) => [key, title]));
    const from = Number(query.cursor ?? 0);
    if (!job.checked) return { rows: [], next: null };
    const asked = { ask: 'rows', fate: query.fate ?? null, from, most: query.limit } as const;
    const { some, more } = await job.thread.ask<Some<RowFate>>(asked);
    const locale = await localeOf(this.database.reader);
    return { rows: some.map((fate) => toRow(fate, titles, locale)), next: more ? String(from + query.limit) : null };
  }

  /** Judges the file again with other columns. */
  rematch(personId: number, id: string, matching: Matching, sign: DecimalSign | null): ImportJob {
    const job = this.of(personId, id);
    if (job.state !== 'ready') throw new Refusal('wrong-state', { kind: 'import', number: '', state: job.state });
    const keys = matching.filter((key) => key !== null);
    if (new Set(keys).size < keys.length) throw new Refusal('column-twice', {}, 'matching');
    job.matching = matching.slice(0, job.opened?.titles.length ?? 0);
    job.chosenSign = sign;
    void this.check(job);
    return describe(job);
  }

  /**
   * Brings a file in, within the transaction of the command.
   * @throws Refusal `import-has-refusals`, `import-changed`, `import-cancelled`
   */
  async apply(doing: Doing, id: string) {
    const job = this.of(doing.person.id, id);
    const { checked } = job;
    if (job.state !== 'ready' || !checked)
      throw new Refusal('wrong-state', { kind: 'import', number: '', state: job.state });
    const { refused } = checked.counts;
    if (refused > 0) throw new Refusal('import-has-refusals', { refused });
    if ((await changeCount(doing.tx)) !== job.stamp) {
      void this.check(job);
      throw new Refusal('import-changed');
    }
    const total = checked.changes.new + checked.changes.changed;
    step(job, { state: 'applying', total, done: 0 });
    try {
      const onProgress = (done: number) => {
        if (job.state === 'cancelled') throw new Refusal('import-cancelled');
        step(job, { done });
      };
      const documentId =
        total > 0
          ? await applyChanges(doing, job.kind, { changes: await changesOf(job), file: job.file, onProgress })
          : null;
      onProgress(total);
      // Done is what is on the disk: until then it can fail, and be tried again.
      doing.settled((committed) => {
        if (committed) step(job, { state: 'done' });
        else if (!isCancelled(job)) step(job, { state: 'ready' });
      });
      return { ...checked.changes, documentId };
    } catch (error) {
      if (!isCancelled(job)) step(job, { state: 'ready' });
      throw error;
    }
  }

  cancel(personId: number, id: string): { id: string } {
    const job = this.of(personId, id);
    if (job.state !== 'done') step(job, { state: 'cancelled' });
    void job.thread.end();
    return { id };
  }

  async close(): Promise<void> {
    for (const job of this.jobs.values()) {
      for (const go of [...job.waiting]) go();
      await job.thread.end();
    }
    rmSync(this.folder, { recursive: true, force: true });
  }

  private of(personId: number, id: string): Job {
    const job = this.jobs.get(id);
    if (job?.personId !== personId) throw new Refusal('import-gone');
    return job;
  }

  private async read(job: Job, path: string): Promise<void> {
    try {
      const opened = await this.slots.run(job.personId, () =>
        job.thread.ask<Opened>({ ask: 'open', path, kind: job.kind }),
      );
      job.opened = opened;
      job.matching = opened.matching;
      job.total = opened.rows;
      await this.check(job);
    } catch (error) {
      this.fail(job, error);
    } finally {
      rmSync(path, { force: true });
    }
  }

  private async check(job: Job): Promise<void> {
    try {
      step(job, { state: 'reading', done: 0 });
      const { reader } = this.database;
      const stamp = await changeCount(reader);
      const world = await readWorld(reader, job.kind);
      const { kind, matching, chosenSign: sign } = job;
      const ask = { ask: 'check', kind, matching, sign, usual: await usualSign(reader), world } as const;
      const checked = await this.slots.run(job.personId, () =>
        job.thread.ask<Checked>(ask, (done, total) => step(job, { done, total })),
      );
      if (isCancelled(job)) return;
      job.checked = checked;
      job.sign = checked.sign;
      job.stamp = stamp;
      step(job, { state: 'ready' });
    } catch (error) {
      this.fail(job, error);
    }
  }

  private fail(job: Job, error: unknown): void {
    if (isCancelled(job)) return;
    const words = wordsOf(error);
    if (!words) this.log.error({ err: error }, 'a file could not be read');
    const problem = words ?? 'This file can’t be read. Save it again as CSV or XLSX and try once more.';
    step(job, { state: 'failed', problem });
  }

  private forget(job: Job): void {
    this.jobs.delete(job.id);
    void job.thread.end();
  }
}

/** Removes uploads of servers that are gone without having cleaned up. */
function removeLeftovers(): void {
  for (const name of readdirSync(tmpdir())) {
    const [, pid] = /^yosegi-import-(\d+)-/.exec(name) ?? [];
    if (pid !== undefined && !isRunning(Number(pid))) rmSync(join(tmpdir(), name), { recursive: true, force: true });
  }
}

function isRunning(pid: number): boolean {
  try {
    return process.kill(pid, 0);
  } catch (error) {
    return (error as { code?: string }).code === 'EPERM';
  }
}

/** Changes a job and tells those who wait for it. */
function step(job: Job, change: Partial<Pick<Job, 'state' | 'done' | 'total' | 'problem'>>): void {
  Object.assign(job, change);
  job.step += 1;
  for (const go of [...job.waiting]) go();
}

/** So many changes are copied at once: no more than is done while nobody notices. */
const CHANGES_AT_ONCE = 1000;

/** What a file changes, fetched from its thread in pieces. */
async function changesOf(job: Job): Promise<readonly PlannedChange[]> {
  const all: PlannedChange[] = [];
  for (;;) {
    const asked = { ask: 'changes', from: all.length, most: CHANGES_AT_ONCE } as const;
    const { some, more } = await job.thread.ask<Some<PlannedChange>>(asked);
    all.push(...some);
    if (!more) return all;
  }
}

/** Asked after waiting, when another request may have changed it. */
const isCancelled = (job: Job) => job.state === 'cancelled';

function missingOf({ kind, matching, opened }: Job): string[] {
  if (!opened) return [];
  return fileKinds[kind].columns
    .filter(({ key, required }) => required && !matching.includes(key))
    .map(({ title }) => title);
}

/** The decimal sign that the company writes. */
async function usualSign(db: Reader): Promise<DecimalSign> {
  return writingOf(await localeOf(db)).decimal === ',' ? 'comma' : 'point';
}

const localeOf = async (db: Reader) => (await db.models.company.findByPk(1))?.locale ?? 'en';

function describe(job: Job): ImportJob {
  return {
    id: job.id,
    step: job.step,
    kind: job.kind,
    file: job.file,
    state: job.state,
    done: job.done,
    total: job.total,
    problem: job.problem,
    format: job.opened?.format ?? '',
    titles: [...(job.opened?.titles ?? [])],
    matching: [...job.matching],
    decimalSign: job.sign,
    sample: (job.opened?.sample ?? []).map((row) => [...row]),
    missing: missingOf(job),
    counts: job.checked?.counts ?? { new: 0, changed: 0, same: 0, refused: 0 },
  };
}

const toRow = (fate: RowFate, titles: ReadonlyMap<string, string>, locale: string): ImportRow => ({
  row: fate.row,
  fate: fate.fate,
  subject: fate.subject,
  changes: fate.changes.map((key) => titles.get(key) ?? key.replace(/^field:/, '')),
  faults: fate.faults.map((fault) => ({
    column: fault.column === null ? null : (titles.get(fault.column) ?? fault.column),
    reason: wordsOf(refusalOf(fault), locale) ?? fault.code,
  })),
});
