import { Refusal, type Refused } from '../refusal/index.ts';
import { refuseUnprintable } from '../text/index.ts';
import type { DecimalSign } from './amounts.ts';
import { type Column, FIELD_PREFIX } from './columns.ts';

/** One row of a file in our own words and forms: column key → text. */
export type FileRecord = Readonly<Record<string, string>>;

/** A row as read: the cells of the columns that are matched, and its number in the file. */
export interface FileRow {
  readonly row: number;
  readonly cells: FileRecord;
  /** Cells that could not even be read as text; a column of '' means the whole row. */
  readonly broken?: readonly (Refused & { readonly column: string })[];
}

/** Why a row is refused, and the column it is about; null for the row as a whole. */
export type RowFault = Refused & { readonly column: string | null };

/** What will become of a row: a new record, a change of one, nothing because it says what is known, or refused. */
export type Fate = 'new' | 'changed' | 'same' | 'refused';

export interface RowFate {
  readonly row: number;
  readonly fate: Fate;
  /** What the row is about, in a few words. */
  readonly subject: string;
  /** Columns that change, for `changed`. */
  readonly changes: readonly string[];
  readonly faults: readonly RowFault[];
}

export interface PlannedChange {
  readonly fate: 'new' | 'changed';
  /** As {@link FileKind.keyOf} names it. */
  readonly key: string;
  /** The whole record, one row or several. */
  readonly rows: readonly FileRecord[];
}

export interface ImportPlan {
  readonly fates: readonly RowFate[];
  readonly changes: readonly PlannedChange[];
}

/** What a cell's reader may look at beside the cell. */
export interface Reading<W> {
  /** Columns of the row that were read before this one. */
  readonly given: FileRecord;
  /** What is known under the row's key so far. */
  readonly before: FileRecord | undefined;
  readonly world: W;
  readonly sign: DecimalSign;
}

/** A kind of file: its columns, how their cells are read, and which rows belong together. */
export interface FileKind<W> {
  readonly columns: readonly Column[];
  /** Whether columns under names of their own are kept. */
  readonly hasFields: boolean;
  /**
   * Whether one record spans several rows; otherwise a key stands in one row only. A row without a key then belongs to
   * the record above it.
   */
  readonly spansRows: boolean;
  /** Columns that all rows of a record share: said once, they hold for the rows below. */
  readonly shared: readonly string[];
  /** Reads a cell into its normal form. @throws Refusal */
  readonly readers: Readonly<Record<string, (cell: string, reading: Reading<W>) => string>>;
  /** What makes a row the same record as one that is known; empty when it cannot be said. */
  readonly keyOf: (row: FileRecord, world: W) => string;
  readonly subjectOf: (row: FileRecord) => string;
  /** What a new record has where the file says nothing. */
  readonly defaults: FileRecord;
  readonly existing: (world: W) => ReadonlyMap<string, readonly FileRecord[]>;
  /** Completes a row whose cells could all be read. @throws Refusal, whose field names a column */
  readonly settle?: (row: FileRecord, reading: Pick<Reading<W>, 'world' | 'sign'>) => FileRecord;
  /** Whether a record that is not known asks for nothing to be done, like a stock of zero. */
  readonly saysNothing?: (row: FileRecord) => boolean;
  /** Checks a whole record. @throws Refusal, whose field names a column or `rows.N.column` */
  readonly check?: (
    rows: readonly FileRecord[],
    before: readonly FileRecord[] | undefined,
    reading: PlanContext<W>,
  ) => void;
}

export interface PlanContext<W> {
  readonly world: W;
  readonly sign: DecimalSign;
  /** Everything the file says, by key, for checks across records. */
  readonly incoming: ReadonlyMap<string, readonly FileRecord[]>;
}

interface Group {
  readonly key: string;
  readonly rows: { readonly row: number; readonly record: FileRecord; readonly faults: RowFault[] }[];
}

/**
 * Decides what will become of every row of a file, and refuses nothing silently: each row gets exactly one fate.
 * @param onRow called now and then with the number of rows done; may throw to stop
 */
export function planImport<W>(
  kind: FileKind<W>,
  rows: readonly FileRow[],
  world: W,
  sign: DecimalSign,
  onRow: (done: number) => void = () => undefined,
): ImportPlan {
  const existing = kind.existing(world);
  const groups = new Map<string, Group>();
  const duplicates: RowFate[] = [];
  let above = '';
  for (const [index, { row, cells, broken = [] }] of rows.entries()) {
    if (index % 500 === 0) onRow(index);
    const keyed = readKeyColumns(kind, cells);
    const key = kind.keyOf(keyed, world) || (kind.spansRows ? above : '');
    above = key;
    const known = groups.get(key);
    if (known && !kind.spansRows && key !== '') {
      const repeated: RowFault = { column: null, code: 'row-repeated', facts: { first: known.rows[0]?.row ?? 0 } };
      duplicates.push({ row, fate: 'refused', subject: kind.subjectOf(keyed), changes: [], faults: [repeated] });
      continue;
    }
    const group = known ?? { key, rows: [] };
    const before = kind.spansRows ? undefined : existing.get(key)?.[0];
    const first = group.rows[0]?.record;
    const read = readRow(kind, cells, before, first, { world, sign });
    const unread = broken.map((fault) => ({ ...fault, column: fault.column || null }));
    group.rows.push({ row, record: read.record, faults: unread.length > 0 ? unread : read.faults });
    // Rows without a key are each refused on their own.
    groups.set(key === '' ? `\u0000${row}` : key, group);
  }
  const incoming = new Map([...groups].map(([key, group]) => [key, group.rows.map(({ record }) => record)]));
  const fates = [...duplicates];
  const changes: PlannedChange[] = [];
  for (const group of groups.values()) {
    const before = existing.get(group.key);
    judge(kind, group, before, { world, sign, incoming });
    const records = group.rows.map(({ record }) => record);
    const fate = fateOf(kind, group, before);
    if (fate === 'new' || fate === 'changed') changes.push({ fate, key: group.key, rows: records });
    for (const [index, { row, record, faults }] of group.rows.entries()) {
      const changed = fate === 'changed' ? changedColumns(record, before?.[index]) : [];
      fates.push({ row, fate, subject: kind.subjectOf(record), changes: changed, faults });
    }
  }
  onRow(rows.length);
  fates.sort((a, b) => a.row - b.row);
  return { fates, changes };
}

