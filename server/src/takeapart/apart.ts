import type { ApartPlan } from '@yosegi/contract';
import { minus, ZERO } from '@yosegi/core/number';
import { readSerials } from '@yosegi/core/tracking';
import { decimal } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { itemRow, toMeasures } from '../items/index.ts';
import { balancesOf, byBin } from '../ledger/index.ts';
import { piecesById, returnRecord, spotsOf, worthOf } from '../returns/index.ts';
import { linesBack } from './back.ts';
import { revisionOfUnits } from './made-by.sql.ts';
import { ownValueOf, wentInto } from './sql.ts';

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
    isInUse: revision.state === 'in-use',
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
  const value = left > 0 ? worthOf(found(piece), left, 'quantity') : ZERO;
  return {
    id: pieceId,
    returnId: return_id,
    number,
    bin: bin?.code ?? '',
    waiting: decimal(left),
    value: decimal(value),
  };
}
