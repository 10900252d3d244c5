import type { ApartPlan, Posted } from '@yosegi/contract';
import { bringInAt, Posting } from '@yosegi/core/ledger';
import { add, countedIn, type Money, type Percent, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { expectedBack, takeApart } from '@yosegi/core/takeapart';
import { readSerials } from '@yosegi/core/tracking';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { balancedShares, type LineRow, type RevisionRow, revisionLines, revisionRow } from '../definitions/index.ts';
import { type ItemRow, itemRow, itemRows, toMeasures } from '../items/index.ts';
import { balancesOf, byBin, mayGoBelow, readStock, withNames, writeDocument } from '../ledger/index.ts';
import { requireShelf } from '../places/index.ts';
import { heapsIn, heapsOut } from '../tracking/index.ts';
import { refuseOtherRevision, revisionOfUnits } from './made-by.sql.ts';
import { finishesOf, ownValueOf, refuseElsewhere, wentInto } from './sql.ts';

/** What taking an item apart by its revision in use would bring back. */
export async function readApartPlan(
  db: Reader,
  itemId: number,
  unit: { lot?: string | undefined; serials?: string | undefined; buildId?: number | undefined },
): Promise<ApartPlan> {
  const item = found(await itemRow(db, itemId));
  const codes = unit.serials ? readSerials(unit.serials, 'serials') : [];
  const units = { lot: unit.lot ?? null, serials: codes, buildId: unit.buildId ?? null };
  const { revision, build, madeBy } = await revisionOfUnits(db, item, units);
  const back = await linesThatComeBack(db, revision);
  const shelves = (await balancesOf(db, [itemId])).filter((row) => row.holder_id === null);
  const wentIn = await wentInto(db, itemId, unit.lot ?? null, codes);
  return {
    itemId,
    definitionId: revision.definition_id,
    revisionId: revision.id,
    revision: revision.number,
    build: build?.build ?? null,
    madeBy: madeBy.map(({ revisionId: _, ...made }) => made),
    outputQuantity: decimal(revision.output_quantity),
    decimals: item.decimals,
    unit: item.unit,
    tracking: item.tracking,
    measures: toMeasures(item.measures),
    stockQuantity: decimal(item.quantity),
    stockValue: decimal(item.value),
    ownValue: await ownValueOf(db, itemId, codes),
    bins: byBin(shelves),
    lines: back.map(({ line, part, share }) => ({
      lineId: line.id,
      itemId: part.id,
      code: part.code,
      name: part.name,
      unit: part.unit,
      decimals: part.decimals,
      measures: toMeasures(part.measures),
      tracking: part.tracking,
      wentIn: wentIn.get(part.id) ?? [],
      share: decimal(share),
      basis: line.basis,
      quantity: decimal(line.amount),
      homeBinId: part.home_bin_id,
    })),
  };
}

interface BackLine {
  readonly line: LineRow;
  readonly part: ItemRow;
  readonly share: Percent;
}

async function linesThatComeBack(db: Reader, revision: RevisionRow): Promise<BackLine[]> {
  const lines = await revisionLines(db, revision.id);
  const parts = await itemRows(
    db,
    lines.flatMap((line) => line.item_id ?? []),
  );
  const shares = balancedShares(revision, lines, parts);
  return lines.flatMap((line, index) =>
    line.kind === 'part' && line.comes_back === 1
      ? [{ line, part: found(parts.get(line.item_id ?? 0)), share: shares[index] ?? ZERO }]
      : [],
  );
}

/** Takes units from stock apart: their value is split exactly over the good parts and what is written off. */
export async function takeUnitsApart(doing: Doing, input: BodyOf<'takeApart'>): Promise<Posted> {
  const { tx } = doing;
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  const revision = await revisionRow(tx, input.revisionId);
  if (!revision || revision.item_id !== item.id || revision.state === 'draft')
    throw new Refusal('unknown-choice', {}, 'revisionId');
  await refuseOtherRevision(tx, item, input, revision.id);
  await requireShelf(tx, input.binId, 'binId');
  const quantity = countedIn(input.quantity, item.decimals, 'quantity');
  const back = await linesThatComeBack(tx, revision);
  const returned = [];
  for (const [index, typed] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const known = back.find(({ line }) => line.id === typed.lineId);
    if (!known) throw new Refusal('unknown-line', {}, at('lineId'));
    await requireShelf(tx, typed.binId, at('binId'));
    returned.push({
      ...known,
      named: typed,
      at,
      binId: typed.binId,
      good: countedIn(typed.good, known.part.decimals, at('good')),
      damaged: countedIn(typed.damaged, known.part.decimals, at('damaged')),
      expected: expectedOf(known, quantity, revision),
    });
  }
  if (new Set(returned.map(({ line }) => line.id)).size !== back.length) throw new Refusal('unknown-line', {}, 'lines');
  const stock = await readStock(tx, [item.id, ...returned.map(({ part }) => part.id)]);
  const posting = new Posting(stock, { mayGoBelow: mayGoBelow(doing, input.override) });
  const own = (name: string) => name;
  const taking = { toUse: false, overridden: input.override !== undefined };
  const taken = await heapsOut(tx, posting, item, input.binId, quantity, input, own, taking);
  const value = add(ZERO, ...taken.map((one) => posting.takeOut(one.spot, one.quantity)));
  const split = takeApart(value, returned, input.leftover);
  const wentIn = await finishesOf(tx, item.id, input.lot, input.serials);
  for (const [index, line] of returned.entries()) {
    const worth = split.lines[index]?.value ?? ZERO;
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
    bringInAt(posting, spots, worth);
  }
  posting.addValue('written-off', -split.writtenOff as Money, { itemId: item.id });
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(
    doing,
    { kind: 'take-apart', remark: input.remark, override: input.override },
    posted,
  );
  await tx.insert('take_apart', {
    document_id: document.id,
    item_id: item.id,
    revision_id: revision.id,
    build_id: input.buildId,
    quantity,
    leftover: input.leftover,
  });
  await tx.insertMany(
    'take_apart_line',
    returned.map((line, position) => ({
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

const expectedOf = ({ line, part }: BackLine, quantity: Quantity, revision: RevisionRow) =>
  expectedBack(
    { basis: line.basis, quantity: line.amount as Quantity, decimals: part.decimals },
    quantity,
    revision.output_quantity,
  );
