import { type ItemFacts, readBarcode, refuseItem } from '../items/index.ts';
import { Refusal } from '../refusal/index.ts';
import { isVisible, plainCode } from '../text/index.ts';
import { parsePattern } from '../tracking/index.ts';
import { amountFromZero } from './amounts.ts';
import { type Column, FIELD_PREFIX } from './columns.ts';
import { type FileKind, type FileRecord, type Reading, readText, readWord, readYesNo } from './plan.ts';
import type { ImportWorld } from './world.ts';

const columns: readonly Column[] = [
  {
    key: 'code',
    title: 'Code',
    required: true,
    aliases: [
      'item code',
      'item',
      'item no',
      'item number',
      'sku',
      'part no',
      'part number',
      'article',
      'product code',
      'reference',
      'ref',
      'stock code',
    ],
  },
  {
    key: 'name',
    title: 'Name',
    required: true,
    aliases: ['description', 'item name', 'title', 'product', 'product name', 'text'],
  },
  { key: 'unit', title: 'Unit', aliases: ['stock unit', 'uom', 'unit of measure', 'measure', 'um'] },
  {
    key: 'source',
    title: 'Bought or made',
    aliases: ['how it comes', 'source', 'procurement', 'make or buy', 'made or bought', 'type', 'origin'],
  },
  { key: 'tracking', title: 'Tracking', aliases: ['tracked', 'tracked by', 'lot or serial', 'traceability'] },
  { key: 'serialPattern', title: 'Serial pattern', aliases: ['serial format', 'serial mask'] },
  { key: 'lotOrder', title: 'Lot order', aliases: ['lots go', 'first to expire first', 'fefo'] },
  { key: 'lotFields', title: 'Recorded for a lot', aliases: ['written of a lot', 'lot fields', 'lot attributes'] },
  { key: 'returnDays', title: 'Return window, days', aliases: ['days to send back', 'return days', 'return period'] },
  { key: 'homeBin', title: 'Home bin', aliases: ['bin', 'location', 'shelf', 'place', 'default bin', 'storage'] },
  {
    key: 'sellPrice',
    title: 'Sell price',
    amount: true,
    aliases: ['price', 'sales price', 'selling price', 'list price', 'retail price', 'unit price'],
  },
  { key: 'taxFree', title: 'Tax-free', aliases: ['tax free', 'tax exempt', 'no vat', 'vat free'] },
  {
    key: 'reorderPoint',
    title: 'Reorder point',
    amount: true,
    aliases: ['reorder level', 'minimum stock', 'min stock', 'reorder at', 'min'],
  },
  {
    key: 'standardCost',
    title: 'Standard cost',
    amount: true,
    aliases: ['std cost', 'cost', 'cost price', 'unit cost', 'purchase cost'],
  },
  { key: 'barcode', title: 'Barcode', aliases: ['ean', 'gtin', 'upc', 'ean13', 'ean code', 'bar code'] },
  { key: 'packs', title: 'Packs', aliases: ['packaging', 'pack sizes', 'pack'] },
  { key: 'note', title: 'Note', aliases: ['notes', 'remark', 'remarks', 'comment', 'comments', 'memo'] },
  { key: 'archived', title: 'Archived', aliases: ['inactive', 'discontinued', 'obsolete', 'closed'] },
];

const SOURCES = {
  bought: ['buy', 'purchase', 'purchased', 'b', 'procured', 'raw'],
  made: ['make', 'manufactured', 'assembled', 'produced', 'built', 'm', 'made here', 'in house'],
  both: ['made and bought', 'bought and made', 'make and buy', 'either'],
} as const;
const TRACKINGS = {
  none: ['', 'no', 'n', 'not tracked', 'untracked'],
  lot: ['lots', 'batch', 'batches', 'lot number', 'batch number', 'by lot'],
  serial: ['serials', 'serial number', 'serial numbers', 'serialised', 'serialized', 'by serial'],
} as const;

const LOT_ORDERS = { prescribed: ['', 'first to expire first', 'yes'], free: ['any', 'no'] } as const;

