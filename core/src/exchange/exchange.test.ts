import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { known, plan, world } from '../../test/world.ts';
import type { Quantity } from '../number/index.ts';
import {
  type FileRecord,
  fileKinds,
  guessDecimalSign,
  guessMatching,
  harmless,
  readAmount,
  readCell,
} from './index.ts';

const fates = (...args: Parameters<typeof plan>) =>
  plan(...args).fates.map(({ fate, faults }) =>
    faults.length ? faults.map(({ column, code }) => `${column}: ${code}`) : fate,
  );

describe('cells', () => {
  it('that begin like a formula are written harmless and read back as they were', () => {
    expect(['=1+1', '+4', '-x', '@SUM(A1)', "'=1", 'plain', "it's"].map(harmless)).toEqual([
      "'=1+1",
      "'+4",
      "'-x",
      "'@SUM(A1)",
      "''=1",
      'plain',
      "it's",
    ]);
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.string({ unit: fc.constantFrom("'", '=', '-', 'a', '\t') })), (cell) => {
        expect(readCell(harmless(cell))).toBe(cell);
        expect(harmless(cell)).not.toMatch(/^[=+\-@\t\r]/);
      }),
    );
  });

  it.each<[string, 'point' | 'comma', string]>([
    ['1.234,50', 'comma', '1234.5'],
    ['1,234.50', 'point', '1234.5'],
    ['1 234.5', 'point', '1234.5'],
    ["1'234.50", 'point', '1234.5'],
    ['€ 12,00', 'comma', '12'],
    ['12.50 EUR', 'point', '12.5'],
    ['-3', 'point', '-3'],
    ['1.234', 'comma', '1234'],
    ['0.125', 'point', '0.125'],
  ])('reads %j with a decimal %s', (cell, sign, amount) => expect(readAmount(cell, sign)).toBe(amount));

  it.each<[string, 'point' | 'comma']>([
    ['1,5', 'point'],
    ['1.5', 'comma'],
    ['1,23,456', 'point'],
    ['twelve', 'point'],
    ['', 'point'],
    ['1.5.5', 'point'],
  ])('refuses %j with a decimal %s', (cell, sign) => expect(() => readAmount(cell, sign)).toThrow('not-a-number'));

  it('hears which decimal sign a file speaks', () => {
    expect(guessDecimalSign(['12', '1,5', '1.234,50', ''])).toBe('comma');
    expect(guessDecimalSign(['12', '1.5', '1,234.50'])).toBe('point');
    expect(guessDecimalSign(['1,234', 'n/a'])).toBe('point');
  });
});

describe('column matching', () => {
  it('knows a title in any case, with any signs around it', () => {
    expect(guessMatching(['CODE', 'sell PRICE', ' Reorder-Point ', 'FIELD: Hue'], fileKinds.items.columns)).toEqual([
      'code',
      'sellPrice',
      'reorderPoint',
      'field:Hue',
    ]);
  });

  it('takes the same word, another word for it, or the nearest, and none twice', () => {
    const titles = [
      'SKU',
      'Item description',
      'UoM',
      'Sell Price (EUR)',
      'EAN-13',
      'Reorder lvl',
      'Colour',
      'Field: Warranty months',
    ];
    expect(guessMatching(titles, fileKinds.items.columns)).toEqual([
      'code',
      'name',
      'unit',
      'sellPrice',
      'barcode',
      'reorderPoint',
      null,
      'field:Warranty months',
    ]);
    expect(guessMatching(['Code', 'Code', 'Name'], fileKinds.items.columns)).toEqual(['code', null, 'name']);
    const bom = ['Parent', 'Part', 'Qty per', 'Scrap %', 'Operation'];
    expect(guessMatching(bom, fileKinds.definitions.columns)).toEqual([
      'product',
      'component',
      'quantity',
      'waste',
      'text',
    ]);
  });

  it.each(Object.entries(fileKinds))('knows our own titles of %s again', (_, kind) => {
    expect(
      guessMatching(
        kind.columns.map(({ title }) => title),
        kind.columns,
      ),
    ).toEqual(kind.columns.map(({ key }) => key));
  });
});

