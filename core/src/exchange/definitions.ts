import { type Behaviour, balanceShares, findCycle, refuseContradiction } from '../definitions/index.ts';
import { type Money, type Percent, parsePercent } from '../number/index.ts';
import { Refusal, refusingAt } from '../refusal/index.ts';
import { aboveZero, amountFromZero, readPercent } from './amounts.ts';
import { readBin } from './items.ts';
import {
  type FileKind,
  type FileRecord,
  type PlanContext,
  type Reading,
  readText,
  readWord,
  readYesNo,
} from './plan.ts';
import { knownItem, readItemQuantity } from './prices.ts';
import type { ImportWorld } from './world.ts';

export const PURPOSES = {
  build: ['', 'bom', 'bill of materials', 'kit', 'assembly', 'make'],
  rework: ['refurbish', 'refresh', 'repair'],
  record: ['record only', 'as delivered', 'service'],
} as const;
const STATES = { 'in use': ['', 'active', 'released', 'current', 'yes'], draft: ['new', 'pending', 'no'] } as const;
const KINDS = {
  part: ['component', 'material', 'item', 'p', 'raw material'],
  labour: ['labor', 'work', 'l', 'operation', 'time'],
  charge: ['cost', 'c', 'fee', 'service', 'overhead'],
  note: ['instruction', 'n', 'text', 'remark', 'comment'],
} as const;
const COUNTED = {
  'per output': ['', 'output', 'per unit', 'each', 'variable', 'per piece'],
  'per run': ['run', 'fixed', 'once', 'per build', 'per batch', 'setup'],
} as const;
const TAKEN = {
  'picked first': ['', 'picked', 'pick', 'first', 'issue'],
  'when finished': ['finished', 'backflush', 'backflushed', 'auto', 'at finish'],
} as const;
const MADE = {
  ahead: ['', 'stock', 'made ahead', 'to stock'],
  'packed per order': ['packed', 'per order', 'kit'],
} as const;
const PAPERWORK = { 'one line': ['', 'hidden', 'no', 'one'], contents: ['shown', 'yes', 'show', 'list'] } as const;
const ON_ORDER = {
  locked: ['', 'fixed', 'no'],
  quantities: ['quantity', 'quantities may change'],
  'swaps listed': ['swaps', 'alternates', 'listed'],
  'swaps anything': ['anything', 'free'],
} as const;

const shared = ['product', 'purpose', 'makes', 'state', 'made', 'paperwork', 'onOrder', 'partsDiscount'] as const;