type ItemReading = Reading<ImportWorld>;
/** As many as a form takes. */
const MOST_FIELDS = 40;
const MOST_PACKS = 20;
const MOST_LOT_FIELDS = 8;

/** Items, one a row; columns that are not there leave what is known as it is. */
export const itemFile: FileKind<ImportWorld> = {
  columns,
  hasFields: true,
  spansRows: false,
  shared: [],
  keyOf: (row) => (row.code ?? '').toLowerCase(),
  subjectOf: (row) => [row.code, row.name].filter(Boolean).join(' · '),
  defaults: {
    code: '',
    name: '',
    unit: 'each',
    source: 'bought',
    tracking: 'none',
    serialPattern: '',
    lotOrder: 'prescribed',
    lotFields: '',
    returnDays: '',
    homeBin: '',
    sellPrice: '',
    taxFree: 'no',
    reorderPoint: '',
    standardCost: '',
    barcode: '',
    packs: '',
    note: '',
    archived: 'no',
  },
  existing: (world) => world.existing,
  readers: {
    // The key finds an item in any case; it is not renamed by that.
    code: (cell, { before }) => before?.code ?? readCode(cell),
    name: (cell) => readText(cell, 120),
    unit: readUnit,
    source: (cell) => readWord(cell || 'bought', SOURCES),
    tracking: (cell) => readWord(cell, TRACKINGS),
    serialPattern: readPattern,
    lotOrder: (cell) => readWord(cell, LOT_ORDERS),
    lotFields: readLotFields,
    returnDays: (cell) => readDays(cell, 9999),
    homeBin: (cell, { world }) => (cell === '' ? '' : readBin(cell, world)),
    sellPrice: readMoney,
    taxFree: readYesNo,
    reorderPoint: (cell, { given, world, sign }) =>
      cell === '' ? '' : amountFromZero(cell, sign, world.units.get(given.unit?.toLowerCase() ?? '')?.decimals ?? 6),
    standardCost: readMoney,
    barcode: (cell) => (cell === '' ? '' : readBarcode(cell)),
    packs: readPacks,
    note: (cell) => readText(cell, 2000),
    archived: readYesNo,
  },
  check([record], before, { world, incoming }) {
    if (!record) return;
    const known = world.items.get((record.code ?? '').toLowerCase());
    const around = known ?? { hasHistory: false, hasStock: false, isPromised: false, isPacked: false };
    refuseItem(factsOf(record, world), before?.[0] && factsOf(before[0], world), around);
    const fields = Object.keys(record).filter((key) => key.startsWith(FIELD_PREFIX));
    if (fields.length > MOST_FIELDS) throw new Refusal('too-many', { most: MOST_FIELDS }, fields[MOST_FIELDS]);
    if (record.barcode) refuseTakenBarcode(record, world, incoming);
  },
};

/** @throws Refusal `barcode-taken` with `by` when another item has the barcode, here or in the file */
function refuseTakenBarcode(
  record: FileRecord,
  world: ImportWorld,
  incoming: ReadonlyMap<string, readonly FileRecord[]>,
): void {
  const own = (record.code ?? '').toLowerCase();
  const owners = ownersOf(incoming);
  const inFile = owners.get(record.barcode ?? '');
  const owner = inFile && inFile !== own ? inFile : world.barcodes.get(record.barcode ?? '');
  if (!owner || owner.toLowerCase() === own) return;
  // The file may take the barcode from its owner in another row.
  const takenAway = incoming.get(owner.toLowerCase())?.[0];
  if (takenAway && takenAway.barcode !== record.barcode) return;
  throw new Refusal('barcode-taken', { barcode: record.barcode ?? '', by: owner }, 'barcode');
}

const factsOf = (record: FileRecord, world: ImportWorld): ItemFacts => ({
  unit: record.unit ?? '',
  decimals: world.units.get((record.unit ?? '').toLowerCase())?.decimals ?? 0,
  tracking: record.tracking as ItemFacts['tracking'],
  archived: record.archived === 'yes',
});

