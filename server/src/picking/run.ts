import type { Piece, RunDetail } from '@yosegi/contract';
import { groupBy } from '@yosegi/core/lists';
import { add, least, minus, type Quantity, ZERO } from '@yosegi/core/number';
import { type Goal, goalKey, type Stop, stopsOf, walked } from '@yosegi/core/picking';
import { decimal } from '../command/amounts.ts';
import { found } from '../command/doing.ts';
import { listWishes } from '../counts/index.ts';
import type { Reader } from '../db/database.ts';
import { type ItemRow, itemRows, toItem } from '../items/index.ts';
import { type BalanceRow, heldForAll, partedPieces, toPiece } from '../ledger/index.ts';
import { openParcels } from '../orders/index.ts';
import { namedGoals } from './goals.ts';
import {
  broughtTo,
  claimsOf,
  goalsOf,
  lineKey,
  picksOf,
  type RunRecord,
  runRecord,
  shelvesFor,
  walkedOf,
  wantedFor,
} from './runs.sql.ts';
import { standInsOf, swapsOf } from './stand-ins.sql.ts';

/** The way of a run as it is now: what is to be taken where, and what no shelf has. */
export async function wayOf(db: Reader, run: RunRecord, goals: readonly Goal[]) {
  const wanted = await wantedFor(db, goals);
  const { shelves, rows } = await shelvesFor(db, [...new Set(wanted.map(({ itemId }) => itemId))], run.store_id);
  return { wanted, rows, ...stopsOf(wanted, shelves) };
}

/** The place of one on the cart: A, B, C … */
const slotAt = (index: number) => String.fromCharCode(65 + index);

const goalsIn = async (db: Reader, runId: number) =>
  (await goalsOf(db, [runId])).map(({ kind, source_id }): Goal => ({ kind, id: source_id }));

/** Whom a run serves, each with its place on the cart and what is scanned for it. @throws Refusal `not-found` */
export async function servedBy(db: Reader, id: number, now: Date) {
  const { number } = found(await runRecord(db, id));
  const goals = await goalsIn(db, id);
  const named = await namedGoals(db, goals, now);
  return {
    number,
    goals: goals.map((goal, index) => {
      const { codes, ...said } = found(named.get(goalKey(goal)));
      return { ...said, slot: slotAt(index), code: codes.at(-1) ?? said.number };
    }),
  };
}

/** A run with everything that its walkers need to know. */
export async function readRun(db: Reader, id: number, now: Date): Promise<RunDetail> {
  const run = found(await runRecord(db, id));
  const goals = await goalsIn(db, id);
  const isOpen = run.ended_at === null;
  const way = isOpen ? await wayOf(db, run, goals) : { wanted: [], rows: [], stops: [], missing: [] };
  const named = await namedGoals(db, goals, now);
  const brought = isOpen ? await broughtTo(db, goals) : [];
  const itemIds = [...way.wanted, ...brought.map(({ item_id }) => ({ itemId: item_id }))].map(({ itemId }) => itemId);
  const items = await itemRows(db, itemIds);
  const open = groupBy(way.wanted, ({ goal }) => goalKey(goal));
  const pieces = await piecesOf(db, goals, brought);
  return {
    id,
    number: run.number,
    storeId: run.store_id,
    store: run.store,
    confirms: run.confirms === 1,
    madeAt: run.made_at,
    madeBy: run.person,
    endedAt: run.ended_at,
    version: run.version,
    walked: walked((await walkedOf(db, [id])).get(id) ?? []),
    goals: goals.map((goal, index) => {
      const { goal: _, late: __, codes, ...said } = found(named.get(goalKey(goal)));
      const openLines = open.get(goalKey(goal))?.length ?? 0;
      return { ...goal, ...said, codes: [...codes], slot: slotAt(index), openLines };
    }),
    stops: toStops(way, items),
    claims: (await claimsOf(db, id)).map(({ stop: key, person_id: personId, person, at }) => ({
      key,
      personId,
      person,
      at,
    })),
    missing: await toMissing(db, way.missing, items, run.store_id),
    passed: (await listWishes(db)).map(({ binId, bin, itemId, name: item, by }) => ({ binId, bin, itemId, item, by })),
    brought: brought.map(({ kind, source_id, line_id, item_id, quantity }) => ({
      kind,
      id: source_id,
      lineId: line_id,
      item: toItem(found(items.get(item_id))),
      quantity: decimal(quantity),
      pieces: [...(pieces.get(lineKey({ kind, lineId: line_id })) ?? [])],
    })),
    picks: (await picksOf(db, id)).map(({ person_id: personId, undone, ...pick }) => ({
      ...pick,
      personId,
      undone: undone === 1,
    })),
  };
}

