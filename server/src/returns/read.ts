import type { ReturnDetail, ReturnLine, ReturnPiece, ReturnRow } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { groupBy } from '@yosegi/core/lists';
import { add, formatDecimal, type Money, minus, ZERO } from '@yosegi/core/number';
import { creditOwed, daysTooLate, isWrittenOff, keptOf } from '@yosegi/core/returns';
import { decimal } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { namesOf } from './find.sql.ts';
import {
  binsOfReturn,
  documentsOf,
  type LineRecord,
  lineRecords,
  listRecords,
  type OutcomeRecord,
  outcomesOf,
  type PieceRecord,
  piecesOfReturns,
  type ReturnRecord,
  recordsIn,
  returnRecord,
  toSentBack,
} from './sql.ts';

/** The most returns that wait and are shown at once. */
const MOST = 200;

interface Whole {
  readonly record: ReturnRecord;
  readonly lines: readonly LineRecord[];
  readonly pieces: ReadonlyMap<number, readonly PieceRecord[]>;
  readonly outcomes: ReadonlyMap<number, readonly OutcomeRecord[]>;
  /** Of the currency. */
  readonly decimals: number;
}

async function wholeOf(db: Reader, records: readonly ReturnRecord[]): Promise<Whole[]> {
  const ids = records.map(({ id }) => id);
  const lines = groupBy(await lineRecords(db, ids), ({ return_id }) => return_id);
  const all = await piecesOfReturns(db, ids);
  const pieces = groupBy(all, ({ return_line_id }) => return_line_id);
  const outcomes = groupBy(
    await outcomesOf(
      db,
      all.map(({ piece_id }) => piece_id),
    ),
    ({ piece_id }) => piece_id,
  );
  const decimals = await currencyDecimals(db);
  return records.map((record) => ({ record, lines: lines.get(record.id) ?? [], pieces, outcomes, decimals }));
}

export async function listReturns(db: Reader, query: QueryOf<'returns'>, now: Date) {
  const { rows, next } = await listRecords(db, query);
  return { rows: (await wholeOf(db, rows)).map((whole) => toRow(whole, now)), next };
}

export async function readReturn(db: Reader, id: number, now: Date): Promise<ReturnDetail> {
  const record = found(await returnRecord(db, id));
  const [whole] = await wholeOf(db, [record]);
  return toDetail(db, found(whole), now);
}

/** Everything that waits for somebody to decide, the longest first, and what is announced. */
export async function readWaiting(db: Reader, now: Date) {
  const waiting: ReturnDetail[] = [];
  for (const whole of await wholeOf(db, await recordsIn(db, 'waiting', MOST)))
    waiting.push(await toDetail(db, whole, now));
  const announced = await wholeOf(db, await recordsIn(db, 'announced', MOST));
  return { returns: waiting, announced: announced.map((whole) => toRow(whole, now)) };
}

async function toDetail(db: Reader, whole: Whole, now: Date): Promise<ReturnDetail> {
  const { record, lines } = whole;
  const picture = await db.models.return_picture.findByPk(record.id, { attributes: ['hash'] });
  const documents = await documentsOf(db, record.id);
  const arrival = documents.find(({ id }) => id === record.document_id);
  const [bin] = await binsOfReturn(db, record.id);
  const names = await namesOf(db, record.state === 'announced' ? lines : []);
  return {
    ...toRow(whole, now),
    remark: record.remark,
    madeBy: record.person,
    calledOff: record.called_off,
    document: arrival ? { id: arrival.id, number: arrival.number } : null,
    bin: bin?.bin ?? null,
    picture: picture?.hash ?? null,
    lines: lines.map((line) => toLine(line, whole, now, names)),
    documents: documents.map(({ undone, ...document }) => ({ ...document, undone: undone === 1 })),
  };
}

