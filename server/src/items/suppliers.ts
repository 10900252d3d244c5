import type { Supplier } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { type Doing, found } from '../http/context.ts';

const SQL = `SELECT s.id, s.code, s.name, s.version, (SELECT count(*) FROM item_supplier WHERE supplier_id = s.id) AS items
  FROM supplier s`;

export const listSuppliers = (db: Reader) => db.all<Supplier>(`${SQL} ORDER BY s.code COLLATE NOCASE`);
const readSupplier = async (db: Reader, id: number) => found(await db.one<Supplier>(`${SQL} WHERE s.id = $1`, [id]));

export async function createSupplier(doing: Doing, input: { code: string; name: string }): Promise<Supplier> {
  const { tx } = doing;
  await refuseTaken(tx, input.code, null);
  const id = await tx.insert('supplier', { code: input.code, name: input.name });
  doing.changed('items');
  return readSupplier(tx, id);
}

export async function updateSupplier(
  doing: Doing,
  id: number,
  input: { code: string; name: string; version: number },
): Promise<Supplier> {
  const { tx } = doing;
  await refuseTaken(tx, input.code, id);
  const values = { code: input.code, name: input.name };
  await updateVersioned(tx, 'supplier', id, input.version, values, () => readSupplier(tx, id));
  doing.changed('items');
  return readSupplier(tx, id);
}

async function refuseTaken(tx: Writer, code: string, exceptId: number | null): Promise<void> {
  const other = await tx.one<{ id: number; name: string }>('SELECT id, name FROM supplier WHERE code = $1', [code]);
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code, by: other.name }, 'code');
}