/** The lots and serials on benches and in parcels, by the line they are for. */
async function piecesOf(
  db: Reader,
  goals: readonly Goal[],
  brought: Awaited<ReturnType<typeof broughtTo>>,
): Promise<ReadonlyMap<string, readonly Piece[]>> {
  const idsOf = (kind: Goal['kind']) => goals.filter((goal) => goal.kind === kind).map(({ id }) => id);
  const parcels = await openParcels(db, idsOf('order'));
  const orderOf = new Map(parcels.map(({ id, order_id }) => [id, order_id]));
  const rows = [
    ...(await heldForAll(db, 'build', idsOf('build'))),
    ...(await heldForAll(db, 'parcel', [...orderOf.keys()])),
  ];
  const standing = groupBy(rows, ({ holder_kind, holder_id }) =>
    holder_kind === 'build'
      ? goalKey({ kind: 'build', id: holder_id ?? 0 })
      : goalKey({ kind: 'order', id: orderOf.get(holder_id ?? 0) ?? 0 }),
  );
  return new Map(
    [...groupBy(brought, ({ kind, source_id: id }) => goalKey({ kind, id }))].flatMap(([key, own]) => [
      ...partedPieces(
        standing.get(key) ?? [],
        own.map(({ kind, line_id: lineId, item_id: itemId, quantity }) => ({
          line: lineKey({ kind, lineId }),
          itemId,
          quantity,
        })),
      ),
    ]),
  );
}

function toStops(
  { stops, rows }: { readonly stops: readonly Stop[]; readonly rows: readonly BalanceRow[] },
  items: ReadonlyMap<number, ItemRow>,
): RunDetail['stops'] {
  const inBin = groupBy(rows, ({ bin_id, item_id }) => `${bin_id}:${item_id}`);
  return stops.map((stop) => {
    const there = inBin.get(`${stop.binId}:${stop.itemId}`) ?? [];
    const own = stop.lotId === null ? there : there.filter((row) => row.lot_id === stop.lotId);
    const first = found(own[0]);
    return {
      key: stop.key,
      after: stop.after,
      storeId: stop.storeId,
      store: first.store,
      binId: stop.binId,
      bin: first.bin,
      item: toItem(found(items.get(stop.itemId))),
      lot: first.lot,
      bestBefore: first.best_before,
      lotSays: toPiece(first).says,
      pieces: there.filter((row) => row.lot_id !== null || row.serial_id !== null).map(toPiece),
      there: decimal(add(ZERO, ...own.map(({ quantity }) => quantity))),
      quantity: decimal(stop.quantity),
      lines: stop.lines.map(({ goal, lineId, quantity }) => ({ ...goal, lineId, quantity: decimal(quantity) })),
    };
  });
}

async function toMissing(
  db: Reader,
  missing: Awaited<ReturnType<typeof wayOf>>['missing'],
  items: ReadonlyMap<number, ItemRow>,
  storeId: number | null,
): Promise<RunDetail['missing']> {
  const elsewhere = await inOtherStores(db, [...new Set(missing.map(({ itemId }) => itemId))], storeId);
  const of = (kind: Goal['kind']) => missing.filter(({ goal }) => goal.kind === kind).map(({ lineId }) => lineId);
  const standIns = {
    build: groupBy(await standInsOf(db, of('build')), ({ line_id }) => line_id),
    order: groupBy(await swapsOf(db, of('order')), ({ line_id }) => line_id),
  };
  return missing.map(({ goal, lineId, itemId, quantity }) => ({
    ...goal,
    lineId,
    quantity: decimal(quantity),
    item: toItem(found(items.get(itemId))),
    elsewhere: elsewhere(itemId, quantity),
    standIns: (standIns[goal.kind].get(lineId) ?? [])
      .filter(({ there }) => there > 0)
      .map(({ item_id, code, name, there, ratio }) => ({
        itemId: item_id,
        code,
        name,
        quantity: decimal(there),
        ratio: decimal(ratio),
      })),
  }));
}

/** Where items can be taken in stores that a run does not go to; what one line counts on is not there for the next. */
async function inOtherStores(db: Reader, itemIds: readonly number[], storeId: number | null) {
  const { rows } = storeId === null || itemIds.length === 0 ? { rows: [] } : await shelvesFor(db, itemIds, null);
  const left = rows
    .filter((row) => row.store_id !== storeId)
    .map((row) => ({ ...row, left: row.quantity as Quantity }));
  return (itemId: number, wanted: Quantity): RunDetail['missing'][number]['elsewhere'] => {
    let rest = wanted;
    const stores = new Map<string, Quantity>();
    for (const row of left.filter(({ item_id }) => item_id === itemId)) {
      const taken = least(rest, row.left);
      if (taken <= 0) continue;
      row.left = minus(row.left, taken);
      rest = minus(rest, taken);
      stores.set(row.store, add(stores.get(row.store) ?? ZERO, taken));
    }
    return [...stores].map(([store, quantity]) => ({ store, quantity: decimal(quantity) }));
  };
}
