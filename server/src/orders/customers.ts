import type { CustomerInput, Saved } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import { saved, updateVersioned } from '../db/versions.ts';
import { earnedBy } from '../earned/index.ts';
import { refuseTwice } from '../items/index.ts';
import { customerRecord, shipmentsTo, toCustomer, usualOf } from './customers.sql.ts';
import { toOrderRows } from './read.ts';
import { ordersOfCustomer } from './sql.ts';

/** The most orders of one customer that their sheet lists. */
const MOST_ORDERS = 50;

/** A customer with what they have ordered, usually take, and brought. */
export async function readCustomer(db: Reader, id: number, today: string) {
  const record = found(await customerRecord(db, id));
  const fields = await db.models.customer_field.findAll({ where: { customer_id: id }, order: ['name'] });
  const { billing, delivery, transport_days: transportDays, return_days: returnDays, note } = record;
  return {
    ...toCustomer(record),
    billing,
    delivery,
    transportDays,
    returnDays,
    note,
    fields: fields.map(({ name, value }) => ({ name, value })),
    orders: await toOrderRows(db, await ordersOfCustomer(db, id, MOST_ORDERS), today),
    shipments: await shipmentsTo(db, id),
    earned: await earnedBy(db, 'customer', id),
    usual: await usualOf(db, id),
  };
}

/** @throws Refusal `code-taken`, `twice` */
export async function createCustomer(doing: Doing, input: CustomerInput): Promise<Saved> {
  const { tx } = doing;
  await refuseTaken(tx, input.code, null);
  const id = await tx.insert('customer', valuesOf(input));
  await writeFields(tx, id, input);
  doing.changed('orders');
  return saved(tx, 'customer', id);
}

/** @throws Refusal `code-taken`, `twice`, `stale-save` */
export async function updateCustomer(doing: Doing, id: number, input: BodyOf<'updateCustomer'>): Promise<Saved> {
  const { tx } = doing;
  await refuseTaken(tx, input.code, id);
  await updateVersioned(tx, 'customer', id, input.version, valuesOf(input), () => current(doing, id));
  await writeFields(tx, id, input);
  doing.changed('orders');
  return saved(tx, 'customer', id);
}

/** Takes a customer out of use, or brings them back; what they have ordered stays. */
export async function archiveCustomer(doing: Doing, id: number, input: BodyOf<'archiveCustomer'>): Promise<Saved> {
  const { tx, now } = doing;
  required(await tx.models.customer.findByPk(id));
  const values = { archived_at: input.archived ? now.toISOString() : null };
  await updateVersioned(tx, 'customer', id, input.version, values, () => current(doing, id));
  doing.changed('orders');
  return saved(tx, 'customer', id);
}

const current = async ({ tx }: Doing, id: number) => toCustomer(found(await customerRecord(tx, id)));

const valuesOf = ({ transportDays, returnDays, fields: _, ...values }: CustomerInput) => ({
  code: values.code,
  name: values.name,
  contact: values.contact,
  email: values.email,
  phone: values.phone,
  billing: values.billing,
  delivery: values.delivery,
  discount: values.discount,
  transport_days: transportDays,
  return_days: returnDays,
  note: values.note,
});

async function writeFields(tx: Writer, customer_id: number, { fields }: CustomerInput): Promise<void> {
  refuseTwice(
    fields.map(({ name }) => name),
    (index) => `fields.${index}.name`,
  );
  await tx.models.customer_field.destroy({ where: { customer_id } });
  await tx.insertMany(
    'customer_field',
    fields.map((field) => ({ customer_id, ...field })),
  );
}

async function refuseTaken(tx: Writer, code: string, exceptId: number | null): Promise<void> {
  const other = await tx.models.customer.findOne({ where: { code } });
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code, by: other.name }, 'code');
}
