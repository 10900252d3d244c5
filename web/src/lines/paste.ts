import { type Column, guessDecimalSign, guessMatching, readAmount } from '@yosegi/core/exchange';
import Papa from 'papaparse';

/** A row of a spreadsheet as it was pasted. */
export interface SheetRow {
  /** What may name its item, the likeliest first. */
  readonly texts: readonly string[];
  /** As it would be typed: "450 g". */
  readonly quantity: string;
  /** Of one, and the percent that is lost, as plain decimals; empty where the rows have none. */
  readonly price: string;
  readonly waste: string;
}

const columns: readonly Column[] = [
  {
    key: 'code',
    title: 'Code',
    aliases: ['component', 'part', 'part number', 'item', 'item code', 'sku', 'article', 'part no'],
  },
  { key: 'name', title: 'Name', aliases: ['description', 'component name', 'part name', 'item name', 'text'] },
  {
    key: 'quantity',
    title: 'Quantity',
    aliases: ['qty', 'amount', 'quantity per', 'qty per', 'per', 'usage', 'count'],
  },
  { key: 'unit', title: 'Unit', aliases: ['uom', 'unit of measure'] },
  {
    key: 'price',
    title: 'Price',
    aliases: ['unit price', 'cost', 'unit cost', 'net price', 'price each', 'each price'],
  },
  { key: 'waste', title: 'Waste', aliases: ['waste %', 'scrap', 'scrap %', 'loss', 'loss %'] },
];
/** Words for single pieces that need no unit. */
const PIECES = new Set(['each', 'ea', 'pc', 'pcs', 'piece', 'pieces', 'st', 'unit', 'units', 'x', 'nr', 'no']);

/** Whether a clipboard holds rows of a spreadsheet rather than a word. */
export const holdsRows = (text: string) => /\S[\t\r\n]+\S/.test(text.trim());

/**
 * Reads pasted rows: code or name, quantity, unit, in any order and with or without titles. Every row that is not empty
 * comes out, also those nothing can be made of.
 */
export function readPaste(text: string): SheetRow[] {
  const delimiter = text.includes('\t') ? '\t' : text.includes(';') ? ';' : '\t';
  const table = Papa.parse<string[]>(text.trimEnd(), { delimiter, quoteChar: '"' }).data.map((row) =>
    row.map((cell) => cell.trim()),
  );
  const rows = table.filter((row) => row.some((cell) => cell !== ''));
  const [first = []] = rows;
  const titled = guessMatching(first, columns);
  const hasTitles = titled.filter((key) => key !== null).length > 1 || (first.length === 1 && titled[0] !== null);
  const body = hasTitles ? rows.slice(1) : rows;
  const places = hasTitles ? titled : guessPlaces(body);
  const figures = ['quantity', 'price', 'waste'].map((key) => places.indexOf(key)).filter((at) => at >= 0);
  const sign = guessDecimalSign(body.flatMap((row) => figures.map((at) => plain(row[at] ?? ''))));
  return body.map((row) => {
    const cell = (key: string) => row[places.indexOf(key)] ?? '';
    const texts = [cell('code'), cell('name')].filter((one) => one !== '');
    return {
      texts: texts.length > 0 ? texts : [row.filter((one) => one !== '').join(' ')],
      quantity: quantityOf(cell('quantity'), cell('unit'), sign),
      price: figureOf(cell('price'), sign),
      waste: figureOf(cell('waste'), sign),
    };
  });
}

/** A figure without the unit, currency or percent sign around it. */
const plain = (cell: string) => cell.replace(/^[^\d-]+|[^\d]+$/gu, '');

/** As a plain decimal; as it is where it can't be read, so that whoever types sees it. */
function figureOf(cell: string, sign: 'point' | 'comma'): string {
  if (cell === '') return '';
  try {
    return readAmount(plain(cell), sign);
  } catch {
    return cell;
  }
}

const isAmount = (cell: string) => /^[\d.,\s]*\d[\d.,]*\s*\p{L}{0,12}$/u.test(cell);

/** Without titles: the first column of amounts is the quantity, the next the price, what follows the quantity the unit, the others name the item. */
function guessPlaces(rows: readonly (readonly string[])[]): (string | null)[] {
  const width = Math.max(0, ...rows.map((row) => row.length));
  const amounts = Array.from({ length: width }, (_, at) => rows.filter((row) => isAmount(row[at] ?? '')).length);
  // A column of article numbers is full of digits too; only beside another column can it be the quantity.
  const candidates = amounts.flatMap((count, at) => (count >= rows.length / 2 && width > 1 ? [at] : []));
  const quantity = candidates.find((at) => at > 0) ?? candidates[0] ?? -1;
  const price = candidates.find((at) => quantity >= 0 && at > quantity) ?? -1;
  const texts = Array.from({ length: width }, (_, at) => at).filter((at) => at !== quantity && at !== price);
  const unit = texts.find(
    (at) => at > quantity && quantity >= 0 && rows.every((row) => /^\p{L}{0,8}$/u.test(row[at] ?? '')),
  );
  const naming = texts.filter((at) => at !== unit);
  return Array.from({ length: width }, (_, at) => {
    if (at === quantity) return 'quantity';
    if (at === price) return 'price';
    if (at === unit) return 'unit';
    return at === naming[0] ? 'code' : at === naming[1] ? 'name' : null;
  });
}

function quantityOf(cell: string, unit: string, sign: 'point' | 'comma'): string {
  if (cell === '') return '1';
  const measure = PIECES.has(unit.toLowerCase()) ? '' : unit;
  const [, amount = cell, own = ''] = /^([\d.,\s]*\d)\s*(\p{L}.*)?$/u.exec(cell) ?? [];
  try {
    return `${readAmount(amount, sign)} ${measure || own}`.trim();
  } catch {
    return `${cell} ${measure}`.trim();
  }
}
