import { checkDigit } from '../items/index.ts';
import { Refusal } from '../refusal/index.ts';

/** What a GS1 element string says of a piece, as far as we use it. */
export interface ElementString {
  /** 14 digits: application identifier (01). */
  readonly gtin?: string;
  /** Batch or lot: (10). */
  readonly lot?: string;
  /** Expiration date as an ISO day: (17). */
  readonly expires?: string;
  /** Serial number: (21). */
  readonly serial?: string;
}

/** Ends a value of variable length where another follows: FNC1, which scanners send as group separator. */
const SEPARATOR = '\u001d';
/** Symbology identifiers that scanners put before GS1 data: Code 128, DataMatrix, QR. */
const PREFIX = /^\](C1|d2|Q3)/;
/** GS1 General Specifications, character set 82. */
const VALUE = /^[!"%-?A-Z_a-z]{1,20}$/;

/** Whether a scan is GS1 data rather than a plain code: by its prefix, its separator, or its parentheses. */
export const looksLikeGs1 = (scan: string) =>
  PREFIX.test(scan) || scan.includes(SEPARATOR) || /^\(\d{2,4}\)/.test(scan) || /^01\d{14}(10|17|21)/.test(scan);

/**
 * Reads a GS1 element string as scanned ("]d2010400…17271130␝10AB") or as printed ("(01)0400…(17)271130(10)AB").
 * Identifiers that are not ours are refused, because their length is unknown and what follows could be misread.
 * @param today ISO day; it decides the century of a two-digit year (GS1 General Specifications, section 7.12)
 * @throws Refusal `gs1-unreadable` (with what could not be read `at`), `barcode-check-digit`
 */
export function readGs1(scan: string, today: string): ElementString {
  const found: Record<string, string> = {};
  for (const [identifier, value] of elements(scan)) {
    if (found[identifier] !== undefined) throw new Refusal('gs1-unreadable', { at: `(${identifier}) twice` });
    found[identifier] = value;
  }
  const gtin = found['01'];
  if (gtin !== undefined) {
    const right = checkDigit(gtin.slice(0, -1));
    if (gtin.at(-1) !== right) throw new Refusal('barcode-check-digit', { typed: gtin, right });
  }
  return {
    ...(gtin === undefined ? {} : { gtin }),
    ...(found['10'] === undefined ? {} : { lot: found['10'] }),
    ...(found['17'] === undefined ? {} : { expires: dayOf(found['17'], today) }),
    ...(found['21'] === undefined ? {} : { serial: found['21'] }),
  };
}

function* elements(scan: string): Generator<[identifier: string, value: string]> {
  if (scan.startsWith('(')) {
    for (const part of scan.split(/(?=\(\d{2,4}\))/)) {
      const [, identifier = '', value = ''] = /^\((\d{2,4})\)(.*)$/s.exec(part) ?? [];
      yield [identifier, checked(identifier, value, part)];
    }
    return;
  }
  let rest = scan.replace(PREFIX, '');
  if (rest.startsWith(SEPARATOR)) rest = rest.slice(1);
  while (rest !== '') {
    const identifier = rest.slice(0, 2);
    const fixed = { '01': 14, '17': 6 }[identifier];
    const end = fixed ?? (rest.indexOf(SEPARATOR, 2) < 0 ? rest.length - 2 : rest.indexOf(SEPARATOR, 2) - 2);
    yield [identifier, checked(identifier, rest.slice(2, 2 + end), rest)];
    rest = rest.slice(2 + end);
    if (rest.startsWith(SEPARATOR)) rest = rest.slice(1);
  }
}

function checked(identifier: string, value: string, at: string): string {
  const shape = { '01': /^\d{14}$/, '17': /^\d{6}$/, '10': VALUE, '21': VALUE }[identifier];
  if (!shape?.test(value)) throw new Refusal('gs1-unreadable', { at: at.slice(0, 30).replaceAll(SEPARATOR, '␝') });
  return value;
}

/** YYMMDD as an ISO day: the century that lies nearest, and the month's last day where the day is 00. */
function dayOf(value: string, today: string): string {
  const [year, month, day] = [value.slice(0, 2), value.slice(2, 4), value.slice(4, 6)].map(Number) as [
    number,
    number,
    number,
  ];
  const thisYear = Number(today.slice(0, 4));
  const century = Math.floor(thisYear / 100) * 100;
  const distance = year - (thisYear % 100);
  const full = century + year + (distance >= 51 ? -100 : distance <= -50 ? 100 : 0);
  const last = new Date(Date.UTC(full, month, 0)).getUTCDate();
  if (month < 1 || month > 12 || day > last) throw new Refusal('gs1-unreadable', { at: `(17)${value}` });
  const two = (part: number) => String(part).padStart(2, '0');
  return `${full}-${two(month)}-${two(day || last)}`;
}

/**
 * The element string of a piece as printed, with parentheses: values of fixed length first, as the standard advises.
 * A GTIN of 8 to 13 digits is filled to 14 with zeros.
 * @throws Refusal `gs1-unreadable` when a value cannot be carried
 */
export function writeGs1({ gtin, lot, expires, serial }: ElementString): string {
  const parts: [string, string][] = [];
  if (gtin !== undefined) parts.push(['01', gtin.padStart(14, '0')]);
  if (expires !== undefined) parts.push(['17', expires.slice(2).replaceAll('-', '')]);
  if (lot !== undefined) parts.push(['10', lot]);
  if (serial !== undefined) parts.push(['21', serial]);
  return parts
    .map(([identifier, value]) => `(${identifier})${checked(identifier, value, `(${identifier})${value}`)}`)
    .join('');
}

/** The same as a scanner sends it: without parentheses, variable values ended by a separator where more follows. */
export function scanOf(piece: ElementString): string {
  const parts = [...elements(writeGs1(piece))];
  return parts
    .map(([identifier, value], index) => {
      const ended = ['10', '21'].includes(identifier) && index < parts.length - 1;
      return identifier + value + (ended ? SEPARATOR : '');
    })
    .join('');
}
