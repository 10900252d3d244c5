import { Refusal } from '../refusal/index.ts';
import { readPercent } from './amounts.ts';
import { readCode } from './items.ts';
import { type FileKind, readText, readYesNo } from './plan.ts';
import type { ImportWorld } from './world.ts';

/** Who buys from us, one customer a row, with any field of one's own. */
export const customerFile: FileKind<ImportWorld> = {
  columns: [
    { key: 'code', title: 'Code', required: true, aliases: ['customer', 'customer code', 'customer no', 'number'] },
    { key: 'name', title: 'Name', required: true, aliases: ['customer name', 'company'] },
    { key: 'contact', title: 'Contact', aliases: ['contact person', 'attention'] },
    { key: 'email', title: 'Email', aliases: ['email', 'e-mail', 'mail'] },
    { key: 'phone', title: 'Phone', aliases: ['telephone', 'tel'] },
    { key: 'billing', title: 'Billing address', aliases: ['address', 'invoice address', 'bill to'] },
    { key: 'delivery', title: 'Delivery address', aliases: ['shipping address', 'ship to', 'deliver to'] },
    { key: 'discount', title: 'Discount %', amount: true, aliases: ['discount', 'rebate'] },
    { key: 'transportDays', title: 'Delivery days', aliases: ['days of transport', 'transport days', 'days'] },
    { key: 'note', title: 'Note', aliases: ['remark', 'comment', 'notes'] },
    { key: 'archived', title: 'Archived', aliases: ['inactive', 'blocked'] },
  ],
  hasFields: true,
  spansRows: false,
  shared: [],
  keyOf: ({ code = '' }) => code.toLowerCase(),
  subjectOf: ({ code, name }) => (name ? `${code}, ${name}` : (code ?? '')),
  defaults: {
    code: '',
    name: '',
    contact: '',
    email: '',
    phone: '',
    billing: '',
    delivery: '',
    discount: '0',
    transportDays: '',
    note: '',
    archived: 'no',
  },
  existing: (world) => world.existing,
  readers: {
    code: readCode,
    name: (cell) => readText(cell, 120),
    contact: (cell) => readText(cell, 120),
    email(cell) {
      if (cell !== '' && !/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(cell)) throw new Refusal('invalid', { message: NO_MAIL });
      return readText(cell, 200);
    },
    phone: (cell) => readText(cell, 120),
    billing: (cell) => readText(lines(cell), 400),
    delivery: (cell) => readText(lines(cell), 400),
    discount: (cell, { sign }) => (cell === '' ? '0' : readPercent(cell, 100, sign)),
    transportDays(cell) {
      if (cell === '') return '';
      if (!/^\d{1,3}$/.test(cell) || Number(cell) > 365) throw new Refusal('out-of-range', { least: 0, most: 365 });
      return String(Number(cell));
    },
    note: (cell) => readText(cell, 2000),
    archived: readYesNo,
  },
};

const NO_MAIL = 'This is not an email address. Write it like name@example.org, or leave it empty.';

/** Lines of an address, however the file ends them. */
const lines = (cell: string) =>
  cell
    .split(/\r?\n|\s*;\s*/)
    .map((line) => line.trim())
    .filter(Boolean)
    .join('\n');
