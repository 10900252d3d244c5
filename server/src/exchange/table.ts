import {
  type DecimalSign,
  type FileKindName,
  type FileRow,
  fileKinds,
  guessDecimalSign,
  LARGEST_FILE,
  type Matching,
  MOST_ROWS,
} from '@yosegi/core/exchange';
import { Refusal, type Refused } from '@yosegi/core/refusal';
import type { Table } from './cells.ts';
import { readCsv } from './csv.ts';
import { readXlsx } from './xlsx.ts';

/** A table with the titles of its columns taken from its first full row. */
export interface TitledTable extends Table {
  readonly titles: readonly string[];
}

/** What a file is that is none of ours, by its first bytes. */
const OTHERS: readonly (readonly [magic: string, what: string])[] = [
  ['%PDF', 'a PDF'],
  ['\u0089PNG', 'a picture'],
  ['\u00ff\u00d8\u00ff', 'a picture'],
  ['GIF8', 'a picture'],
  ['\u001f\u008b', 'a compressed file'],
  ['Rar!', 'an archive'],
  ['7z\u00bc\u00af', 'an archive'],
  ['{\\rtf', 'a text document'],
  ['<!DOC', 'a web page'],
  ['<html', 'a web page'],
];

/**
 * Reads a CSV or XLSX file, told apart by its content and never by its name.
 * @throws Refusal `file-too-large`, `file-empty`, `file-not-table`, `file-old-workbook`, `file-too-many-rows` and what
 * the readers throw
 */
export async function readTable(content: Buffer): Promise<TitledTable> {
  if (content.length > LARGEST_FILE) throw new Refusal('file-too-large', { most: LARGEST_FILE });
  const head = content.subarray(0, 8).toString('latin1');
  const other = OTHERS.find(([magic]) => head.startsWith(magic));
  if (other) throw new Refusal('file-not-table', { what: other[1] });
  if (head.startsWith('\u00d0\u00cf\u0011\u00e0')) throw new Refusal('file-old-workbook');
  const table = head.startsWith('PK') ? await readXlsx(content) : readCsv(content);
  const filled = table.rows.filter(
    ({ cells, faults }) => faults.length > 0 || cells.some((cell) => cell.trim() !== ''),
  );
  // Lines above the titles, like the name of a report, fill one cell only.
  const titleAt = Math.max(
    0,
    filled.findIndex(({ cells }) => cells.filter((cell) => cell.trim() !== '').length > 1),
  );
  const titles = filled[titleAt]?.cells.map((cell) => cell.trim());
  if (!titles || filled.length <= titleAt + 1) throw new Refusal('file-empty');
  while (titles.at(-1) === '') titles.pop();
  const rows = filled.slice(titleAt + 1);
  if (rows.length > MOST_ROWS) throw new Refusal('file-too-many-rows', { rows: rows.length, most: MOST_ROWS });
  return { ...table, rows, titles };
}

/** The rows of a table under the keys that its columns are read as. */
export function keyedRows(table: TitledTable, matching: Matching): FileRow[] {
  return table.rows.map(({ row, cells, faults }) => {
    const keyed: Record<string, string> = {};
    for (const [index, key] of matching.entries()) if (key !== null) keyed[key] = cells[index] ?? '';
    const broken: (Refused & { column: string })[] = faults.flatMap(({ at, ...refused }) => {
      const column = matching[at];
      return column ? [{ column, ...refused }] : [];
    });
    const extra = cells.slice(table.titles.length).some((cell) => cell.trim() !== '');
    // More cells than titles means that cells were split where they should not be: nothing in the row can be trusted.
    if (extra)
      broken.push({ column: '', code: 'cells-too-many', facts: { cells: cells.length, titles: table.titles.length } });
    return { row, cells: keyed, broken };
  });
}

/** The decimal sign that the amounts of a table speak for. @param usual what the company writes */
export function decimalSignOf(
  table: TitledTable,
  kind: FileKindName,
  matching: Matching,
  usual: DecimalSign,
): DecimalSign {
  if (table.format.startsWith('XLSX')) return 'point';
  const amounts = new Set(fileKinds[kind].columns.filter((column) => column.amount).map(({ key }) => key));
  const places = [...matching.entries()].flatMap(([index, key]) => (key && amounts.has(key) ? [index] : []));
  return guessDecimalSign(
    table.rows.slice(0, 2000).flatMap(({ cells }) => places.map((at) => cells[at] ?? '')),
    usual,
  );
}
