import { Refusal } from '@yosegi/core/refusal';
import type { SqlRow, Writer } from './database.ts';

/**
 * Updates a record that people edit, if it still is the version they saw.
 * @param current the record as it stands now, for the person to compare with what they typed
 * @throws Refusal `stale-save` with `current`
 */
export async function updateVersioned(
  tx: Writer,
  table:
    | 'company'
    | 'item'
    | 'unit'
    | 'supplier'
    | 'store'
    | 'bin'
    | 'definition'
    | 'revision'
    | 'build'
    | 'stock_count'
    | 'purchase_order',
  id: number,
  version: number,
  values: SqlRow,
  current: () => Promise<unknown>,
): Promise<void> {
  const columns = Object.keys(values);
  const sets = columns.map((column, index) => `${column} = $${index + 3}`);
  const sql = `UPDATE ${table} SET ${[...sets, 'version = version + 1'].join(', ')} WHERE id = $1 AND version = $2 RETURNING id`;
  const updated = await tx.one(sql, [id, version, ...Object.values(values)]);
  if (!updated) throw new Refusal('stale-save', { current: await current() });
}
