import { Posting, type Spot } from '@yosegi/core/ledger';
import { groupBy } from '@yosegi/core/lists';
import { add, countedIn, type Money, minus, negated, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { isOfWholeKits, isWrittenOff, worthReturned } from '@yosegi/core/returns';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { readStock, withNames, writeDocument } from '../ledger/index.ts';
import { requireShelf, usualBin } from '../places/index.ts';
import { binsOfReturn, type PieceRecord, piecesById, piecesOfReturns, toSentBack } from './sql.ts';

type Deed = BodyOf<'settleReturns'>['deeds'][number];

interface Indexed {
  readonly deed: Deed;
  readonly piece: PieceRecord;
  readonly index: number;
}

/**
 * Decides what becomes of things that came back, in a document for each return: back to a shelf, written off at what it came
 * back with, or sent back at the same.
 * @throws Refusal `unknown-line`, `more-than-waiting`, `unknown-bin`, `kit-goes-whole`
 */
export async function settleReturns(doing: Doing, { deeds }: BodyOf<'settleReturns'>) {
  const { tx } = doing;
  const pieces = new Map(
    (
      await piecesById(
        tx,
        deeds.map(({ pieceId }) => pieceId),
      )
    ).map((one) => [one.piece_id, one]),
  );
  const known = deeds.map((deed, index): Indexed => {
    const piece = pieces.get(deed.pieceId);
    if (!piece) throw new Refusal('unknown-line', {}, `deeds.${index}.pieceId`);
    return { deed, piece, index };
  });
  await refusePartOfKit(tx, known);
  const documents: { id: number; number: string }[] = [];
  for (const [returnId, own] of groupBy(known, ({ piece }) => piece.return_id))
    documents.push(await settle(doing, returnId, own));
  return { documents };
}

/** What left as one kit goes back to the customer as one. @throws Refusal `kit-goes-whole` */
async function refusePartOfKit(db: Reader, known: readonly Indexed[]): Promise<void> {
  const away = known.filter(({ deed, piece }) => deed.outcome === 'sent-back' && piece.kits !== null);
  const all = await piecesOfReturns(db, [...new Set(away.map(({ piece }) => piece.return_id))]);
  for (const { piece, index } of away) {
    const after = all
      .filter((one) => one.return_line_id === piece.return_line_id)
      .map((one) => {
        const going = away.flatMap(({ piece: own, deed }) => (own.piece_id === one.piece_id ? deed.quantity : []));
        return { ...toSentBack(one), sentBack: add(one.sent_back, ...going) };
      });
    if (!isOfWholeKits(piece.kits ?? ZERO, after))
      throw new Refusal('kit-goes-whole', { name: piece.name }, `deeds.${index}.quantity`);
  }
}

async function settle(
  doing: Doing,
  returnId: number,
  deeds: readonly Indexed[],
): Promise<{ id: number; number: string }> {
  const { tx } = doing;
  const posting = new Posting(
    await readStock(
      tx,
      deeds.map(({ piece }) => piece.item_id),
    ),
  );
  const spots = await spotsOf(tx, returnId);
  const settled = new Map<number, Settled>();
  const outcomes: Omit<Row<'return_outcome'>, 'document_id'>[] = [];
  for (const { deed, piece, index } of deeds) {
    const at = (name: string) => `deeds.${index}.${name}`;
    const before = settled.get(piece.piece_id) ?? piece;
    const quantity = countedIn(deed.quantity, piece.decimals, at('quantity'));
    const value = worthOf(piece, quantity, at('quantity'), before);
    settled.set(piece.piece_id, {
      settled: add(before.settled, quantity),
      settled_value: add(before.settled_value, value),
    });
    const spot = found(spots(piece));
    const binId = deed.outcome === 'shelf' ? await shelfFor(doing, piece, deed.binId, at('binId')) : null;
    posting.takeOutAt(spot, quantity, value);
    if (binId !== null) posting.bringIn({ ...spot, binId, holder: null }, quantity, value);
    else {
      const kind = isWrittenOff(deed.outcome) ? 'written-off' : 'returned';
      posting.addValue(kind, negated(value), { itemId: piece.item_id });
    }
    const { outcome, note } = deed;
    outcomes.push({
      position: outcomes.length,
      piece_id: piece.piece_id,
      quantity,
      value,
      outcome,
      bin_id: binId,
      build_id: null,
      note,
    });
  }
  const posted = await withNames(tx, () => posting.close());
  const subject = { kind: 'return', id: returnId } as const;
  const document = await writeDocument(doing, { kind: 'return-settled', for: subject }, posted);
  await writeOutcomes(doing, document.id, outcomes);
  return document;
}

type Settled = Pick<PieceRecord, 'settled' | 'settled_value'>;

/**
 * What so much of a thing is worth of what it came back with.
 * @param before what has been decided of it
 * @throws Refusal `more-than-waiting`
 */
export function worthOf(piece: PieceRecord, quantity: Quantity, field: string, before: Settled = piece): Money {
  const left = minus(piece.quantity, before.settled);
  if (quantity > left) throw new Refusal('more-than-waiting', { left }, field);
  const { settled: returned, settled_value: returnedValue } = before;
  return worthReturned({ quantity: piece.quantity, value: piece.value, returned, returnedValue }, quantity, field);
}

/** Where each thing of a return stands. */
export async function spotsOf(db: Reader, returnId: number): Promise<(piece: PieceRecord) => Spot | undefined> {
  const rows = await binsOfReturn(db, returnId);
  return ({ item_id, lot_id, serial_id }) => {
    const row = rows.find((one) => one.item_id === item_id && one.lot_id === lot_id && one.serial_id === serial_id);
    if (!row) return undefined;
    const holder = { kind: 'return', id: returnId } as const;
    return { itemId: item_id, binId: row.bin_id, lotId: lot_id, serialId: serial_id, holder };
  };
}

async function shelfFor({ tx }: Doing, piece: PieceRecord, binId: number | null, field: string): Promise<number> {
  if (binId === null) return usualBin(tx, piece.home_bin_id);
  return (await requireShelf(tx, binId, field)).id;
}

/** Keeps what became of things with the posting that did it. */
export async function writeOutcomes(
  doing: Doing,
  documentId: number,
  outcomes: readonly Omit<Row<'return_outcome'>, 'document_id'>[],
): Promise<void> {
  await doing.tx.insertMany(
    'return_outcome',
    outcomes.map((outcome) => ({ document_id: documentId, ...outcome })),
  );
  doing.changed('orders', 'stock', 'items', 'builds');
}
