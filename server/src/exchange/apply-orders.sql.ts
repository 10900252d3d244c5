import { FIELD_PREFIX, type FileRecord } from '@yosegi/core/exchange';
import { parseMoney, parsePercent, parseQuantity, ZERO } from '@yosegi/core/number';
import { type Doing, found } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { createCustomer, createOrder } from '../orders/index.ts';
import type { Applying } from './apply.sql.ts';

/** Records brought in between two looks at whether to go on. */
const CHUNK = 50;

const idsOf = async (tx: Writer, table: 'customer' | 'item') =>
  new Map(
    (await tx.all<{ code: string; id: number }>(`SELECT code, id FROM ${table}`)).map(({ code, id }) => [
      code.toLowerCase(),
      id,
    ]),
  );

const fieldsOf = (record: FileRecord) =>
  Object.entries(record)
    .filter(([key, value]) => key.startsWith(FIELD_PREFIX) && value !== '')
    .map(([key, value]) => ({ name: key.slice(FIELD_PREFIX.length), value }));

export async function applyCustomers(doing: Doing, { changes, onProgress }: Applying): Promise<void> {
  const { tx, now } = doing;
  const ids = await idsOf(tx, 'customer');
  for (const [index, { fate, key, rows }] of changes.entries()) {
    if (index % CHUNK === 0) onProgress(index);
    const record = found(rows[0]);
    const {
      code = '',
      name = '',
      contact = '',
      email = '',
      phone = '',
      billing = '',
      delivery = '',
      note = '',
    } = record;
    const values = {
      ...{ code, name, contact, email, phone, billing, delivery, note },
      discount: parsePercent(record.discount ?? '0'),
    };
    const transportDays = record.transportDays ? Number(record.transportDays) : null;
    const archived = record.archived === 'yes';
    const id =
      fate === 'new'
        ? (await createCustomer(doing, { ...values, transportDays, returnDays: null, fields: fieldsOf(record) })).id
        : found(ids.get(key));
    if (fate === 'new' && !archived) continue;
    const before = await tx.models.customer.findByPk(id, { rejectOnEmpty: true });
    // A customer that was archived before keeps their day.
    const archived_at = archived ? (before.archived_at ?? now.toISOString()) : null;
    before.set({ ...values, transport_days: transportDays, archived_at });
    before.changed('version' as never, true);
    await before.save();
    if (fate === 'new') continue;
    await tx.models.customer_field.destroy({ where: { customer_id: id } });
    await tx.insertMany(
      'customer_field',
      fieldsOf(record).map((field) => ({ customer_id: id, ...field })),
    );
  }
}

/** Enters orders as they would be typed; they are called by what the file calls them. */
export async function applyOrders(doing: Doing, { changes, onProgress }: Applying): Promise<void> {
  const { tx } = doing;
  const customers = await idsOf(tx, 'customer');
  const items = await idsOf(tx, 'item');
  for (const [index, { rows }] of changes.entries()) {
    if (index % CHUNK === 0) onProgress(index);
    const first = found(rows[0]);
    const { id } = await createOrder(doing, {
      customerId: found(customers.get((first.customer ?? '').toLowerCase())),
      reference: first.reference || (first.order ?? ''),
      wantedOn: first.wantedOn || null,
      delivery: 'whole',
      remark: '',
      benchNote: '',
      deliverTo: '',
      jobTag: '',
      turnOn: null,
      orderDiscount: ZERO,
      freight: ZERO,
      confirm: first.state === 'confirmed',
      lines: rows.map((row) => ({
        id: null,
        itemId: found(items.get((row.item ?? '').toLowerCase())),
        quantity: parseQuantity(row.quantity ?? '0', 6),
        price: row.price ? parseMoney(row.price) : null,
        discount: ZERO,
        wantedOn: null,
        contents: null,
      })),
    });
    await tx.models.sales_order.update({ came_by: 'file' }, { where: { id } });
  }
}
