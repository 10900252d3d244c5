import type { Item } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import type { ElementString } from '@yosegi/core/scan';
import { readSerials, writeSerials } from '@yosegi/core/tracking';
import { z } from 'zod';

/** Lots and serials of a line as a person types them. */
export const TypedTrack = z.object({
  lot: z.string(),
  /** ISO day or empty. */
  bestBefore: z.string(),
  /** One or many, and ranges: "SC-0101..0104, SC-0110". */
  serials: z.string(),
  /** What is written down of the lot, by name; left out while nothing is. */
  attributes: z.record(z.string(), z.string()).exactOptional(),
});
export type TypedTrack = Readonly<z.infer<typeof TypedTrack>>;
export const NOTHING_TYPED: TypedTrack = { lot: '', bestBefore: '', serials: '' };

export type TrackedItem = Pick<Item, 'id' | 'name' | 'tracking'>;

interface Read {
  readonly lot: string | null;
  readonly bestBefore: string | null;
  readonly serials: string[];
  /** What is wrong with the serials, in words. */
  readonly error?: string;
}

/** What the typed text says, as the wire takes it. */
export function readTrack(item: TrackedItem, typed: TypedTrack): Read {
  const base = {
    lot: item.tracking === 'lot' ? typed.lot.trim() || null : null,
    bestBefore: item.tracking === 'lot' ? typed.bestBefore || null : null,
    serials: [],
  };
  if (item.tracking !== 'serial') return base;
  try {
    return { ...base, serials: readSerials(typed.serials) };
  } catch (error) {
    return { ...base, error: entryFault(error, 'Enter serial numbers, like SC-1 SC-2.') };
  }
}

/** The named lot or serials alone, for a command. */
export function namedOf(item: TrackedItem, typed: TypedTrack) {
  const { lot, serials } = readTrack(item, typed);
  return { lot, serials };
}
export function namedInOf(item: TrackedItem, typed: TypedTrack) {
  const { lot, serials, bestBefore } = readTrack(item, typed);
  const { attributes } = typed;
  return { lot, serials, bestBefore, ...(lot === null || attributes === undefined ? {} : { attributes }) };
}

/** How many units typed or scanned serials name: a range that scans one after the other have become counts each of its own. */
export const countOf = (item: TrackedItem, typed: TypedTrack) => readTrack(item, typed).serials.length;

/** What a scanned label says of lot and serial, added to what is typed already. */
export function withScan(typed: TypedTrack, scan: ElementString): TypedTrack {
  const before = typed.serials.trim();
  return {
    ...typed,
    lot: scan.lot ?? typed.lot,
    bestBefore: scan.expires ?? typed.bestBefore,
    serials: scan.serial ? addSerial(before, scan.serial) : typed.serials,
  };
}

/** The serials of a text, none while it can't be read. */
export function serialsTyped(text: string): string[] {
  try {
    return readSerials(text);
  } catch {
    return [];
  }
}

/** A text of serials with one more, or without it when it is there already. */
export function toggleSerial(text: string, code: string): string {
  try {
    const codes = readSerials(text);
    const rest = codes.filter((one) => one.toLowerCase() !== code.toLowerCase());
    return writeSerials(rest.length < codes.length ? rest : [...codes, code]);
  } catch {
    return addSerial(text, code);
  }
}

function addSerial(text: string, code: string): string {
  try {
    const codes = readSerials(text);
    return codes.some((one) => one.toLowerCase() === code.toLowerCase()) ? text : writeSerials([...codes, code]);
  } catch {
    return `${text} ${code}`.trim();
  }
}
