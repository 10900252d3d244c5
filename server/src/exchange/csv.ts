import { MOST_ROWS, readCell } from '@yosegi/core/exchange';
import { Refusal } from '@yosegi/core/refusal';
import Papa from 'papaparse';
import type { Table } from './cells.ts';

const DELIMITERS = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' } as const;

/**
 * A text file of rows: its encoding and its delimiter are found out, quotes and line breaks in cells are kept.
 * @throws Refusal `file-too-many-rows`, `file-too-much`, `file-binary`, `file-quotes` (with the `row`)
 */
export function readCsv(content: Buffer): Table {
  refuseTooMany(content);
  const { text, encoding } = decode(content);
  const told = /^sep=(.)\r?\n/.exec(text);
  const body = told ? text.slice(told[0].length) : text;
  const { data, errors, meta } = Papa.parse<string[]>(body, {
    delimiter: told?.[1] ?? '',
    delimitersToGuess: Object.keys(DELIMITERS),
  });
  const quotes = errors.find((error) => error.type === 'Quotes');
  if (quotes) throw new Refusal('file-quotes', { row: (quotes.row ?? 0) + 1 });
  const delimiter = DELIMITERS[meta.delimiter as keyof typeof DELIMITERS] ?? `“${meta.delimiter}”`;
  return {
    format: `CSV, ${delimiter}, ${encoding}`,
    rows: data.map((cells, index) => ({ row: index + 1, cells: cells.map(readCell), faults: [] })),
  };
}

/** Cells that are more than a hundred thousand rows of a catalogue have. */
const MOST_CELLS = 4_000_000;
const LINE_ENDS = [10, 13];
const DELIMITER_BYTES = [44, 59, 9, 124];

/** Counts line ends and delimiters before anything is made of them. */
function refuseTooMany(content: Buffer): void {
  const counts = new Uint32Array(256);
  for (const byte of content) counts[byte] = (counts[byte] ?? 0) + 1;
  const most = (bytes: readonly number[]) => Math.max(...bytes.map((byte) => counts[byte] ?? 0));
  const rows = most(LINE_ENDS);
  // Cells may hold line ends, and lines may be empty: only what is far beyond is refused before it is read.
  if (rows > 5 * MOST_ROWS) throw new Refusal('file-too-many-rows', { rows, most: MOST_ROWS });
  if (most(DELIMITER_BYTES) > MOST_CELLS) throw new Refusal('file-too-many-cells');
}

/** Text of a file in UTF-8, UTF-16 or, when it is neither, Windows-1252. */
function decode(content: Buffer): { text: string; encoding: string } {
  const [first, second] = content;
  if (first === 0xff && second === 0xfe)
    return { text: new TextDecoder('utf-16le').decode(content), encoding: 'UTF-16' };
  if (first === 0xfe && second === 0xff)
    return { text: new TextDecoder('utf-16be').decode(content), encoding: 'UTF-16' };
  const zeros = zeroBytes(content);
  if (zeros === 'odd') return { text: new TextDecoder('utf-16le').decode(content), encoding: 'UTF-16' };
  if (zeros === 'even') return { text: new TextDecoder('utf-16be').decode(content), encoding: 'UTF-16' };
  if (zeros === 'mixed') throw new Refusal('file-binary');
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(content), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(content), encoding: 'Windows-1252' };
  }
}

/** Where zero bytes stand: text in UTF-16 without a mark has them at every other place, other text has none. */
function zeroBytes(content: Buffer): 'none' | 'odd' | 'even' | 'mixed' {
  const sample = content.subarray(0, 4096);
  let [odd, even] = [0, 0];
  for (const [index, byte] of sample.entries()) {
    if (byte !== 0) continue;
    if (index % 2 === 0) even += 1;
    else odd += 1;
  }
  if (odd === 0 && even === 0) return 'none';
  if (even === 0 && odd > sample.length / 8) return 'odd';
  return odd === 0 && even > sample.length / 8 ? 'even' : 'mixed';
}
