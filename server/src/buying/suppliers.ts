import type { Supplier, SupplierDetail, SupplierInput, SupplierItem } from '@yosegi/contract';
import { learnLead } from '@yosegi/core/buying';
import { type Money, type Quantity, sumForText, worthForText } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { decimal } from '../http/amounts.ts';
import { type Doing, found } from '../http/context.ts';
import { deliveriesOf } from './leads.ts';

const SQL = `SELECT s.id, s.code, s.name, s.address, s.email, s.version,
    (SELECT count(*) FROM item_supplier WHERE supplier_id = s.id) AS items
  FROM supplier s`;

export const listSuppliers = (db: Reader) => db.all<Supplier>(`${SQL} ORDER BY s.code COLLATE NOCASE`);
const supplierRow = async (db: Reader, id: number) => found(await db.one<Supplier>(`${SQL} WHERE s.id = $1`, [id]));

/** A supplier with what it asks for, and what its deliveries taught. */
export async function readSupplier(db: Reader, id: number): Promise<SupplierDetail> {
  const supplier = await supplierRow(db, id);
  const deliveries = await deliveriesOf(db, id);
  const rows = await db.all<
    Omit<SupplierItem, 'price' | 'pack' | 'minimum' | 'learnt'> & { price: number; pack: number; minimum: number }
  >(
    `SELECT i.id AS itemId, i.code AS itemCode, i.name, u.code AS unit, p.code, p.price, p.pack, p.minimum, p.lead_days AS leadDays
     FROM item_supplier p JOIN item i ON i.id = p.item_id JOIN unit u ON u.id = i.unit_id
     WHERE p.supplier_id = $1 AND i.archived_at IS NULL ORDER BY i.code COLLATE NOCASE LIMIT 5000`,
    [id],
  );
  const open = await db.all<{ order_id: number; open: number; price: number }>(
    `SELECT l.order_id, l.open, l.price FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
     WHERE o.supplier_id = $1 AND l.open > 0`,
    [id],
  );
  return {
    ...supplier,
    learnt: learnLead([...deliveries.values()].flat(), 100),
    openOrders: new Set(open.map((line) => line.order_id)).size,
    openWorth: decimal(sumForText(open.map((line) => worthForText(line.open as Quantity, line.price as Money)))),
    offers: rows.map((row) => ({
      ...row,
      price: decimal(row.price),
      pack: decimal(row.pack),
      minimum: decimal(row.minimum),
      learnt: learnLead(deliveries.get(row.itemId) ?? []),
    })),
  };
}

export async function createSupplier(doing: Doing, input: SupplierInput): Promise<Supplier> {
  const { tx } = doing;
  await refuseTaken(tx, input.code, null);
  const id = await tx.insert('supplier', valuesOf(input));
  doing.changed('items', 'buying');
  return supplierRow(tx, id);
}

export async function updateSupplier(
  doing: Doing,
  id: number,
  input: SupplierInput & { version: number },
): Promise<Supplier> {
  const { tx } = doing;
  await refuseTaken(tx, input.code, id);
  await updateVersioned(tx, 'supplier', id, input.version, valuesOf(input), () => supplierRow(tx, id));
  doing.changed('items', 'buying');
  return supplierRow(tx, id);
}

const valuesOf = ({ code, name, address, email }: SupplierInput) => ({ code, name, address, email });

async function refuseTaken(tx: Writer, code: string, exceptId: number | null): Promise<void> {
  const other = await tx.one<{ id: number; name: string }>('SELECT id, name FROM supplier WHERE code = $1', [code]);
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code, by: other.name }, 'code');
}
