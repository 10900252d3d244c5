import type { Numbered, Saved } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type Model, type ModelStatic, OptimisticLockError } from 'sequelize';
import type { Writer } from './database.ts';
import type { Row, TableName } from './models/index.ts';

/** Tables of records that people edit. */
type Versioned = { [T in TableName]: Row<T> extends { id: number; version: number } ? T : never }[TableName];

/**
 * Updates a record that people edit, if it still is the version they saw.
 * @param current the record as it stands now, for the person to compare with what they typed
 * @throws Refusal `stale-save` with `current`
 */
export async function updateVersioned<T extends Versioned>(
  tx: Writer,
  table: T,
  id: number,
  version: number,
  values: Partial<Row<T>>,
  current: () => Promise<unknown>,
): Promise<void> {
  const record = await (tx.models[table] as ModelStatic<Model>).findByPk(id);
  if (!record || record.get('version') !== version) throw new Refusal('stale-save', { current: await current() });
  try {
    await saveAnew(record, values);
  } catch (error) {
    if (!(error instanceof OptimisticLockError)) throw error;
    throw new Refusal('stale-save', { current: await current() });
  }
}

/** A record that was made or changed, as a command answers of it. @throws Refusal `not-found` */
export async function saved(tx: Writer, table: Versioned, id: number): Promise<Saved> {
  const { version } = await row<Saved>(tx, table, id);
  return { id, version };
}

/** The same of a record that people call by its number. */
export async function numbered(
  tx: Writer,
  table: 'build' | 'goods_return' | 'pick_run' | 'purchase_order' | 'repair' | 'sales_order' | 'stock_count',
  id: number,
): Promise<Numbered> {
  const { number, version } = await row<Numbered>(tx, table, id);
  return { id, number, version };
}

async function row<T extends object>(tx: Writer, table: TableName, id: number): Promise<T> {
  const record = await (tx.models[table] as unknown as ModelStatic<Model<T>>).findByPk(id);
  if (!record) throw new Refusal('not-found');
  return record.get();
}

/** Saves a record as changed, also where nothing of it is otherwise than it was. */
export async function saveAnew<T extends TableName>(record: Model, values: Partial<Row<T>>): Promise<void> {
  record.set(values);
  record.changed('version' as never, true);
  await record.save();
}