/** The cells that make up a row's key, trimmed but not yet judged. */
const readKeyColumns = <W>(kind: FileKind<W>, cells: FileRecord): FileRecord =>
  Object.fromEntries(kind.columns.map(({ key }) => [key, (cells[key] ?? '').trim()]));

function readRow<W>(
  kind: FileKind<W>,
  cells: FileRecord,
  before: FileRecord | undefined,
  first: FileRecord | undefined,
  reading: Pick<Reading<W>, 'world' | 'sign'>,
): { record: FileRecord; faults: RowFault[] } {
  const record: Record<string, string> = { ...kind.defaults, ...before };
  const faults: RowFault[] = [];
  // What asks for nothing may leave the rest out.
  const says = before !== undefined || !kind.saysNothing?.(readKeyColumns(kind, cells));
  const read = (column: string, run: () => string) => {
    try {
      refuseUnprintable(cells[column] ?? '');
      record[column] = run();
    } catch (error) {
      record[column] = (cells[column] ?? '').trim();
      faults.push(faultOf(error, column));
    }
  };
  for (const { key, required } of kind.columns) {
    const cell = cells[key]?.trim();
    if (!cell && first && kind.shared.includes(key)) record[key] = first[key] ?? '';
    else if (required && !says && (cell === '' || (cell === undefined && !before))) continue;
    else if (required && (cell === '' || (cell === undefined && !before)))
      faults.push({ column: key, code: 'cell-missing', facts: {} });
    else if (cell !== undefined)
      read(key, () => kind.readers[key]?.(cell, { ...reading, given: record, before }) ?? cell);
  }
  for (const [typed, cell] of Object.entries(cells)) {
    if (!typed.startsWith(FIELD_PREFIX) || !kind.hasFields) continue;
    // Names of fields are the same in any case.
    const key = Object.keys(record).find((known) => known.toLowerCase() === typed.toLowerCase()) ?? typed;
    read(key, () => {
      refuseUnprintable(typed + cell);
      readText(typed.slice(FIELD_PREFIX.length), 60);
      return readText(cell.trim(), 200);
    });
    if (record[key] === '') delete record[key];
  }
  if (!kind.settle || faults.length > 0) return { record, faults };
  try {
    return { record: kind.settle(record, reading), faults };
  } catch (error) {
    return { record, faults: [faultOf(error)] };
  }
}

function faultOf(error: unknown, column?: string): RowFault {
  if (!(error instanceof Refusal)) throw error;
  return { column: column ?? error.field ?? null, code: error.code, facts: error.facts } as RowFault;
}

function judge<W>(kind: FileKind<W>, group: Group, before: readonly FileRecord[] | undefined, context: PlanContext<W>) {
  // What is known already stands, even where today it would be refused.
  if (!kind.check || fateOf(kind, group, before) === 'same' || group.rows.some(({ faults }) => faults.length > 0))
    return;
  try {
    kind.check(
      group.rows.map(({ record }) => record),
      before,
      context,
    );
  } catch (error) {
    const fault = faultOf(error);
    const [, at = '0', column = fault.column] = /^rows\.(\d+)\.(\w+)$/.exec(fault.column ?? '') ?? [];
    group.rows[Number(at)]?.faults.push({ ...fault, column });
  }
}

function fateOf<W>(kind: FileKind<W>, group: Group, before: readonly FileRecord[] | undefined): Fate {
  if (group.rows.some(({ faults }) => faults.length > 0)) return 'refused';
  if (!before) return group.rows.every(({ record }) => kind.saysNothing?.(record)) ? 'same' : 'new';
  const same =
    before.length === group.rows.length &&
    group.rows.every(({ record }, index) => changedColumns(record, before[index]).length === 0);
  return same ? 'same' : 'changed';
}

function changedColumns(record: FileRecord, before: FileRecord | undefined): string[] {
  if (!before) return [];
  const keys = new Set([...Object.keys(record), ...Object.keys(before)]);
  return [...keys].filter((key) => (record[key] ?? '') !== (before[key] ?? ''));
}

/** Text of at most `most` characters. @throws Refusal `text-too-long` */
export function readText(cell: string, most: number): string {
  if (cell.length > most) throw new Refusal('text-too-long', { most, is: cell.length });
  return cell;
}

/** One of a few words, also by what others call them. @throws Refusal `word-unknown` with the `known` ones */
export function readWord<T extends string>(cell: string, words: Readonly<Record<T, readonly string[]>>): T {
  const asked = cell
    .toLowerCase()
    .replace(/[\s_-]+/g, ' ')
    .trim();
  for (const [word, others] of Object.entries<readonly string[]>(words))
    if (word === asked || others.includes(asked)) return word as T;
  throw new Refusal('word-unknown', { typed: cell.slice(0, 40), known: Object.keys(words) });
}

const YES_NO = { yes: ['y', 'true', '1', 'x', 'on'], no: ['n', 'false', '0', '', 'off'] } as const;
export const readYesNo = (cell: string) => readWord(cell, YES_NO);
