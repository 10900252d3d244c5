import type { Supplier, SupplierDetail, SupplierInput } from '@yosegi/contract';
import { learnLead } from '@yosegi/core/buying';
import { type Money, type Quantity, sumForText, worthForText } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { decimal } from '../command/amounts.ts';
import { type Doing, requireRight } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { deliveriesOf } from './leads.sql.ts';
import { readLeads } from './leads.ts';
import { offersOf, openLinesOf, supplierRow } from './suppliers.sql.ts';

/** A supplier with what it asks for, and what its deliveries taught. */
export async function readSupplier(db: Reader, id: number, today: string): Promise<SupplierDetail> {
  const supplier = await supplierRow(db, id);
  const leads = await readLeads(db, id, today);
  const deliveries = await deliveriesOf(db, id);
  const rows = await offersOf(db, id);
  const open = await openLinesOf(db, id);
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
      lead: leads.leadOf(row.itemId, row.leadDays),
    })),
  };
}

export async function createSupplier(doing: Doing, input: SupplierInput): Promise<Supplier> {
  const { tx } = doing;
  requireSwitch(doing, input);
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
  requireSwitch(doing, input, (await supplierRow(tx, id)).learnLeads);
  await refuseTaken(tx, input.code, id);
  await updateVersioned(tx, 'supplier', id, input.version, valuesOf(input), () => supplierRow(tx, id));
  doing.changed('items', 'buying');
  return supplierRow(tx, id);
}

const valuesOf = ({ code, name, address, email, learnLeads, deliveryDays }: SupplierInput) => ({
  code,
  name,
  address,
  email,
  learn_leads: learnLeads ? (1 as const) : (0 as const),
  delivery_days: JSON.stringify([...new Set(deliveryDays)].sort()),
});

/** How a supplier's lead times are reckoned is the owner's to say. @throws Refusal `owner-only` */
function requireSwitch({ person }: Doing, input: SupplierInput, before = true): void {
  if (input.learnLeads !== before) requireRight(person, 'value');
}

async function refuseTaken(tx: Writer, code: string, exceptId: number | null): Promise<void> {
  const other = await tx.models.supplier.findOne({ where: { code } });
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code, by: other.name }, 'code');
}
