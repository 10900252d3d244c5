import { isDay } from '../days/index.ts';
import { Refusal } from '../refusal/index.ts';
import { aboveZero, amountFromZero } from './amounts.ts';
import { type FileKind, readText, readWord } from './plan.ts';
import { knownItem, readItemQuantity } from './prices.ts';
import type { ImportWorld, KnownCustomer } from './world.ts';

const STATES = {
  quote: ['offer', 'draft', 'open quote'],
  confirmed: ['', 'order', 'ordered', 'yes'],
  cancelled: [],
} as const;

/**
 * Orders of customers, one line a row: rows under one number are one order. What is here already is left alone; anything
 * else about it is refused.
 */
export const orderFile: FileKind<ImportWorld> = {
  columns: [
    { key: 'order', title: 'Order', required: true, aliases: ['order number', 'order no', 'number', 'reference'] },
    { key: 'customer', title: 'Customer', aliases: ['customer code', 'customer no', 'customer name', 'client'] },
    { key: 'reference', title: 'Their reference', aliases: ['customer reference', 'purchase order', 'po number'] },
    { key: 'state', title: 'Status', aliases: ['status'] },
    { key: 'wantedOn', title: 'Wanted on', aliases: ['due', 'due date', 'delivery date', 'wanted', 'required date'] },
    { key: 'item', title: 'Item', required: true, aliases: ['item code', 'code', 'sku', 'article', 'product'] },
    { key: 'quantity', title: 'Quantity', required: true, amount: true, aliases: ['qty', 'amount', 'pieces'] },
    { key: 'price', title: 'Price', amount: true, aliases: ['unit price', 'price each', 'net price'] },
    { key: 'shipped', title: 'Shipped', amount: true, aliases: ['delivered', 'sent'] },
  ],
  hasFields: false,
  spansRows: true,
  shared: ['order', 'customer', 'reference', 'state', 'wantedOn'],
  keyOf: ({ order = '' }) => order.toLowerCase(),
  subjectOf: ({ order, item }) => `${order}, ${item}`,
  defaults: {
    order: '',
    customer: '',
    reference: '',
    state: 'confirmed',
    wantedOn: '',
    item: '',
    quantity: '',
    price: '',
    shipped: '',
  },
  existing: (world) => world.existing,
  readers: {
    order: (cell) => readText(cell, 120),
    customer: (cell, { world }) => (cell === '' ? '' : knownCustomer(cell, world).code),
    reference: (cell) => readText(cell, 120),
    state: (cell) => readWord(cell, STATES),
    wantedOn(cell) {
      if (cell !== '' && !isDay(cell)) throw new Refusal('day-shape', { typed: cell.slice(0, 40) });
      return cell;
    },
    item: (cell, { world }) => knownItem(cell, world).code,
    quantity: (cell, { given, world, sign }) =>
      aboveZero(readItemQuantity(cell, sign, knownItem(given.item ?? '', world))),
    price: (cell, { sign }) => (cell === '' ? '' : amountFromZero(cell, sign, 6)),
    shipped: (cell, { sign }) => (cell === '' ? '' : amountFromZero(cell, sign, 6)),
  },
  check(rows, before, { world }) {
    const [first] = rows;
    if (!first) return;
    if (before) throw new Refusal('order-here-already', { number: before[0]?.order ?? '' }, 'order');
    if (first.state === 'cancelled')
      throw new Refusal('word-unknown', { typed: 'cancelled', known: ['quote', 'confirmed'] }, 'state');
    if (!first.customer) throw new Refusal('cell-missing', {}, 'customer');
    const customer = knownCustomer(first.customer, world);
    if (customer.archived) throw new Refusal('customer-archived', { name: customer.name }, 'customer');
    for (const [index, row] of rows.entries()) {
      const item = knownItem(row.item ?? '', world);
      const at = (column: string) => `rows.${index}.${column}`;
      if (row.customer !== first.customer)
        throw new Refusal('shared-differs', { first: first.customer ?? '' }, at('customer'));
      if (row.wantedOn !== first.wantedOn)
        throw new Refusal('shared-differs', { first: first.wantedOn ?? '' }, at('wantedOn'));
      if (item.archived) throw new Refusal('item-archived', { name: item.name }, at('item'));
      if (item.notForSale) throw new Refusal('order-record-only', { name: item.name }, at('item'));
      if (row.price === '' && !item.hasPrice) throw new Refusal('price-unknown', { name: item.name }, at('price'));
      if ((row.shipped ?? '') !== '' && row.shipped !== '0')
        throw new Refusal('order-shipped-in-file', {}, at('shipped'));
    }
    if (rows.length > MOST_LINES) throw new Refusal('too-many-lines', { most: MOST_LINES }, 'order');
  },
};

/** As many as an order that is typed has. */
const MOST_LINES = 200;

/** By code, else by name. @throws Refusal `customer-unknown` */
function knownCustomer(cell: string, world: ImportWorld): KnownCustomer {
  const customer = world.customers.get(cell.trim().toLowerCase());
  if (!customer) throw new Refusal('customer-unknown', { typed: cell.slice(0, 60) });
  return customer;
}
