import { lastCostAfter, type Step } from '@yosegi/core/ledger';
import { type Money, ZERO } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';

/** A document that neither was undone nor undoes another; `d` is its table. */
export const STANDS = 'd.reverses_id IS NULL AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)';

/**
 * The last cost of one that was known of each item by the documents that stand without one of them.
 * @param without a document that is being undone
 */
export async function lastCosts(
  db: Reader,
  itemIds: readonly number[],
  without: number,
): Promise<ReadonlyMap<number, Money | undefined>> {
  const costs = new Map<number, Money | undefined>();
  for (const itemId of new Set(itemIds)) {
    const steps = await db.driver.all<Step>(
      `SELECT sum(m.quantity) AS quantity, sum(iif(m.quantity <> 0, m.value, 0)) AS value,
         sum(iif(m.quantity = 0, m.value, 0)) AS changed
       FROM movement m JOIN document d ON d.id = m.document_id
       WHERE m.item_id = $1 AND m.holder_kind IS NOT 'return' AND d.id <> $2 AND ${STANDS} GROUP BY d.id ORDER BY d.id`,
      [itemId, without],
    );
    const item = await db.driver.one<{ tracking: string }>('SELECT tracking FROM item WHERE id = $1', [itemId]);
    costs.set(itemId, lastCostAfter(steps, item?.tracking === 'serial') ?? ZERO);
  }
  return costs;
}

/** What serials were worth when they last left, by the documents that stand: lost and found, each keeps its own cost. */
export async function ownCostsOf(db: Reader, serialIds: readonly number[]): Promise<ReadonlyMap<number, Money>> {
  const rows = await db.driver.all<{ serial_id: number; value: Money }>(
    `SELECT m.serial_id, -m.value AS value, max(m.id) FROM movement m JOIN document d ON d.id = m.document_id
     WHERE m.serial_id IN (SELECT value FROM json_each($1)) AND m.quantity < 0 AND ${STANDS} GROUP BY m.serial_id`,
    [JSON.stringify(serialIds)],
  );
  return new Map(rows.map(({ serial_id, value }) => [serial_id, value]));
}