/** Bills of materials, one line of one a row; the rows of a product stand together or name it again. */
export const definitionFile: FileKind<ImportWorld> = {
  columns: [
    {
      key: 'product',
      title: 'Product',
      required: true,
      aliases: [
        'parent',
        'assembly',
        'parent item',
        'finished good',
        'kit',
        'product code',
        'bom',
        'parent code',
        'makes item',
      ],
    },
    { key: 'purpose', title: 'Purpose', aliases: ['used for', 'bom type'] },
    {
      key: 'makes',
      title: 'Makes',
      amount: true,
      aliases: ['output', 'output quantity', 'batch size', 'yield', 'lot size', 'makes quantity'],
    },
    { key: 'state', title: 'Status', aliases: ['status', 'revision state'] },
    { key: 'made', title: 'Made', aliases: ['made or packed'] },
    { key: 'paperwork', title: 'Paperwork', aliases: ['customer paperwork', 'print contents'] },
    { key: 'onOrder', title: 'On an order', aliases: ['contents on order', 'on order'] },
    { key: 'partsDiscount', title: 'Discount on parts', amount: true, aliases: ['parts discount', 'discount'] },
    { key: 'kind', title: 'Kind', aliases: ['line kind', 'line type', 'type'] },
    {
      key: 'component',
      title: 'Part',
      aliases: [
        'component',
        'part',
        'child',
        'component code',
        'item',
        'material',
        'child item',
        'part number',
        'component item',
        'code',
        'sku',
      ],
    },
    { key: 'text', title: 'Text', aliases: ['description', 'instruction', 'operation', 'note', 'line text'] },
    {
      key: 'quantity',
      title: 'Quantity',
      amount: true,
      aliases: ['qty', 'quantity per', 'qty per', 'amount', 'usage', 'minutes', 'per'],
    },
    { key: 'counted', title: 'Counted', aliases: ['basis', 'per', 'fixed or variable'] },
    {
      key: 'waste',
      title: 'Waste %',
      amount: true,
      aliases: ['scrap', 'waste', 'scrap %', 'loss', 'scrap factor', 'wastage'],
    },
    { key: 'taken', title: 'Taken', aliases: ['consumption', 'backflush'] },
    { key: 'from', title: 'From bin', aliases: ['bin', 'location', 'from', 'issue from'] },
    { key: 'share', title: 'Take-apart share %', amount: true, aliases: ['share', 'take apart share', 'share %'] },
    { key: 'comesBack', title: 'Comes back', aliases: ['recoverable', 'returns', 'comes back on take-apart'] },
    { key: 'tolerance', title: 'Tolerance %', amount: true, aliases: ['allowed difference', 'tolerance'] },
    { key: 'alternates', title: 'Alternates', aliases: ['alternatives', 'substitutes', 'replacement'] },
    { key: 'rate', title: 'Rate', aliases: ['labour rate', 'labor rate', 'work centre', 'hourly rate'] },
  ],
  hasFields: false,
  spansRows: true,
  shared,
  keyOf({ product = '', purpose = '' }) {
    if (product === '') return '';
    return definitionKey(product, readWordOr(purpose, PURPOSES, 'build'));
  },
  subjectOf: ({ product, component, text, kind }) => [product, component || text || kind].filter(Boolean).join(' · '),
  defaults: {
    product: '',
    purpose: 'build',
    makes: '1',
    state: 'in use',
    made: 'ahead',
    paperwork: 'one line',
    onOrder: 'locked',
    partsDiscount: '',
    kind: '',
    component: '',
    text: '',
    quantity: '',
    counted: 'per output',
    waste: '0',
    taken: '',
    from: '',
    share: '',
    comesBack: '',
    tolerance: '',
    alternates: '',
    rate: '',
  },
  existing: (world) => world.existing,
  readers: {
    product: (cell, { world }) => knownItem(cell, world).code,
    purpose: (cell) => readWord(cell, PURPOSES),
    makes: (cell, { given, world, sign }) =>
      cell === '' ? '1' : aboveZero(readItemQuantity(cell, sign, knownItem(given.product ?? '', world))),
    state: (cell) => readWord(cell, STATES),
    made: (cell) => readWord(cell, MADE),
    paperwork: (cell) => readWord(cell, PAPERWORK),
    onOrder: (cell) => readWord(cell, ON_ORDER),
    partsDiscount: (cell, { sign }) => (cell === '' ? '' : readPercent(cell, 100, sign)),
    kind: (cell) => (cell === '' ? '' : readWord(cell, KINDS)),
    component: (cell, { world }) => (cell === '' ? '' : knownItem(cell, world).code),
    text: (cell) => readText(cell, 1000),
    quantity: (cell) => cell,
    counted: (cell) => readWord(cell, COUNTED),
    waste: (cell, { sign }) => (cell === '' ? '0' : readPercent(cell, 1000, sign)),
    taken: (cell) => (cell === '' ? '' : readWord(cell, TAKEN)),
    from: (cell, { world }) => (cell === '' ? '' : readBin(cell, world)),
    share: (cell, { sign }) => (cell === '' ? '' : readPercent(cell, 100, sign)),
    comesBack: (cell) => (cell === '' ? '' : readYesNo(cell)),
    tolerance: (cell, { sign }) => (cell === '' ? '' : readPercent(cell, 1000, sign)),
    alternates: readAlternates,
    rate(cell, { world }) {
      if (cell === '') return '';
      const rate = world.rates.get(cell.toLowerCase());
      if (!rate) throw new Refusal('unknown-rate', { typed: cell.slice(0, 40), known: [...world.rates.values()] });
      return rate;
    },
  },
  settle: settleLine,
  check: checkDefinition,
};

export const definitionKey = (product: string, purpose: string) => `${product}|${purpose}`.toLowerCase();

function readWordOr<T extends string>(cell: string, words: Readonly<Record<T, readonly string[]>>, otherwise: T): T {
  try {
    return readWord(cell, words);
  } catch {
    return otherwise;
  }
}

