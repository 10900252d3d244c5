import { type DocumentKind, documentKinds, type Posted } from '@yosegi/contract';
import { type Movement, Posting, type ValueLine } from '@yosegi/core/ledger';
import { groupBy } from '@yosegi/core/lists';
import { add, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type Doing, found, requireRight } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { spotIn } from './balances.ts';
import { lastCosts } from './costs.ts';
import type { LedgerFeature, PostedDocument } from './features.ts';
import { readStock, writeDocument } from './posting.ts';
import { withNames } from './shortage.ts';

interface Head {
  readonly id: number;
  readonly number: string;
  readonly kind: DocumentKind;
  readonly for_kind: string | null;
  readonly for_id: number | null;
  readonly undone_by: string | null;
  readonly override_reason: string | null;
}

/**
 * Undoes a posting by a counter-document with exactly its quantities and values, after what was posted because of it; what
 * follows beside stock is done by the features.
 * @throws Refusal `owner-only`, `already-undone`, `undo-final`, `undo-later-first`, and what the posting refuses
 */
export async function undoDocument(
  doing: Doing,
  id: number,
  remark: string,
  features: readonly LedgerFeature[],
): Promise<Posted> {
  const { tx } = doing;
  const head = found(await headOf(tx, id));
  const { number, kind } = head;
  refuseFinal(head);
  requireRight(doing.person, documentKinds[kind].right);
  if (head.override_reason !== null) requireRight(doing.person, 'override');
  for (const caused of await causedBy(tx, id)) await undoCaused(doing, caused.id, remark, features);
  const document = await postedDocument(tx, head);
  for (const feature of features) await withNames(tx, () => feature.refuseUndo?.(tx, document));
  const itemIds = document.movements.map((movement) => movement.itemId);
  const posting = new Posting(await readStock(tx, itemIds));
  const values = await valuesOf(tx, id);
  const known = await lastCosts(tx, itemIds, id);
  const posted = await withNames(tx, () => {
    posting.reverse(document.movements, values, (itemId) => known.get(itemId));
    return posting.close();
  });
  const start = { kind: 'undo' as const, remark: remark || `Undoes ${number}`, reversesId: id, for: document.for };
  const counter = await writeDocument(doing, start, posted);
  await tx.driver.run('UPDATE put_right SET settled_at = $1 WHERE document_id = $2 AND settled_at IS NULL', [
    doing.now.toISOString(),
    id,
  ]);
  for (const feature of features) await feature.undone?.[kind]?.(doing, document);
  return counter;
}

/**
 * What a pick brought must still stand for its own line: what stands beside it of the same item is for another.
 * @param standing what stands for each line on the bench or in parcels
 * @throws Refusal `undo-goods-gone`
 */
export function refusePickGone({ movements }: PostedDocument, standing: ReadonlyMap<number, Quantity>): void {
  const brought = groupBy(
    movements.filter(({ holder, lineId, quantity }) => holder !== null && lineId !== null && quantity > 0),
    ({ lineId }) => lineId ?? 0,
  );
  const lines = [...brought].flatMap(([lineId, own]) => {
    const there = standing.get(lineId) ?? ZERO;
    const wanted = add(ZERO, ...own.map(({ quantity }) => quantity));
    const [first] = own;
    return first && wanted > there ? [{ ...first, wanted, there }] : [];
  });
  if (lines.length > 0) throw new Refusal('undo-goods-gone', { lines });
}

const headOf = (tx: Writer, id: number) =>
  tx.driver.one<Head>(
    `SELECT d.id, d.number, d.kind, d.for_kind, d.for_id, d.override_reason,
       (SELECT number FROM document WHERE reverses_id = d.id) AS undone_by
     FROM document d WHERE d.id = $1`,
    [id],
  );

async function postedDocument(tx: Writer, { id, number, kind, for_kind, for_id }: Head): Promise<PostedDocument> {
  const subject = for_kind === null || for_id === null ? null : { kind: for_kind, id: for_id };
  return { id, number, kind, for: subject, movements: await movementsOf(tx, id) };
}

/** Undoes what one act posted because of another, unless others have taken it back since. */
async function undoCaused(doing: Doing, id: number, remark: string, features: readonly LedgerFeature[]): Promise<void> {
  const document = await postedDocument(doing.tx, found(await headOf(doing.tx, id)));
  for (const feature of features) if (await feature.lapsed?.(doing, document)) return;
  await undoDocument(doing, id, remark, features);
}

/** What stands of the documents that one act posted because of another, the last first. */
const causedBy = (tx: Writer, id: number) =>
  tx.driver.all<{ id: number }>(
    `SELECT d.id FROM document d WHERE d.cause_id = $1 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
     ORDER BY d.id DESC`,
    [id],
  );

function refuseFinal({ kind, undone_by }: Head): void {
  if (undone_by !== null) throw new Refusal('already-undone', { number: undone_by });
  const why = documentKinds[kind].final;
  if (why !== null) throw new Refusal('undo-final', { why });
}

async function movementsOf(tx: Writer, documentId: number): Promise<Movement[]> {
  const rows = await tx.driver.all<Row<'movement'>>('SELECT * FROM movement WHERE document_id = $1 ORDER BY id', [
    documentId,
  ]);
  return rows.map((row) => ({
    ...spotIn(row),
    lineId: row.line_id,
    quantity: row.quantity,
    value: row.value,
  }));
}

async function valuesOf(tx: Writer, documentId: number): Promise<ValueLine[]> {
  const rows = await tx.driver.all<Pick<Row<'document_value'>, 'kind' | 'amount' | 'item_id' | 'line_id'>>(
    'SELECT kind, amount, item_id, line_id FROM document_value WHERE document_id = $1 ORDER BY id',
    [documentId],
  );
  return rows.map((row) => ({
    kind: row.kind,
    amount: row.amount,
    itemId: row.item_id,
    lineId: row.line_id,
  }));
}
