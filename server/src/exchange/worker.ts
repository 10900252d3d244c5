import { readFileSync } from 'node:fs';
import { parentPort } from 'node:worker_threads';
import type { Label } from '@yosegi/contract';
import {
  type DecimalSign,
  type FileKindName,
  fileKinds,
  guessMatching,
  type ImportPlan,
  type ImportWorld,
  type Matching,
  type PlannedChange,
  planImport,
  type RowFate,
} from '@yosegi/core/exchange';
import { Refusal, type Refused } from '@yosegi/core/refusal';
import { type Message, readMessage } from '@yosegi/core/ubl';
import type { Records } from './records.sql.ts';
import { decimalSignOf, keyedRows, readTable, type TitledTable } from './table.ts';
import { type Sheet, writeCsv, writeXlsx } from './write.ts';

/** What a thread is asked. Reading and judging a file, and writing one, never hold up the server. */
export type Ask =
  | { readonly ask: 'open'; readonly path: string; readonly kind: FileKindName }
  | {
      readonly ask: 'check';
      readonly kind: FileKindName;
      readonly matching: Matching;
      /** Null for what the amounts speak for, and `usual` where they say nothing. */
      readonly sign: DecimalSign | null;
      readonly usual: DecimalSign;
      readonly world: ImportWorld;
    }
  /** Some rows of what was judged last, from one on, of one fate or of all. */
  | { readonly ask: 'rows'; readonly fate: RowFate['fate'] | null; readonly from: number; readonly most: number }
  /** Some of what bringing it in would change. */
  | { readonly ask: 'changes'; readonly from: number; readonly most: number }
  /** Everything there is of a kind, as a file of it. */
  | { readonly ask: 'list'; readonly kind: FileKindName; readonly format: 'csv' | 'xlsx'; readonly data: string }
  | { readonly ask: 'write'; readonly format: 'csv' | 'xlsx'; readonly sheet: Sheet }
  | { readonly ask: 'message'; readonly content: string }
  | { readonly ask: 'labels'; readonly labels: readonly Label[]; readonly title: string };

export interface Opened {
  readonly format: string;
  readonly titles: readonly string[];
  readonly rows: number;
  readonly sample: readonly (readonly string[])[];
  readonly matching: Matching;
}

/** How a file was judged. Its rows stay in the thread until somebody looks at them. */
export interface Checked {
  readonly counts: Record<RowFate['fate'], number>;
  readonly changes: Record<PlannedChange['fate'], number>;
  readonly sign: DecimalSign;
}

/** Some of what was judged, and whether there is more. */
export interface Some<T> {
  readonly some: readonly T[];
  readonly more: boolean;
}

type Answer = Opened | Checked | Some<RowFate> | Some<PlannedChange> | Message | Uint8Array;

export type Told =
  | { readonly told: 'progress'; readonly done: number; readonly total: number }
  | { readonly told: 'answer'; readonly answer: Answer }
  | { readonly told: 'refused'; readonly refused: Refused }
  | { readonly told: 'broken'; readonly message: string };

const SAMPLE_ROWS = 6;
let table: TitledTable | undefined;
let plan: ImportPlan = { fates: [], changes: [] };

const tell = (told: Told) => parentPort?.postMessage(told);

async function answer(asked: Ask): Promise<Answer> {
  if (asked.ask === 'write') return write(asked.format, asked.sheet);
  if (asked.ask === 'list') {
    const { kind, format, data } = asked;
    const records = await readAll(data, kind);
    return write(format, { name: kind, columns: fileKinds[kind].columns, records: [...records.values()].flat() });
  }
  if (asked.ask === 'changes') return someOf(plan.changes, asked.from, asked.most);
  if (asked.ask === 'rows') {
    const { fate: wanted } = asked;
    const fates = wanted === null ? plan.fates : plan.fates.filter(({ fate }) => fate === wanted);
    return someOf(fates, asked.from, asked.most);
  }
  if (asked.ask === 'message') return readMessage(asked.content);
  if (asked.ask === 'labels') {
    // What draws them takes longer to load than most files take to read.
    const { printLabels } = await import('@yosegi/devices/labels');
    return printLabels(asked.labels, asked.title);
  }
  if (asked.ask === 'open') {
    table = await readTable(readFileSync(asked.path));
    const matching = guessMatching(table.titles, fileKinds[asked.kind].columns);
    return {
      format: table.format,
      titles: table.titles,
      rows: table.rows.length,
      sample: table.rows.slice(0, SAMPLE_ROWS).map(({ cells }) => cells),
      matching,
    };
  }
  if (!table) throw new Error('nothing is open');
  const total = table.rows.length;
  const rows = keyedRows(table, asked.matching);
  const sign = asked.sign ?? decimalSignOf(table, asked.kind, asked.matching, asked.usual);
  plan = planImport(fileKinds[asked.kind], rows, asked.world, sign, (done) => tell({ told: 'progress', done, total }));
  const counts = { new: 0, changed: 0, same: 0, refused: 0 };
  for (const { fate } of plan.fates) counts[fate] += 1;
  const changes = { new: 0, changed: 0 };
  for (const { fate } of plan.changes) changes[fate] += 1;
  return { counts, changes, sign };
}

const write = (format: 'csv' | 'xlsx', sheet: Sheet) => (format === 'csv' ? writeCsv(sheet) : writeXlsx(sheet));

/** Reads the company's data here, so that nothing of it passes through the server's own thread. */
async function readAll(data: string, kind: FileKindName): Promise<Records> {
  // Loaded when they are needed: a thread that only judges files does without, and opens sooner.
  const [{ Database }, { readRecords }] = [await import('../db/database.ts'), await import('./records.sql.ts')];
  return Database.readOnce(data, (db) => readRecords(db, kind));
}

/** No more is copied than somebody looks at. */
function someOf<T>(all: readonly T[], from: number, most: number): Some<T> {
  return { some: all.slice(from, from + most), more: from + most < all.length };
}

parentPort?.on('message', (asked: Ask) => {
  answer(asked).then(
    (result) => tell({ told: 'answer', answer: result }),
    (error: unknown) =>
      error instanceof Refusal
        ? tell({ told: 'refused', refused: { code: error.code, facts: error.facts } as Refused })
        : tell({ told: 'broken', message: String(error) }),
  );
});