describe('items', () => {
  it('get one fate each, with every reason for a refusal', () => {
    const existing = new Map([['oil', [{ ...fileKinds.items.defaults, code: 'OIL', name: 'Tung oil', unit: 'kg' }]]]);
    const around = world({
      existing,
      known: [known('OIL', { unit: 'kg', decimals: 3, hasHistory: true, hasStock: true })],
      barcodes: new Map([['96385074', 'OIL']]),
    });
    expect(
      fates(
        'items',
        [
          { code: 'NAIL', name: 'Nails', unit: 'KG', sellPrice: '1,250.00' },
          { code: 'oil', name: 'Tung oil, pure' },
          { code: 'nail', name: 'Nails again' },
          { code: 'A B', name: '', unit: 'crate', sellPrice: 'dear', barcode: '96385075' },
          { code: 'PIN', name: 'Pin', barcode: '96385074', reorderPoint: '1.5' },
          { code: 'Peg', name: 'Peg', barcode: '96385074' },
        ],
        around,
      ),
    ).toEqual([
      'new',
      'changed',
      ['null: row-repeated'],
      [
        'code: code-shape',
        'name: cell-missing',
        'unit: unknown-unit',
        'sellPrice: not-a-number',
        'barcode: barcode-check-digit',
      ],
      ['reorderPoint: too-many-decimals'],
      ['barcode: barcode-taken'],
    ]);
    expect(fates('items', [{ code: 'OIL', name: 'Tung oil', unit: 'each' }], around)).toEqual([['unit: unit-in-use']]);
    expect(fates('items', [{ code: 'OIL', name: 'Tung oil', archived: 'x' }], around)).toEqual([
      ['archived: archive-has-stock'],
    ]);
  });

  it('may swap barcodes within a file, but not take one that its owner keeps', () => {
    const record = (code: string, barcode: string) => ({ ...fileKinds.items.defaults, code, name: code, barcode });
    const around = world({
      existing: new Map([
        ['nail', [record('NAIL', '96385074')]],
        ['pin', [record('PIN', '4006381333931')]],
      ]),
      known: [known('NAIL'), known('PIN')],
      barcodes: new Map([
        ['96385074', 'NAIL'],
        ['4006381333931', 'PIN'],
      ]),
    });
    const rows = [
      { code: 'nail', barcode: '4006381333931' },
      { code: 'pin', barcode: '96385074' },
    ];
    expect(fates('items', rows, around)).toEqual(['changed', 'changed']);
    const keeping = plan('items', [rows[0] ?? {}, { code: 'pin', name: 'Pin' }], around);
    expect(keeping.fates[0]?.faults).toMatchObject([
      { column: 'barcode', code: 'barcode-taken', facts: { by: 'PIN' } },
    ]);
    expect(keeping.changes).toEqual([]);
  });

  it.each<[Parameters<typeof plan>[0], FileRecord, string]>([
    ['items', { code: 'PEG', name: 'Peg', sellPrice: '-1' }, 'sellPrice: negative'],
    ['items', { code: 'PEG', name: 'Peg', standardCost: '-0.5' }, 'standardCost: negative'],
    ['items', { code: 'PEG', name: 'Peg', reorderPoint: '-2' }, 'reorderPoint: negative'],
    ['items', { code: 'PEG', name: 'Peg', packs: 'box = 0' }, 'packs: pack-shape'],
    ['items', { code: 'PEG', name: 'Peg', packs: 'box = -12' }, 'packs: negative'],
    ['prices', { item: 'NAIL', supplier: 'NS', price: '-1' }, 'price: negative'],
    ['prices', { item: 'NAIL', supplier: 'NS', price: '1', pack: '0' }, 'pack: not-positive'],
    ['prices', { item: 'NAIL', supplier: 'NS', price: '1', pack: '-6' }, 'pack: negative'],
    ['prices', { item: 'NAIL', supplier: 'NS', price: '1', minimum: '-6' }, 'minimum: negative'],
    ['prices', { item: 'NAIL', supplier: 'NS', price: '1', leadDays: '-3' }, 'leadDays: out-of-range'],
    ['prices', { item: 'NAIL', supplier: 'NS', price: 'n/a' }, 'price: not-a-number'],
    ['stock', { item: 'NAIL', bin: 'B1', quantity: '-1' }, 'quantity: negative'],
    ['stock', { item: 'NAIL', bin: 'B1', quantity: '1', unitCost: '-1' }, 'unitCost: negative'],
    ['definitions', { product: 'BOX', component: 'NAIL', quantity: '0' }, 'quantity: not-positive'],
    ['definitions', { product: 'BOX', component: 'NAIL', quantity: '-3' }, 'quantity: negative'],
    ['definitions', { product: 'BOX', makes: '0', component: 'NAIL', quantity: '1' }, 'makes: not-positive'],
    ['definitions', { product: 'BOX', component: 'NAIL', quantity: '1', waste: '-5 %' }, 'waste: out-of-range'],
    ['definitions', { product: 'BOX', component: 'NAIL', quantity: '1', share: '100.5' }, 'share: out-of-range'],
    [
      'definitions',
      { product: 'BOX', component: 'NAIL', quantity: '1', alternates: 'PIN x 0' },
      'alternates: not-positive',
    ],
    ['definitions', { product: 'BOX', rate: 'bench hour', quantity: '0' }, 'quantity: not-positive'],
    ['definitions', { product: 'BOX', quantity: '-1', text: 'Fee' }, 'quantity: negative'],
  ])('of a %s file are refused where they make no sense: %j', (kind, row, fault) => {
    const around = world({ known: ['NAIL', 'PIN', 'BOX'].map((code) => known(code)) });
    expect(fates(kind, [row], around)[0]).toContain(fault);
  });

  it('keep what a file has no column for, and clear what it leaves empty', () => {
    const before = {
      ...fileKinds.items.defaults,
      code: 'OIL',
      name: 'Oil',
      note: 'Keep cool',
      sellPrice: '4',
      'field:Grade': 'A',
    };
    const around = world({ existing: new Map([['oil', [before]]]) });
    const { changes } = plan(
      'items',
      [{ code: 'OIL', name: 'Oil', sellPrice: '', 'field:Grade': '', 'field:Hue': 'gold' }],
      around,
    );
    expect(changes[0]?.rows[0]).toMatchObject({ note: 'Keep cool', sellPrice: '', 'field:Hue': 'gold' });
    expect(changes[0]?.rows[0]).not.toHaveProperty('field:Grade');
  });
});

