import type { ApartPlan, Posted } from '@yosegi/contract';
import { balanceShares } from '@yosegi/core/definitions';
import { bringInAt, Posting } from '@yosegi/core/ledger';
import { add, countedIn, type Money, minus, ONE, type Percent, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { takeApart } from '@yosegi/core/takeapart';
import { readSerials } from '@yosegi/core/tracking';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { revisionRow } from '../definitions/index.ts';
import { itemRow, toMeasures } from '../items/index.ts';
import { balancesOf, byBin, mayGoBelow, readStock, withNames, writeDocument } from '../ledger/index.ts';
import { requireShelf } from '../places/index.ts';
import { piecesById, returnRecord, spotsOf, worthOf, writeOutcomes } from '../returns/index.ts';
import { heapsIn, heapsOut } from '../tracking/index.ts';
import { expectedOf, linesBack } from './back.ts';
import { refuseOtherRevision, revisionOfUnits } from './made-by.sql.ts';
import { finishesOf, ownValueOf, refuseElsewhere, wentInto } from './sql.ts';

/** What taking an item apart by its revision in use would bring back. */
export async function readApartPlan(db: Reader, itemId: number, unit: QueryOf<'apartPlan'>): Promise<ApartPlan> {
  const item = found(await itemRow(db, itemId));
  const codes = unit.serials ? readSerials(unit.serials, 'serials') : [];
  const units = { lot: unit.lot ?? null, serials: codes, buildId: unit.buildId ?? null };
  const { revision, build, madeBy } = await revisionOfUnits(db, item, units);
  const back = await linesBack(db, itemId, revision, units, build?.buildId ?? null);
  const shelves = (await balancesOf(db, [itemId])).filter((row) => row.holder_id === null);
  const wentIn = await wentInto(db, itemId, unit.lot ?? null, codes);
  return {
    itemId,
    definitionId: revision.definition_id,
    revisionId: revision.id,
    revision: revision.number,
    build: build?.build ?? null,
    madeBy: madeBy.map(({ revisionId: _, ...made }) => made),
    asBuilt: back.built && {
      builds: [...back.built.builds],
      never: back.built.never.map(({ text, cost }) => ({ text, cost: decimal(cost) })),
    },
    decimals: item.decimals,
    unit: item.unit,
    tracking: item.tracking,
    measures: toMeasures(item.measures),
    stockQuantity: decimal(item.quantity),
    stockValue: decimal(item.value),
    ownValue: await ownValueOf(db, itemId, codes),
    piece: unit.pieceId === undefined ? null : await pieceOf(db, unit.pieceId, itemId),
    bins: byBin(shelves),
    lines: back.lines.map(({ lineId, part, share, basis, quantity, output }) => ({
      lineId,
      itemId: part.id,
      code: part.code,
      name: part.name,
      unit: part.unit,
      decimals: part.decimals,
      measures: toMeasures(part.measures),
      tracking: part.tracking,
      wentIn: wentIn.get(part.id) ?? [],
      share: decimal(share),
      basis,
      quantity: decimal(quantity),
      output: decimal(output),
      homeBinId: part.home_bin_id,
    })),
  };
}

/** What came back of an item and waits. @throws Refusal `not-found` */
async function pieceOf(db: Reader, pieceId: number, itemId: number): Promise<ApartPlan['piece']> {
  const piece = (await piecesById(db, [pieceId])).find(({ item_id }) => item_id === itemId);
  const { return_id, quantity, settled } = found(piece);
  const { number } = found(await returnRecord(db, return_id));
  const left = minus(quantity, settled);
  const spot = (await spotsOf(db, return_id))(found(piece));
  const bin = spot ? await db.models.bin.findByPk(spot.binId) : null;
  const value = left > 0 ? worthOf(found(piece), settled, left, 'quantity') : ZERO;
  return {
    id: pieceId,
    returnId: return_id,
    number,
    bin: bin?.code ?? '',
    waiting: decimal(left),
    value: decimal(value),
  };
}

/**
 * Takes units apart, from stock or as they came back: their value is split exactly over the good parts and what is written
 * off.
 * @throws Refusal `unknown-item`, `unknown-choice`, `unknown-line`, `shares-over`, `shares-under`, `more-than-waiting`, and
 * what stock, lots and serials are refused for
 */
export async function takeUnitsApart(doing: Doing, asked: BodyOf<'takeApart'>): Promise<Posted> {
  const { tx } = doing;
  const piece = asked.pieceId === null ? null : found((await piecesById(tx, [asked.pieceId]))[0]);
  const input = piece ? { ...asked, lot: piece.lot, serials: piece.serial === null ? [] : [piece.serial] } : asked;
  if (piece && piece.item_id !== input.itemId) throw new Refusal('unknown-choice', {}, 'pieceId');
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  const revision = await revisionRow(tx, input.revisionId);
  if (!revision || revision.item_id !== item.id || revision.state === 'draft')
    throw new Refusal('unknown-choice', {}, 'revisionId');
  const build = await refuseOtherRevision(tx, item, input, revision.id);
  if (!piece) await requireShelf(tx, input.binId, 'binId');
  const quantity = countedIn(input.quantity, item.decimals, 'quantity');
  const back = (await linesBack(tx, item.id, revision, input, build?.buildId ?? null)).lines;
  const returned = [];
  for (const [index, typed] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const known = back.find(({ lineId }) => lineId === typed.lineId);
    if (!known) throw new Refusal('unknown-line', {}, at('lineId'));
    await requireShelf(tx, typed.binId, at('binId'));
    returned.push({
      ...known,
      named: typed,
      at,
      binId: typed.binId,
      good: countedIn(typed.good, known.part.decimals, at('good')),
      damaged: countedIn(typed.damaged, known.part.decimals, at('damaged')),
      expected: expectedOf(known, quantity),
    });
  }
  if (new Set(returned.map(({ lineId }) => lineId)).size !== back.length)
    throw new Refusal('unknown-line', {}, 'lines');
  const stock = await readStock(tx, [item.id, ...returned.map(({ part }) => part.id)]);
  const posting = new Posting(stock, { mayGoBelow: mayGoBelow(doing, input.override) });
  const own = (name: string) => name;
  const worth = piece ? worthOf(piece, piece.settled, quantity, 'quantity') : null;
  let value: Money;
  if (piece && worth !== null)
    value = posting.takeOutAt(found((await spotsOf(tx, piece.return_id))(piece)), quantity, worth);
  else {
    const taking = { toUse: false, overridden: input.override !== undefined };
    const taken = await heapsOut(tx, posting, item, input.binId, quantity, input, own, taking);
    value = add(ZERO, ...taken.map((one) => posting.takeOut(one.spot, one.quantity)));
  }
  const shares = sharesFor(returned, input.writeOff);
  const weighed = returned.map((line, index) => ({ ...line, share: shares[index] ?? line.share }));
  // What never comes back is a line of its own of which nothing is good.
  const never = { share: input.writeOff, expected: ONE, good: ZERO, damaged: ZERO };
  const split = takeApart(value, input.writeOff > 0 ? [...weighed, never] : weighed, input.leftover);
  const wentIn = await finishesOf(tx, item.id, input.lot, input.serials);
  for (const [index, line] of returned.entries()) {
    const partWorth = split.lines[index]?.value ?? ZERO;
    if (line.good === 0) continue;
    // A part that is tracked comes back under its own lot or serial.
    const spots = await heapsIn(doing, line.part, line.binId, line.good, line.named, line.at, { mayReturn: true });
    await refuseElsewhere(
      tx,
      item,
      wentIn,
      spots.flatMap(({ spot }) => spot.serialId ?? []),
      line.at('serials'),
    );
    bringInAt(posting, spots, partWorth);
  }
  posting.addValue('written-off', -split.writtenOff as Money, { itemId: item.id });
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(
    doing,
    {
      kind: 'take-apart',
      remark: input.remark,
      override: input.override,
      for: piece ? { kind: 'return', id: piece.return_id } : null,
    },
    posted,
  );
  await tx.insert('take_apart', {
    document_id: document.id,
    item_id: item.id,
    revision_id: revision.id,
    build_id: input.buildId,
    quantity,
    leftover: input.leftover,
    piece_id: input.pieceId,
  });
  if (piece && worth !== null) {
    const outcome = { outcome: 'apart', bin_id: null, build_id: null, note: '' } as const;
    await writeOutcomes(doing, document.id, [
      { position: 0, piece_id: piece.piece_id, quantity, value: worth, ...outcome },
    ]);
  }
  await tx.insertMany(
    'take_apart_line',
    weighed.map((line, position) => ({
      document_id: document.id,
      position,
      item_id: line.part.id,
      bin_id: line.binId,
      share: line.share,
      expected: line.expected,
      good: line.good,
      damaged: line.damaged,
      missing: split.lines[position]?.missing ?? ZERO,
      value: split.lines[position]?.value ?? ZERO,
      written_off: split.lines[position]?.writtenOff ?? ZERO,
    })),
  );
  return document;
}

/**
 * Shares for this once, exactly a hundred together with what is written off: those that were typed stand, the others part
 * what is left as they do without.
 * @throws Refusal `shares-over`, `shares-under`
 */
function sharesFor(
  lines: readonly { readonly share: Percent; readonly named: { readonly share: Percent | null } }[],
  writeOff: Percent,
): Percent[] {
  const typed = lines.findIndex(({ named }) => named.share !== null);
  if (typed < 0 && writeOff === 0) return lines.map(({ share }) => share);
  const own = lines.map(({ share, named }) => ({ typed: named.share, cost: share, comesBack: true }));
  try {
    return balanceShares([...own, { typed: writeOff, cost: 0, comesBack: true }]).slice(0, lines.length);
  } catch (error) {
    throw error instanceof Refusal ? error.at(typed < 0 ? 'writeOff' : `lines.${typed}.share`) : error;
  }
}
