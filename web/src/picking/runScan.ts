import type { RunDetail, RunStop, Store } from '@yosegi/contract';
import type { ElementString } from '@yosegi/core/scan';
import { scannedBin, scanOfItem } from '../scan/scans.ts';

/** What a scan means while a run is walked. */
export type RunScan =
  /** The bin or the goods of the stop that is shown. */
  | { readonly is: 'bin' }
  | { readonly is: 'goods'; readonly scan: ElementString }
  /** The bench or parcel of one that the run serves. */
  | { readonly is: 'goal'; readonly goal: RunDetail['goals'][number] }
  /** Another stop of the run: whoever scans it is there. */
  | { readonly is: 'stop'; readonly key: string; readonly scan: ElementString | null }
  /** Nothing that helps: what it was, and what is wanted. */
  | { readonly is: 'wrong'; readonly was: string }
  /** Nobody here knows what it is. */
  | { readonly is: 'unknown' };

interface Around {
  readonly now: RunStop | null;
  /** All stops that are left. */
  readonly stops: readonly RunStop[];
  readonly goals: RunDetail['goals'];
  readonly stores: readonly Store[];
}

/**
 * Reads a scan in whatever order people scan: the stop that is shown comes first, then another stop it may mean, then
 * what it was that does not belong here.
 */
export function readRunScan(text: string, { now, stops, goals, stores }: Around): RunScan {
  const typed = text.trim().toLowerCase();
  const goal = goals.find(({ codes }) => codes.some((code) => code.toLowerCase() === typed));
  if (goal) return { is: 'goal', goal };
  const bin = scannedBin(stores, text);
  if (bin) {
    if (now?.binId === bin.id) return { is: 'bin' };
    const there = stops.find((stop) => stop.binId === bin.id);
    return there ? { is: 'stop', key: there.key, scan: null } : { is: 'wrong', was: `bin ${bin.code}` };
  }
  // A serial or a lot by itself means what is asked for now, where it stands there.
  const ofNow = now && (pieceOf(now, typed) ?? scanOfItem(now.item, text));
  if (ofNow) {
    const other = now && otherLot(stops, now, ofNow);
    return other ? { is: 'stop', key: other.key, scan: ofNow } : { is: 'goods', scan: ofNow };
  }
  for (const stop of stops) {
    const scan = pieceOf(stop, typed) ?? scanOfItem(stop.item, text);
    if (scan) return { is: 'stop', key: stop.key, scan };
  }
  return { is: 'unknown' };
}

/** The lot or serial of a stop that a plain code names. */
function pieceOf(stop: RunStop, typed: string): ElementString | null {
  const piece = stop.pieces.find(({ serial, lot }) => (serial ?? lot)?.toLowerCase() === typed);
  if (!piece) return null;
  return piece.serial === null ? { lot: piece.lot ?? '' } : { serial: piece.serial };
}

/** Another stop in the same bin that wants the lot which was scanned. */
const otherLot = (stops: readonly RunStop[], now: RunStop, { lot }: ElementString) =>
  lot === undefined || lot === now.lot
    ? undefined
    : stops.find((stop) => stop.item.id === now.item.id && stop.binId === now.binId && stop.lot === lot);
