import { formatDecimal, fromZero, readQuantity } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import { plainCode } from '../text/index.ts';
import { aboveZero, amountFromZero, type DecimalSign, readAmount } from './amounts.ts';
import { readCode, readDays } from './items.ts';
import { type FileKind, type Reading, readText } from './plan.ts';
import type { ImportWorld, KnownItem } from './world.ts';

/** What suppliers ask for items, one supplier of one item a row. Suppliers that are not known yet are added. */
export const priceFile: FileKind<ImportWorld> = {
  columns: [
    {
      key: 'item',
      title: 'Item',
      required: true,
      aliases: ['item code', 'code', 'sku', 'part number', 'part no', 'article', 'our code'],
    },
    {
      key: 'supplier',
      title: 'Supplier',
      required: true,
      aliases: ['supplier code', 'vendor', 'vendor code', 'supplier no'],
    },
    { key: 'supplierName', title: 'Supplier name', aliases: ['vendor name', 'company'] },
    {
      key: 'supplierItem',
      title: 'Supplier’s code',
      aliases: [
        'supplier item',
        'supplier part number',
        'vendor part number',
        'their code',
        'supplier sku',
        'order code',
      ],
    },
    {
      key: 'price',
      title: 'Price',
      required: true,
      amount: true,
      aliases: ['unit price', 'purchase price', 'cost', 'buy price', 'net price'],
    },
    {
      key: 'pack',
      title: 'Pack size',
      amount: true,
      aliases: ['pack', 'pack quantity', 'order multiple', 'multiple', 'packaging unit'],
    },
    {
      key: 'minimum',
      title: 'Minimum',
      amount: true,
      aliases: ['min order', 'minimum order', 'moq', 'minimum quantity', 'min qty'],
    },
    { key: 'breaks', title: 'Price breaks', aliases: ['breaks', 'quantity prices', 'scale prices', 'tiers'] },
    { key: 'leadDays', title: 'Lead days', aliases: ['lead time', 'lead time days', 'delivery days', 'days'] },
  ],
  hasFields: false,
  spansRows: false,
  shared: [],
  keyOf: ({ item = '', supplier = '' }) => (item && supplier ? `${item}|${supplier}`.toLowerCase() : ''),
  subjectOf: ({ item, supplier }) => `${item} from ${supplier}`,
  defaults: {
    item: '',
    supplier: '',
    supplierName: '',
    supplierItem: '',
    price: '',
    pack: '1',
    minimum: '0',
    breaks: '',
    leadDays: '',
  },
  existing: (world) => world.existing,
  readers: {
    item: (cell, { world }) => knownItem(cell, world).code,
    supplier: (cell, { world }) => world.suppliers.get(cell.toLowerCase())?.code ?? readCode(cell),
    supplierName: (cell, { given, world }) =>
      readText(cell, 120) || (world.suppliers.get((given.supplier ?? '').toLowerCase())?.name ?? ''),
    supplierItem: (cell) => readText(cell, 60),
    price: (cell, { sign }) => amountFromZero(cell, sign, 6),
    pack(cell, { given, world, sign }) {
      return cell === '' ? '1' : aboveZero(readItemQuantity(cell, sign, knownItem(given.item ?? '', world)));
    },
    minimum: (cell, { given, world, sign }) =>
      cell === '' ? '0' : readItemQuantity(cell, sign, knownItem(given.item ?? '', world)),
    breaks: readBreaks,
    leadDays: (cell) => readDays(cell, 999),
  },
  check([record], _before, { world, incoming }) {
    if (!record) return;
    const supplier = record.supplier?.toLowerCase() ?? '';
    const known = world.suppliers.get(supplier)?.name;
    const name = record.supplierName ?? '';
    // A supplier has one name; the file may not call it by two.
    const other = known ?? namesOf(incoming).get(supplier);
    if (name !== '' && other !== undefined && other !== name)
      throw new Refusal('supplier-two-names', { supplier: record.supplier ?? '', name: other }, 'supplierName');
  },
};

const MOST_BREAKS = 12;

/**
 * From which quantity which price holds, like "100 = 1.80; 500 = 1.50".
 * @throws Refusal `break-shape`, `too-many`, `row-repeated`, and what a quantity or a price is refused for
 */
function readBreaks(cell: string, { given, world, sign }: Reading<ImportWorld>): string {
  const item = knownItem(given.item ?? '', world);
  const breaks = cell.split(';').flatMap((part) => {
    if (part.trim() === '') return [];
    const [from, price, ...rest] = part.split('=').map((one) => one.trim());
    if (!from || !price || rest.length > 0) throw new Refusal('break-shape', { typed: part.trim().slice(0, 40) });
    return [[aboveZero(readItemQuantity(from, sign, item)), amountFromZero(price, sign, 6)] as const];
  });
  if (breaks.length > MOST_BREAKS) throw new Refusal('too-many', { most: MOST_BREAKS });
  const twice = breaks.find(([from], index) => breaks.findIndex(([other]) => other === from) !== index);
  if (twice) throw new Refusal('break-shape', { typed: `${twice[0]} = ${twice[1]}` });
  return writeBreaks(breaks);
}

/** The smallest quantity first. */
export const writeBreaks = (breaks: readonly (readonly [from: string, price: string])[]) =>
  [...breaks]
    .sort(([one], [other]) => Number(one) - Number(other))
    .map(([from, price]) => `${from} = ${price}`)
    .join('; ');
export const breaksIn = (text: string): (readonly [from: string, price: string])[] =>
  text
    .split('; ')
    .filter(Boolean)
    .map((part) => {
      const [from = '', price = ''] = part.split(' = ');
      return [from, price];
    });

const names = new WeakMap<object, Map<string, string>>();
function namesOf(incoming: ReadonlyMap<string, readonly { supplier?: string; supplierName?: string }[]>) {
  const known = names.get(incoming);
  if (known) return known;
  const first = new Map<string, string>();
  for (const [record] of incoming.values()) {
    const key = record?.supplier?.toLowerCase() ?? '';
    if (record?.supplierName && !first.has(key)) first.set(key, record.supplierName);
  }
  names.set(incoming, first);
  return first;
}

/** @throws Refusal `unknown-item-code` */
export function knownItem(cell: string, world: ImportWorld): KnownItem {
  const item = world.items.get(plainCode(cell).toLowerCase());
  if (!item) throw new Refusal('unknown-item-code', { typed: cell.slice(0, 60) });
  return item;
}

/** A quantity of an item of zero or more, also typed in its packs and related units. @throws Refusal */
export function readItemQuantity(cell: string, sign: DecimalSign, item: KnownItem): string {
  const [, amount = cell, name = ''] = /^([\d.,'’\s\u00a0\u202f+-]*\d[.,]?)\s*(\p{L}.*)?$/u.exec(cell) ?? [];
  const isPlain = !cell.includes('/');
  const text = isPlain ? `${readAmount(amount, sign)} ${name}` : cell;
  const quantity = readQuantity(text, { unit: item.unit, decimals: item.decimals, measures: item.measures });
  return formatDecimal(fromZero(quantity));
}
