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
  planImport,
} from '@yosegi/core/exchange';
import { Refusal, type Refused } from '@yosegi/core/refusal';
import { type Message, readMessage } from '@yosegi/core/ubl';
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

export interface Checked {
  readonly plan: ImportPlan;
  readonly sign: DecimalSign;
}

export type Told =
  | { readonly told: 'progress'; readonly done: number; readonly total: number }
  | { readonly told: 'answer'; readonly answer: Opened | Checked | Message | Uint8Array }
  | { readonly told: 'refused'; readonly refused: Refused }
  | { readonly told: 'broken'; readonly message: string };

const SAMPLE_ROWS = 6;
let table: TitledTable | undefined;

const tell = (told: Told) => parentPort?.postMessage(told);

async function answer(asked: Ask): Promise<Opened | Checked | Message | Uint8Array> {
  if (asked.ask === 'write') return asked.format === 'csv' ? writeCsv(asked.sheet) : writeXlsx(asked.sheet);
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
  const plan = planImport(fileKinds[asked.kind], rows, asked.world, sign, (done) =>
    tell({ told: 'progress', done, total }),
  );
  return { plan, sign };
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
