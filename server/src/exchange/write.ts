import { type Column, FIELD_PREFIX, type FileRecord, harmless } from '@yosegi/core/exchange';
import Papa from 'papaparse';

export interface Sheet {
  readonly name: string;
  readonly columns: readonly Column[];
  readonly records: readonly FileRecord[];
}

/** The columns of a sheet with those that its records add under names of their own. */
function titled({ columns, records }: Sheet): { key: string; title: string; amount: boolean }[] {
  const own = new Set<string>();
  for (const record of records) for (const key of Object.keys(record)) if (key.startsWith(FIELD_PREFIX)) own.add(key);
  return [
    ...columns.map(({ key, title, amount }) => ({ key, title, amount: amount ?? false })),
    ...[...own].sort().map((key) => ({ key, title: `Field: ${key.slice(FIELD_PREFIX.length)}`, amount: false })),
  ];
}

const PLAIN = /^-?\d+(\.\d+)?$/;

/** A sheet as CSV in UTF-8 with a mark, so that every spreadsheet reads its letters right. */
export function writeCsv(sheet: Sheet): Buffer {
  const columns = titled(sheet);
  // A plain number is none of the dangerous texts, also below zero.
  const safe = (cell: string, amount: boolean) => (amount && PLAIN.test(cell) ? cell : harmless(cell));
  const rows = sheet.records.map((record) => columns.map(({ key, amount }) => safe(record[key] ?? '', amount)));
  const text = Papa.unparse([columns.map(({ title }) => harmless(title)), ...rows], { newline: '\r\n' });
  return Buffer.from(`\ufeff${text}\r\n`, 'utf8');
}

/** Amounts that a number of a workbook holds exactly; longer ones stay text, so that coming back changes nothing. */
const EXACT = /^-?\d{1,9}(\.\d{1,6})?$/;

/** A sheet as XLSX. Text stays text: its cells are marked so that nothing in them is taken for a formula or a date. */
export async function writeXlsx(sheet: Sheet): Promise<Buffer> {
  const { default: library } = await import('exceljs');
  const workbook = new library.Workbook();
  const page = workbook.addWorksheet(sheet.name, { views: [{ state: 'frozen', ySplit: 1 }] });
  const columns = titled(sheet);
  page.columns = columns.map(({ key, title, amount }) => ({
    key,
    header: title,
    width: Math.max(10, Math.min(40, title.length + 4)),
    style: { numFmt: amount ? 'General' : '@' },
  }));
  page.getRow(1).font = { bold: true };
  for (const record of sheet.records)
    page.addRow(
      columns.map(({ key, amount }) => {
        const cell = record[key] ?? '';
        if (cell === '') return null;
        return amount && EXACT.test(cell) ? Number(cell) : cell;
      }),
    );
  return Buffer.from(await workbook.xlsx.writeBuffer());
}