describe('opening stock', () => {
  const oil = known('OIL', { unit: 'kg', decimals: 3, measures: [{ name: 'g', one: 1000 as Quantity }] });
  it('comes in where nothing is, and is left alone where it is the same', () => {
    const existing = new Map([['nail|main/b1', [{ item: 'NAIL', bin: 'MAIN/B1', quantity: '40', unitCost: '0.5' }]]]);
    const around = world({
      existing,
      known: [oil, known('NAIL', { hasStock: true }), known('CAN', { hasMoved: true })],
    });
    const row = (item: string, bin: string, quantity: string, unitCost = '0,5') => ({ item, bin, quantity, unitCost });
    expect(
      fates(
        'stock',
        [
          row('oil', 'main/a1', '450 g', '16'),
          row('NAIL', 'B1', '40', '0,5'),
          row('NAIL', 'B1', '41'),
          row('CAN', 'B1', '3'),
          row('CAN', 'MAIN/A1', '0'),
          row('OIL', 'A1', '1'),
          row('TIN', 'X9', '1'),
        ],
        around,
        'comma',
      ),
    ).toEqual([
      'new',
      'same',
      ['null: row-repeated'],
      ['item: stock-has-moved'],
      'same',
      ['bin: bin-in-many-stores'],
      ['item: unknown-item-code', 'bin: unknown-bin-code', 'quantity: unknown-item-code'],
    ]);
  });
});

