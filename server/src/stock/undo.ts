import type { DocumentKind, StockDocument } from '@yosegi/contract';
import type { Money, Quantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type Movement, Posting, type ValueLine } from '@yosegi/core/stock';
import { keepLines, type LineChange } from '../builds/keep.ts';
import { buildLines, buildRecord } from '../builds/store.ts';
import { takeOffOrder } from '../buying/receive.ts';
import type { Writer } from '../db/database.ts';
import { type Doing, found } from '../http/context.ts';
import { keepLatestCosts, lastCosts } from './costs.ts';
import { readDocument } from './documents.ts';
import { readStock, writeDocument } from './posting.ts';
import { withNames } from './shortage.ts';
import { setStandardsBack } from './worth.ts';

interface Head {
  readonly id: number;
  readonly number: string;
  readonly kind: DocumentKind;
  readonly build_id: number | null;
  readonly undone_by: string | null;
}

/** Kinds whose lines say what one costs. */
const TELLS_COST: ReadonlySet<DocumentKind> = new Set(['receipt', 'opening', 'price-difference']);

/** Undoes a posting by a counter-document with exactly its quantities and values, and sets its build back. */
export async function undoDocument(doing: Doing, id: number, remark: string): Promise<StockDocument> {
  const { tx } = doing;
  const head = found(
    await tx.one<Head>(
      `SELECT d.id, d.number, d.kind, d.build_id, (SELECT number FROM document WHERE reverses_id = d.id) AS undone_by
       FROM document d WHERE d.id = $1`,
      [id],
    ),
  );
  refuseFinal(head);
  await refuseCorrected(tx, id);
  const movements = await movementsOf(tx, id);
  await refuseRevalued(tx, id, movements);
  const itemIds = movements.map((movement) => movement.itemId);
  const posting = new Posting(await readStock(tx, itemIds));
  const values = await valuesOf(tx, id);
  const known = await lastCosts(tx, itemIds, id);
  const posted = await withNames(tx, () => {
    posting.reverse(movements, values, (itemId) => known.get(itemId));
    return posting.close();
  });
  const start = { kind: 'undo' as const, remark: remark || `Undoes ${head.number}`, reversesId: id };
  const counter = await writeDocument(
    doing,
    head.build_id === null ? start : { ...start, buildId: head.build_id },
    posted,
  );
  await tx.run('UPDATE put_right SET settled_at = $1 WHERE document_id = $2 AND settled_at IS NULL', [
    doing.now.toISOString(),
    id,
  ]);
  if (head.build_id !== null) await setBuildBack(doing, head, movements);
  if (head.kind === 'receipt') await takeOffOrder(doing, id);
  if (head.kind === 'revaluation') await setStandardsBack(tx, id);
  if (TELLS_COST.has(head.kind)) await keepLatestCosts(tx, [...itemIds, ...(await pricedItems(tx, id))]);
  return readDocument(tx, counter.id);
}

function refuseFinal(head: Head): void {
  if (head.undone_by !== null) throw new Refusal('already-undone', { number: head.undone_by });
  if (head.kind === 'undo')
    throw new Refusal('undo-final', { why: 'This undid another document. Post that one again instead.' });
  if (head.kind === 'put-back') {
    throw new Refusal('undo-final', { why: 'This put the parts of a cancelled build back. Plan a new build instead.' });
  }
}

/**
 * A receipt whose price was put right later is undone after that, and so is a price that was put right once more: the goods
 * are worth what all of them say together, each told as the difference to the one before.
 */
async function refuseCorrected(tx: Writer, documentId: number): Promise<void> {
  const later = await tx.one<{ number: string }>(
    `SELECT d.number FROM price_difference_line p JOIN document d ON d.id = p.document_id
     WHERE d.id > $1 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
       AND p.receipt_line_id IN (SELECT id FROM receipt_line WHERE document_id = $1
         UNION ALL SELECT receipt_line_id FROM price_difference_line WHERE document_id = $1)
     ORDER BY d.id DESC LIMIT 1`,
    [documentId],
  );
  if (later) throw new Refusal('undo-later-first', { number: later.number });
}

/**
 * What a revaluation has made worth something else is not taken out or changed at its old worth: undone is the revaluation
 * first. What only moves goods, or took them out before, does not mind.
 */
