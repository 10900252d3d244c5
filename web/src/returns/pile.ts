import type { ReturnDetail, ReturnLine, ReturnPiece } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { groupBy } from '@yosegi/core/lists';
import {
  add,
  formatDecimal,
  handOut,
  type Money,
  mulDiv,
  type Quantity,
  readExact,
  SCALE,
  stepOf,
  ZERO,
} from '@yosegi/core/number';
import { isWrittenOff, type SettledBy, settledBy } from '@yosegi/core/returns';
import { z } from 'zod';
import { readTyped } from '../ui/measuring.ts';

/** What somebody typed about one thing: how many of it become what. */
export const TypedPiece = z.object({
  amounts: z.partialRecord(z.enum(settledBy), z.string()),
  binId: z.string(),
  note: z.string(),
});
export type TypedPiece = Readonly<z.infer<typeof TypedPiece>>;
export const NOTHING_DECIDED: TypedPiece = { amounts: {}, binId: '', note: '' };
export type TypedPile = ReadonlyMap<number, TypedPiece>;

/** A decision as it is sent. */
export interface PileDeed {
  readonly pieceId: number;
  readonly quantity: string;
  readonly outcome: SettledBy;
  readonly binId: number | null;
  readonly note: string;
}

export interface Reckoned {
  readonly deeds: readonly PileDeed[];
  /** What is wrong, by thing. */
  readonly faults: ReadonlyMap<number, string>;
  /** What goes back to shelves, is lost, and goes back to customers, at what it came back with. */
  readonly shelved: Money;
  readonly lost: Money;
  readonly sentBack: Money;
}

/** What is decided of a pile, and what it comes to before it is posted. */
export function reckonPile(returns: readonly ReturnDetail[], typed: TypedPile): Reckoned {
  const deeds: PileDeed[] = [];
  const faults = new Map<number, string>();
  const sums: Record<'shelved' | 'lost' | 'sentBack', Money> = { shelved: ZERO, lost: ZERO, sentBack: ZERO };
  for (const piece of piecesOf(returns)) {
    const own = typed.get(piece.id);
    if (!own) continue;
    try {
      const amounts = readAmounts(piece, own);
      for (const [outcome, quantity] of amounts) {
        const { binId, note } = own;
        const where = outcome === 'shelf' && binId !== '' ? Number(binId) : null;
        deeds.push({ pieceId: piece.id, quantity: formatDecimal(quantity), outcome, binId: where, note });
        const worth = partOf(piece, quantity);
        const kind = outcome === 'shelf' ? 'shelved' : isWrittenOff(outcome) ? 'lost' : 'sentBack';
        sums[kind] = add(sums[kind], worth);
      }
    } catch (error) {
      faults.set(piece.id, wordsOf(error) ?? (error as Error).message);
    }
  }
  return { deeds, faults, ...sums };
}

export const piecesOf = (returns: readonly ReturnDetail[]): ReturnPiece[] =>
  returns.flatMap(({ lines }) => lines.flatMap(({ pieces }) => pieces)).filter(isWaiting);

export const isWaiting = ({ waiting }: Pick<ReturnPiece, 'waiting'>) => readExact(waiting) > 0;

function readAmounts(piece: ReturnPiece, { amounts }: TypedPiece): [SettledBy, Quantity][] {
  const read = Object.entries(amounts).flatMap(([outcome, text]): [SettledBy, Quantity][] => {
    if (text.trim() === '') return [];
    const quantity = readTyped(text, { ...piece, measures: [] });
    if (quantity < 0) throw new Error('Enter a quantity above zero.');
    return quantity === 0 ? [] : [[outcome as SettledBy, quantity]];
  });
  const all = add(ZERO, ...read.map(([, quantity]) => quantity));
  if (all > readExact(piece.waiting)) throw new Error(`Only ${piece.waiting} left to decide.`);
  return read;
}

/** What so much of what waits is worth, near enough to be shown; the posting is exact. */
const partOf = (piece: ReturnPiece, quantity: Quantity): Money =>
  mulDiv(readExact(piece.waitingValue), quantity, readExact(piece.waiting), 'nearest') as Money;

type Kits = Pick<ReturnLine, 'quantity' | 'pieces'>;

/** How many whole kits of a line can still go back to their customer: of no part has more been decided. */
export function kitsThatCanGo(line: Kits): number {
  const all = readExact(line.quantity) / SCALE;
  const most = partsOfKit(line).map(({ each, waits }) => (each === null ? null : Math.floor(waits / each)));
  // Parts that are not as many for each kit go back with all of them or not at all.
  if (most.includes(null)) return line.pieces.every((piece) => piece.waiting === piece.quantity) ? all : 0;
  return Math.min(all, ...most.map((count) => count ?? 0));
}

/** What of each thing goes back with so many kits, by its id. */
export function goingWith(line: Kits, kits: number): ReadonlyMap<number, string> {
  const going = new Map<number, string>();
  for (const { each, waits, pieces } of partsOfKit(line)) {
    const amounts = handOut((each === null ? waits : each * kits) as Quantity, pieces.map(waitingOf));
    for (const [index, amount] of amounts.entries()) {
      const piece = pieces[index];
      if (piece && amount > 0) going.set(piece.id, formatDecimal(amount));
    }
  }
  return going;
}

const waitingOf = ({ waiting }: ReturnPiece) => readExact(waiting) as Quantity;

function partsOfKit({ quantity, pieces }: Kits) {
  const kits = readExact(quantity) / SCALE;
  return [...groupBy(pieces, ({ partId }) => partId).values()].map((own) => {
    const all = add(ZERO, ...own.map((piece) => readExact(piece.quantity) as Quantity));
    const each = all / kits;
    const isCounted = Number.isInteger(each / stepOf(own[0]?.decimals ?? 0));
    return { each: isCounted ? each : null, waits: add(ZERO, ...own.map(waitingOf)), pieces: own };
  });
}