/** Brings a line into the form its kind has: what it cannot carry is refused, what it does not say gets its usual value. */
function settleLine(row: FileRecord, { world, sign }: Pick<Reading<ImportWorld>, 'world' | 'sign'>): FileRecord {
  const kind = row.kind || (row.component ? 'part' : row.rate ? 'labour' : row.quantity ? 'charge' : 'note');
  const quantity = row.quantity ?? '';
  const needs = (column: string) => {
    if (!row[column]) throw new Refusal('cell-missing', {}, column);
  };
  const none = {
    component: '',
    rate: '',
    waste: '0',
    taken: '',
    from: '',
    share: '',
    comesBack: '',
    tolerance: '',
    alternates: '',
  };
  if (kind === 'note') {
    needs('text');
    return { ...row, ...none, kind, quantity: '', counted: 'per output' };
  }
  needs('quantity');
  if (kind === 'charge') {
    needs('text');
    return { ...row, ...none, kind, quantity: refusingAt('quantity', () => amountFromZero(quantity, sign, 6)) };
  }
  if (kind === 'labour') {
    needs('rate');
    const minutes = refusingAt('quantity', () => aboveZero(amountFromZero(quantity, sign, 2)));
    return { ...row, ...none, rate: row.rate ?? '', kind, quantity: minutes };
  }
  needs('component');
  const part = knownItem(row.component ?? '', world);
  const comesBack = row.comesBack || 'yes';
  return {
    ...row,
    kind,
    rate: '',
    text: '',
    quantity: refusingAt('quantity', () => aboveZero(readItemQuantity(quantity, sign, part))),
    taken: row.taken || 'picked first',
    comesBack,
    share: comesBack === 'yes' ? (row.share ?? '') : '',
  };
}

/** "MESH-4; MESH-5 x 1.2": what may stand in for the part, the best first, and how much of it for one of the part. */
function readAlternates(cell: string, { given, world, sign }: Reading<ImportWorld>): string {
  const alternates = cell.split(';').flatMap((entry) => {
    if (entry.trim() === '') return [];
    const [, code = '', ratio = '1'] = /^\s*(\S+?)(?:\s+[x×*]\s*([\d.,]+))?\s*$/.exec(entry) ?? [];
    const item = knownItem(code, world);
    if (item.code === given.component) throw new Refusal('alternate-is-part', {});
    if (item.code === given.product) throw new Refusal('alternate-is-product', {});
    return [[item.code, aboveZero(amountFromZero(ratio, sign, 6))] as const];
  });
  if (new Set(alternates.map(([code]) => code)).size < alternates.length) throw new Refusal('alternate-twice', {});
  return writeAlternates(alternates);
}

export const writeAlternates = (alternates: readonly (readonly [code: string, ratio: string])[]) =>
  alternates.map(([code, ratio]) => (ratio === '1' ? code : `${code} x ${ratio}`)).join('; ');

/** The alternates of a settled row. */
export const alternatesOf = (row: FileRecord): [code: string, ratio: string][] =>
  (row.alternates ?? '')
    .split('; ')
    .filter(Boolean)
    .map((entry) => entry.split(' x ') as [string, string?])
    .map(([code, ratio = '1']) => [code, ratio]);

function checkDefinition(
  rows: readonly FileRecord[],
  before: readonly FileRecord[] | undefined,
  context: PlanContext<ImportWorld>,
): void {
  const [first] = rows;
  if (!first) return;
  const { world } = context;
  for (const [index, row] of rows.entries())
    for (const column of shared)
      if (row[column] !== first[column])
        throw new Refusal('shared-differs', { first: first[column] ?? '' }, `rows.${index}.${column}`);
  if (rows.length > 200) throw new Refusal('too-many-lines', { most: 200 }, 'product');
  if (!rows.some((row) => row.kind === 'part' || row.kind === 'labour')) throw new Refusal('no-lines', {}, 'product');
  const known = knownItem(first.product ?? '', world);
  if (before && known.drafts.includes(first.purpose ?? '')) throw new Refusal('draft-exists', {}, 'product');
  if (first.state === 'in use') refuseArchived(rows, world);
  refuseShares(rows);
  const parts = partsOf(rows);
  if (first.purpose === 'build') refuseCycle(first.product ?? '', parts, context);
  if (first.purpose === 'rework' && !parts.includes(first.product ?? ''))
    throw new Refusal('rework-without-itself', {}, 'product');
  refuseContradiction(behaviourOf(first), {
    purpose: first.purpose as 'build',
    tracking: known.tracking,
    hasStock: known.hasStock,
    openBuilds: known.openBuilds,
    partOf: [...(usersOf(context).get((first.product ?? '').toLowerCase()) ?? [])]
      .filter((key) => key !== definitionKey(first.product ?? '', first.purpose ?? ''))
      .map(productOf),
    hasAlternates: rows.some((row) => row.alternates !== ''),
  });
  refusePackedPart(rows, context);
}