async function refuseRevalued(tx: Writer, documentId: number, movements: readonly Movement[]): Promise<void> {
  const sums = new Map<number, number>();
  for (const { itemId, quantity } of movements) sums.set(itemId, (sums.get(itemId) ?? 0) + quantity);
  const touched = movements.filter(({ itemId, quantity }) => quantity === 0 || (sums.get(itemId) ?? 0) > 0);
  const later = await tx.one<{ number: string }>(
    `SELECT d.number FROM document d WHERE d.kind = 'revaluation' AND d.id > $1
       AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
       AND EXISTS (SELECT 1 FROM movement m WHERE m.document_id = d.id AND m.item_id IN (SELECT value FROM json_each($2)))
     ORDER BY d.id DESC LIMIT 1`,
    [documentId, JSON.stringify(touched.map(({ itemId }) => itemId))],
  );
  if (later) throw new Refusal('undo-later-first', { number: later.number });
}

/** Whose price a document put right: where all of it is gone, nothing moved for it. */
async function pricedItems(tx: Writer, documentId: number): Promise<number[]> {
  const rows = await tx.all<{ item_id: number }>(
    `SELECT DISTINCT r.item_id FROM price_difference_line p JOIN receipt_line r ON r.id = p.receipt_line_id
     WHERE p.document_id = $1`,
    [documentId],
  );
  return rows.map(({ item_id }) => item_id);
}

async function setBuildBack(doing: Doing, head: Head, movements: readonly Movement[]): Promise<void> {
  const { tx } = doing;
  const build = found(await buildRecord(tx, head.build_id ?? 0));
  const changes = new Map<number, LineChange>();
  const change = (lineId: number, onBench: number, used: number) => {
    const before = changes.get(lineId) ?? { onBench: 0, used: 0 };
    changes.set(lineId, { onBench: before.onBench + onBench, used: before.used + used });
  };
  for (const movement of movements) {
    if (movement.buildLineId !== null && movement.buildId !== null) change(movement.buildLineId, -movement.quantity, 0);
  }
  const finish = await tx.one<{ good: number }>('SELECT good FROM finish WHERE document_id = $1', [head.id]);
  const uses = await tx.all<{ build_line_id: number; actual: number }>(
    'SELECT build_line_id, actual FROM finish_line WHERE document_id = $1',
    [head.id],
  );
  for (const use of uses) change(use.build_line_id, 0, -use.actual);
  const finished = build.finished - (finish?.good ?? 0);
  const state = build.state === 'finished' && finish ? 'on-bench' : build.state;
  await tx.run(
    'UPDATE build SET finished = $1, state = $2, ended_at = iif($2 = $3, NULL, ended_at), version = version + 1 WHERE id = $4',
    [finished, state, 'on-bench', build.id],
  );
  await keepLines(tx, { ...build, finished, state }, await buildLines(tx, build.id), changes);
  doing.changed('builds');
}

async function movementsOf(tx: Writer, documentId: number): Promise<Movement[]> {
  const rows = await tx.all<{
    item_id: number;
    bin_id: number;
    lot_id: number | null;
    serial_id: number | null;
    build_id: number | null;
    build_line_id: number | null;
    quantity: number;
    value: number;
  }>('SELECT * FROM movement WHERE document_id = $1 ORDER BY id', [documentId]);
  return rows.map((row) => ({
    itemId: row.item_id,
    binId: row.bin_id,
    lotId: row.lot_id,
    serialId: row.serial_id,
    buildId: row.build_id,
    buildLineId: row.build_line_id,
    quantity: row.quantity as Quantity,
    value: row.value as Money,
  }));
}

async function valuesOf(tx: Writer, documentId: number): Promise<ValueLine[]> {
  const rows = await tx.all<{
    kind: ValueLine['kind'];
    amount: number;
    item_id: number | null;
    build_line_id: number | null;
  }>('SELECT kind, amount, item_id, build_line_id FROM document_value WHERE document_id = $1 ORDER BY id', [
    documentId,
  ]);
  return rows.map((row) => ({
    kind: row.kind,
    amount: row.amount as Money,
    itemId: row.item_id,
    buildLineId: row.build_line_id,
  }));
}