describe('definitions', () => {
  const items = ['HIVE', 'BOX', 'NAIL', 'SET', 'FELT'].map((code) => known(code));
  it('read rows below a product as its lines, each kind by what it has', () => {
    const { changes, fates } = plan(
      'definitions',
      [
        { product: 'HIVE', makes: '2', component: 'BOX', quantity: '1', alternates: 'FELT x 1,5; NAIL' },
        { product: '', component: 'nail', quantity: '16', waste: '4 %', taken: 'backflush', comesBack: 'no' },
        { product: '', rate: 'bench hour', quantity: '20', text: 'Assemble' },
        { product: '', quantity: '1.5', text: 'Branding' },
        { product: 'hive', text: 'Oil twice' },
      ],
      world({ known: items }),
    );
    expect(fates.flatMap(({ faults }) => faults)).toEqual([
      { column: 'alternates', code: 'not-a-number', facts: { typed: '1,5' } },
    ]);
    expect(changes).toEqual([]);
    const mended = plan(
      'definitions',
      [
        { product: 'HIVE', makes: '2', component: 'BOX', quantity: '1', alternates: 'FELT x 1.5; NAIL' },
        { product: '', component: 'nail', quantity: '16', waste: '4 %', taken: 'backflush', comesBack: 'no' },
        { product: '', rate: 'bench hour', quantity: '20', text: 'Assemble' },
        { product: '', quantity: '1.5', text: 'Branding' },
        { product: 'hive', text: 'Oil twice' },
      ],
      world({ known: items }),
    );
    expect(mended.changes[0]?.rows.map(({ kind, makes, quantity, taken }) => [kind, makes, quantity, taken])).toEqual([
      ['part', '2', '1', 'picked first'],
      ['part', '2', '16', 'when finished'],
      ['labour', '2', '20', ''],
      ['charge', '2', '1.5', ''],
      ['note', '2', '', ''],
    ]);
  });

  it('refuse what cannot be: circles through the file and the books, packed parts, shares, differing heads', () => {
    const row = (product: string, component: string, more: FileRecord = {}) => ({
      product,
      component,
      quantity: '1',
      ...more,
    });
    const books = world({ known: items, parts: new Map([['box|build', ['set']]]) });
    const result = plan('definitions', [row('SET', 'HIVE'), row('HIVE', 'BOX')], books);
    expect(result.fates[0]?.faults).toEqual([
      { column: 'component', code: 'contains-itself', facts: { path: ['SET', 'HIVE', 'BOX', 'SET'] } },
    ]);
    const packed = [row('SET', 'NAIL', { made: 'packed' }), row('HIVE', 'SET')];
    expect(fates('definitions', packed, world({ known: items }))).toEqual([
      ['made: kit-is-part'],
      ['component: part-is-packed'],
    ]);
    const shares = [row('SET', 'NAIL', { share: '60' }), row('SET', 'BOX', { share: '50' })];
    expect(fates('definitions', shares, world({ known: items }))[0]).toEqual(['share: shares-over']);
    const heads = [row('SET', 'NAIL', { makes: '2' }), row('SET', 'BOX', { makes: '3' })];
    expect(fates('definitions', heads, world({ known: items }))[1]).toEqual(['makes: shared-differs']);
    expect(fates('definitions', [row('SET', 'NAIL', { purpose: 'rework' })], world({ known: items }))[0]).toEqual([
      'product: rework-without-itself',
    ]);
  });
});