const owners = new WeakMap<object, Map<string, string>>();
/** Barcode → key of the first row that has it; worked out once for a file. */
function ownersOf(incoming: ReadonlyMap<string, readonly FileRecord[]>): Map<string, string> {
  const known = owners.get(incoming);
  if (known) return known;
  const first = new Map<string, string>();
  for (const [key, [record]] of incoming) {
    if (record?.barcode && !first.has(record.barcode)) first.set(record.barcode, key);
  }
  owners.set(incoming, first);
  return first;
}

/** A code without spaces and slashes, at most 40 characters. @throws Refusal `code-shape` */
export function readCode(cell: string): string {
  const code = plainCode(cell);
  if (!/^[^\s/]{1,40}$/.test(code) || !isVisible(code)) throw new Refusal('code-shape', { typed: cell.slice(0, 60) });
  return code;
}

function readPattern(cell: string): string {
  if (cell === '') return '';
  parsePattern(cell);
  return cell;
}

/** Names of what is written down of a lot, one after the other. @throws Refusal `too-many`, `text-too-long`, `name-said-twice` */
function readLotFields(cell: string): string {
  const names = cell
    .split(';')
    .map((name) => name.trim())
    .filter(Boolean);
  if (names.length > MOST_LOT_FIELDS) throw new Refusal('too-many', { most: MOST_LOT_FIELDS });
  const twice = names.find(
    (name, index) => names.findIndex((one) => one.toLowerCase() === name.toLowerCase()) !== index,
  );
  if (twice) throw new Refusal('name-said-twice', { name: twice });
  return writeNames(names.map((name) => readText(name, 40)));
}

export const writeNames = (names: readonly string[]) => names.join('; ');
export const namesIn = (text: string): string[] => text.split('; ').filter(Boolean);

/** A number of days; empty for none. @throws Refusal `out-of-range` */
export function readDays(cell: string, most: number): string {
  if (cell === '') return '';
  if (!/^\d{1,6}$/.test(cell) || Number(cell) > most) throw new Refusal('out-of-range', { least: 0, most });
  return String(Number(cell));
}

function readUnit(cell: string, { world }: ItemReading): string {
  const unit = world.units.get((cell || 'each').toLowerCase());
  if (unit) return unit.code;
  const known = [...new Set([...world.units.values()].map(({ code }) => code))];
  throw new Refusal('unknown-unit', { typed: cell.slice(0, 40), known });
}

/** A bin as "STORE/BIN", found by that or by its own code where only one store has it. @throws Refusal */
export function readBin(cell: string, world: ImportWorld): string {
  const bin = world.bins.get(cell.toLowerCase());
  if (bin === null) throw new Refusal('bin-in-many-stores', { typed: cell.slice(0, 40) });
  if (bin === undefined) throw new Refusal('unknown-bin-code', { typed: cell.slice(0, 40) });
  return bin;
}

function readMoney(cell: string, { sign }: ItemReading): string {
  return cell === '' ? '' : amountFromZero(cell, sign, 6);
}

/** "box = 12; pallet = 480": what else the item is counted in. */
function readPacks(cell: string, { given, world, sign }: ItemReading): string {
  const decimals = world.units.get(given.unit?.toLowerCase() ?? '')?.decimals ?? 6;
  const packs = cell.split(';').flatMap((part) => {
    if (part.trim() === '') return [];
    const [, name, amount] = /^\s*(\p{L}[\p{L}\p{N}.-]{0,19})\s*[=:]\s*(\S.*?)\s*$/u.exec(part) ?? [];
    if (!name || !amount) throw new Refusal('pack-shape', { typed: part.trim().slice(0, 40) });
    const size = amountFromZero(amount, sign, decimals);
    if (size === '0') throw new Refusal('pack-shape', { typed: part.trim().slice(0, 40) });
    return [[name, size] as const];
  });
  if (packs.length > MOST_PACKS) throw new Refusal('too-many', { most: MOST_PACKS });
  const names = packs.map(([name]) => name.toLowerCase());
  const twice = names.find((name, index) => names.indexOf(name) !== index);
  if (twice) throw new Refusal('pack-twice', { name: twice });
  return writePacks(packs);
}

export const writePacks = (packs: readonly (readonly [name: string, size: string])[]) =>
  packs.map(([name, size]) => `${name} = ${size}`).join('; ');
