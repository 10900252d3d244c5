import { utcDay } from '@yosegi/core/days';
import { Refusal } from '@yosegi/core/refusal';
import type exceljs from 'exceljs';
import type { CellFault, Table } from './cells.ts';
import { measureZip } from './zip.ts';

/** Parts of a workbook that say nothing about its cells. */
const IGNORED = [
  'dataValidations',
  'conditionalFormatting',
  'drawing',
  'hyperlinks',
  'pageSetup',
  'printOptions',
  // Merged ranges would be spread out cell by cell; what they say stands in their first cell.
  'mergeCells',
  'autoFilter',
  'cols',
];
/** Wider than any table of ours. */
const MOST_COLUMNS = 500;

/**
 * The first sheet of a workbook that has rows. Formulas give the value that was saved with them.
 * @throws Refusal `file-too-much`, `file-broken`, `file-not-table`
 */
export async function readXlsx(content: Buffer): Promise<Table> {
  const names = await measureZip(content);
  if (!names.includes('xl/workbook.xml')) throw new Refusal('file-not-table', { what: 'a ZIP archive' });
  // Loaded when it is needed: it takes longer to load than most text files take to read.
  const { default: library } = await import('exceljs');
  const workbook = new library.Workbook();
  try {
    await workbook.xlsx.load(content as unknown as ArrayBuffer, { ignoreNodes: IGNORED });
  } catch {
    throw new Refusal('file-broken');
  }
  const sheet = workbook.worksheets.find((one) => one.actualRowCount > 0);
  if (!sheet) throw new Refusal('file-empty');
  const rows: Table['rows'] = [];
  sheet.eachRow((row, number) => {
    if (row.cellCount > MOST_COLUMNS) throw new Refusal('file-too-many-cells');
    const faults: CellFault[] = [];
    const cells: string[] = [];
    row.eachCell({ includeEmpty: true }, (cell, column) => {
      const read = textOf(cell.value);
      cells[column - 1] = read.text;
      if (read.code) faults.push({ at: column - 1, code: read.code, facts: { cell: cell.address } });
    });
    rows.push({ row: number, cells: Array.from(cells, (cell) => cell ?? ''), faults });
  });
  return { format: `XLSX, sheet ${sheet.name}`, rows };
}

type Read = { readonly text: string; readonly code?: 'cell-error' | 'formula-without-value' };

function textOf(value: exceljs.CellValue): Read {
  if (value === null || value === undefined) return { text: '' };
  if (typeof value === 'number') return { text: numberText(value) };
  if (typeof value === 'boolean') return { text: value ? 'yes' : 'no' };
  if (typeof value === 'string') return { text: value };
  if (value instanceof Date) return { text: utcDay(value) };
  if ('richText' in value) return { text: value.richText.map((run) => run.text).join('') };
  if ('error' in value) return { text: value.error, code: 'cell-error' };
  if ('formula' in value || 'sharedFormula' in value) {
    if (value.result === undefined || value.result === null) return { text: '', code: 'formula-without-value' };
    return textOf(value.result as exceljs.CellValue);
  }
  if ('text' in value) return textOf(value.text as exceljs.CellValue);
  return { text: String(value) };
}

/** What a spreadsheet shows: fifteen digits, so that 0.1 + 0.2 is 0.3, and never an exponent. */
const FIFTEEN = new Intl.NumberFormat('en', { maximumSignificantDigits: 15, useGrouping: false });
const numberText = (value: number) =>
  Number.isFinite(value) ? FIFTEEN.format(value).replace('−', '-') : String(value);
