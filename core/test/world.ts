import type { FileKindName, FileRecord, ImportWorld, KnownItem } from '../src/exchange/index.ts';
import { fileKinds, planImport } from '../src/exchange/index.ts';

// A small made-up company for the tests of files.

export const known = (code: string, more: Partial<KnownItem> = {}): KnownItem => ({
  code,
  name: `The ${code}`,
  unit: 'each',
  decimals: 0,
  measures: [],
  tracking: 'none',
  archived: false,
  hasHistory: false,
  hasMoved: false,
  hasStock: false,
  isPromised: false,
  isPacked: false,
  notForSale: false,
  hasPrice: true,
  openBuilds: [],
  drafts: [],
  ...more,
});

export const world = (more: Partial<ImportWorld> & { known?: KnownItem[] } = {}): ImportWorld => ({
  units: new Map([
    ['each', { code: 'each', decimals: 0 }],
    ['kg', { code: 'kg', decimals: 3 }],
  ]),
  bins: new Map([
    ['main/a1', 'MAIN/A1'],
    ['shed/a1', 'SHED/A1'],
    ['a1', null],
    ['main/b1', 'MAIN/B1'],
    ['b1', 'MAIN/B1'],
  ]),
  suppliers: new Map([['ns', { code: 'NS', name: 'North Shed Timber' }]]),
  rates: new Map([['bench hour', 'Bench hour']]),
  customers: new Map(),
  barcodes: new Map(),
  existing: new Map(),
  parts: new Map(),
  ...more,
  items: new Map((more.known ?? []).map((item) => [item.code.toLowerCase(), item])),
});

export const plan = (kind: FileKindName, rows: FileRecord[], around: ImportWorld, sign: 'point' | 'comma' = 'point') =>
  planImport(
    fileKinds[kind],
    rows.map((cells, index) => ({ row: index + 2, cells })),
    around,
    sign,
  );

/** The same company with four items in it. */
export const company = (more: Parameters<typeof world>[0] = {}) =>
  world({ known: ['NAIL', 'PIN', 'BOX', 'SET'].map((code) => known(code)), ...more });

/** Everything that is wrong with each row of a file: "column: code {facts}". */
export const faults = (
  kind: FileKindName,
  rows: FileRecord[],
  around: ImportWorld = company(),
  sign: 'point' | 'comma' = 'point',
) =>
  plan(kind, rows, around, sign).fates.map((fate) =>
    fate.faults.map(({ column, code, facts }) => `${column}: ${code} ${JSON.stringify(facts)}`),
  );