function toRow(whole: Whole, now: Date): ReturnRow {
  const { record, lines, pieces } = whole;
  const owed = lines.map((line) => owedFor(line, whole));
  const own = lines.flatMap((line) => pieces.get(line.id) ?? []);
  const since = record.arrived_at ?? record.made_at;
  return {
    id: record.id,
    number: record.number,
    state: record.state,
    customerId: record.customer_id,
    customer: record.customer,
    what: lines.map(({ quantity, name }) => `${formatDecimal(quantity)} × ${name}`).join(', '),
    code: lines[0]?.code ?? '',
    reasons: [...new Set(lines.map(({ reason }) => reason))].join(', '),
    madeAt: record.made_at,
    expectedOn: record.expected_on,
    arrivedAt: record.arrived_at,
    days: Math.max(0, Math.floor((now.getTime() - Date.parse(since)) / 86_400_000)),
    waiting: record.waiting,
    value: decimal(add<Money>(ZERO, ...own.map(({ value }) => value))),
    owed: decimal(owed.reduce<bigint>((sum, one) => sum + BigInt(one), 0n)),
    version: record.version,
  };
}

/** What is owed for a line: its part of the price paid, but for what was sent back. */
function owedFor(line: LineRecord, { pieces, record, decimals }: Whole): bigint {
  if (record.called_off !== null) return 0n;
  const own = (pieces.get(line.id) ?? []).map(toSentBack);
  const kept = keptOf({ quantity: line.quantity, isKit: line.is_kit === 1 }, own);
  return creditOwed(kept, line.price, line.credit, decimals);
}

function toLine(line: LineRecord, whole: Whole, now: Date, names: Awaited<ReturnType<typeof namesOf>>): ReturnLine {
  const own = whole.pieces.get(line.id) ?? [];
  const lost = own
    .flatMap(({ piece_id }) => whole.outcomes.get(piece_id) ?? [])
    .filter(({ outcome }) => isWrittenOff(outcome));
  return {
    id: line.id,
    shipmentId: line.shipment_id,
    shipment: line.shipment,
    shippedAt: line.shipped_at,
    orderId: line.order_id,
    order: line.sales_order,
    orderLineId: line.line_id,
    itemId: line.item_id,
    code: line.code,
    name: line.name,
    unit: line.unit,
    decimals: line.decimals,
    isKit: line.is_kit === 1,
    quantity: decimal(line.quantity),
    reason: line.reason,
    condition: line.condition,
    remark: line.remark,
    tooLate: daysTooLate(dayOf(new Date(line.shipped_at)), dayOf(new Date(whole.record.arrived_at ?? now)), [
      line.item_days,
      line.customer_days,
    ]),
    price: decimal(line.price),
    credit: decimal(line.credit),
    owed: decimal(owedFor(line, whole)),
    value: decimal(add<Money>(ZERO, ...own.map(({ value }) => value))),
    lost: decimal(add<Money>(ZERO, ...lost.map(({ value }) => value))),
    pieces: own.map((piece) => toPiece(piece, whole)),
    announced: { serials: JSON.parse(line.serials), lots: JSON.parse(line.lots) },
    withThem: names.get(`${line.shipment_id}:${line.line_id}`) ?? { serials: [], lots: [] },
  };
}

function toPiece(piece: PieceRecord, { outcomes }: Whole): ReturnPiece {
  const left = minus(piece.quantity, piece.settled);
  return {
    id: piece.piece_id,
    partId: piece.part_id,
    returnId: piece.return_id,
    lineId: piece.return_line_id,
    itemId: piece.item_id,
    code: piece.code,
    name: piece.name,
    unit: piece.unit,
    decimals: piece.decimals,
    tracking: piece.tracking,
    homeBinId: piece.home_bin_id,
    lot: piece.lot,
    serial: piece.serial,
    quantity: decimal(piece.quantity),
    value: decimal(piece.value),
    waiting: decimal(left),
    waitingValue: decimal(minus(piece.value, piece.settled_value)),
    insteadOf: piece.instead_of,
    canApart: piece.can_apart === 1,
    canRework: piece.can_rework === 1,
    outcomes: (outcomes.get(piece.piece_id) ?? []).map((one) => ({
      documentId: one.document_id,
      number: one.number,
      outcome: one.outcome,
      quantity: decimal(one.quantity),
      value: decimal(one.value),
      bin: one.bin,
      build: one.build_id === null ? null : { id: one.build_id, number: one.build ?? '' },
      note: one.note,
      at: one.at,
      person: one.person,
    })),
  };
}