/** A revision in use is built by; what is archived cannot be had. */
function refuseArchived(rows: readonly FileRecord[], world: ImportWorld): void {
  for (const [index, row] of rows.entries()) {
    const part = row.component ? knownItem(row.component, world) : undefined;
    if (part?.archived) throw new Refusal('item-archived', { name: part.name }, `rows.${index}.component`);
  }
}

function refuseShares(rows: readonly FileRecord[]): void {
  const lines = rows.map((row) => ({
    typed: row.share ? parsePercent(row.share) : null,
    cost: 0 as Money,
    comesBack: row.comesBack === 'yes',
  }));
  balanceShares(lines);
}

const partsOf = (rows: readonly FileRecord[]) => rows.flatMap((row) => row.component || []);

/** The switches as a file's words say them. */
export function behaviourOf(row: FileRecord): Behaviour {
  const onOrder = row.onOrder ?? 'locked';
  return {
    made: row.made === 'packed per order' ? 'packed-per-order' : 'ahead',
    paperwork: row.paperwork === 'contents' ? 'contents' : 'one-line',
    onOrder: onOrder.startsWith('swaps') ? 'swaps' : (onOrder as Behaviour['onOrder']),
    swapFor: onOrder === 'swaps anything' ? 'anything' : 'listed',
    price: row.partsDiscount ? 'parts' : 'own',
    discount: (row.partsDiscount ? parsePercent(row.partsDiscount) : 0) as Percent,
  };
}

/** Parts of every definition as they will be, by key: the file's own where it has one. */
const partsByKey = once((context: PlanContext<ImportWorld>) => {
  const parts = new Map<string, readonly string[]>(context.world.parts);
  for (const [key, rows] of context.incoming)
    if (rows[0]?.purpose !== 'record')
      parts.set(
        key,
        partsOf(rows).map((code) => code.toLowerCase()),
      );
  return parts;
});

const productOf = (key: string) => key.slice(0, key.lastIndexOf('|'));

/** Product → parts, of what is built. */
const linksOf = once(
  (context: PlanContext<ImportWorld>) =>
    new Map(
      [...partsByKey(context)].flatMap(([key, parts]) => (key.endsWith('|build') ? [[productOf(key), parts]] : [])),
    ),
);

/** Part → definitions that contain it, by key. */
const usersOf = once((context: PlanContext<ImportWorld>) => {
  const users = new Map<string, Set<string>>();
  for (const [key, parts] of partsByKey(context))
    for (const part of parts) users.set(part, (users.get(part) ?? new Set()).add(key));
  return users;
});

function refuseCycle(product: string, parts: readonly string[], context: PlanContext<ImportWorld>): void {
  const links = linksOf(context);
  const path = findCycle(product.toLowerCase(), (code) => links.get(code) ?? []);
  if (!path) return;
  const index = parts.findIndex((part) => part.toLowerCase() === path[1]);
  throw new Refusal(
    'contains-itself',
    { path: path.map((code) => context.world.items.get(code)?.code ?? code) },
    `rows.${Math.max(0, index)}.component`,
  );
}

/** A kit packed per order is never in stock, so nothing can be built from it. */
function refusePackedPart(rows: readonly FileRecord[], context: PlanContext<ImportWorld>): void {
  for (const [index, row] of rows.entries()) {
    if (!row.component) continue;
    const key = definitionKey(row.component, 'build');
    const definition = context.incoming.get(key)?.[0] ?? context.world.existing.get(key)?.[0];
    if (definition?.made === 'packed per order')
      throw new Refusal('part-is-packed', { part: row.component }, `rows.${index}.component`);
  }
}

/** Works something out once for the same file. */
function once<R>(work: (context: PlanContext<ImportWorld>) => R): (context: PlanContext<ImportWorld>) => R {
  const known = new WeakMap<object, R>();
  return (context) => {
    const before = known.get(context.incoming);
    if (before) return before;
    const result = work(context);
    known.set(context.incoming, result);
    return result;
  };
}
