import { describe, expect, it } from 'vitest';
import { company as around, faults, known, plan } from '../../test/world.ts';
import {
  breaksIn,
  type FileKindName,
  type FileRecord,
  fileKinds,
  type ImportWorld,
  planImport,
  readWord,
  writeBreaks,
} from './index.ts';

const only = (kind: FileKindName, row: FileRecord, from?: ImportWorld) => faults(kind, [row], from)[0];
const record = (kind: FileKindName, row: FileRecord, from: ImportWorld = around()) =>
  plan(kind, [row], from).changes[0]?.rows[0];
const long = (n: number) => 'x'.repeat(n);

describe('a file as a whole', () => {
  it('tells each row once, with what it is about, in the order of the file', () => {
    const rows: FileRecord[] = [
      { code: 'PEG', name: 'Peg' },
      { code: 'peg', name: 'Peg again' },
      { code: '', name: 'Nameless' },
      { code: '', name: '' },
      { code: 'PIN', name: 'Pin', note: 'sharp' },
    ];
    const before = { ...fileKinds.items.defaults, code: 'PIN', name: 'Pin' };
    const result = plan('items', rows, around({ existing: new Map([['pin', [before]]]) }));
    expect(result.fates).toEqual([
      { row: 2, fate: 'new', subject: 'PEG · Peg', changes: [], faults: [] },
      {
        row: 3,
        fate: 'refused',
        subject: 'peg · Peg again',
        changes: [],
        faults: [{ column: null, code: 'row-repeated', facts: { first: 2 } }],
      },
      {
        row: 4,
        fate: 'refused',
        subject: 'Nameless',
        changes: [],
        faults: [{ column: 'code', code: 'cell-missing', facts: {} }],
      },
      {
        row: 5,
        fate: 'refused',
        subject: '',
        changes: [],
        faults: ['code', 'name'].map((column) => ({ column, code: 'cell-missing', facts: {} })),
      },
      { row: 6, fate: 'changed', subject: 'PIN · Pin', changes: ['note'], faults: [] },
    ]);
    expect(result.changes.map(({ fate, key }) => [fate, key])).toEqual([
      ['new', 'peg'],
      ['changed', 'pin'],
    ]);
  });

  it('says what its rows are about', () => {
    const subject = (kind: FileKindName, row: FileRecord) => plan(kind, [row], around()).fates[0]?.subject;
    expect(subject('prices', { item: 'NAIL', supplier: 'NS', price: '1' })).toBe('NAIL from NS');
    expect(subject('stock', { item: 'NAIL', bin: 'B1', quantity: '1', unitCost: '1' })).toBe('NAIL in MAIN/B1');
    expect(subject('definitions', { product: 'BOX', component: 'NAIL', quantity: '1' })).toBe('BOX · NAIL');
    expect(subject('definitions', { product: 'BOX', text: 'Mind the grain' })).toBe('BOX · Mind the grain');
    expect(subject('definitions', { product: 'BOX', rate: 'Bench hour', quantity: '5' })).toBe('BOX · labour');
  });

  it('counts its rows as it goes, and stops where it is told to', () => {
    const rows = Array.from({ length: 1001 }, (_, index) => ({
      row: index + 2,
      cells: { code: `P${index}`, name: 'P' },
    }));
    const told: number[] = [];
    planImport(fileKinds.items, rows, around(), 'point', (done) => told.push(done));
    expect(told).toEqual([0, 500, 1000, 1001]);
    const stop = () => {
      throw new Error('stopped');
    };
    expect(() => planImport(fileKinds.items, rows, around(), 'point', stop)).toThrow('stopped');
  });

  it('tells what could not even be read of a row instead of judging what is left of it', () => {
    const broken = [
      { column: 'name', code: 'cell-error', facts: { cell: 'B7' } },
      { column: '', code: 'cells-too-many', facts: { cells: 3, titles: 2 } },
    ] as const;
    const { fates } = planImport(
      fileKinds.items,
      [{ row: 7, cells: { code: '', name: 'X' }, broken }],
      around(),
      'point',
    );
    expect(fates).toEqual([
      { row: 7, fate: 'refused', subject: 'X', changes: [], faults: [broken[0], { ...broken[1], column: null }] },
    ]);
  });

  it('does not hide a fault of our own behind a row', () => {
    const kind = {
      ...fileKinds.items,
      readers: {
        ...fileKinds.items.readers,
        name: () => {
          throw new TypeError('ours');
        },
      },
    };
    expect(() => planImport(kind, [{ row: 2, cells: { code: 'A', name: 'B' } }], around(), 'point')).toThrow('ours');
  });
});

describe('words of a cell', () => {
  it('are known by any of their names, in any case and spacing', () => {
    const words = { bought: ['buy', 'made and bought'], made: [] };
    expect(
      ['Bought', 'BUY', 'made', 'made_and-bought', 'Made  and Bought'].map((cell) => readWord(cell, words)),
    ).toEqual(['bought', 'bought', 'made', 'bought', 'bought']);
    expect(() => readWord(long(50), words)).toThrow(
      expect.objectContaining({ code: 'word-unknown', facts: { typed: long(40), known: ['bought', 'made'] } }),
    );
  });

  it.each(['yes', 'Y', 'true', '1', 'x', 'on'])('%j is yes', (cell) => {
    expect(record('items', { code: 'A', name: 'A', taxFree: cell })?.taxFree).toBe('yes');
  });
  it.each(['no', 'N', 'false', '0', 'off', '-', ''])('%j is no', (cell) => {
    expect(record('items', { code: 'A', name: 'A', taxFree: cell })?.taxFree).toBe('no');
  });
});

describe('items', () => {
  const row = { code: 'PEG', name: 'Peg' };
  it.each<[FileRecord, string]>([
    [{ ...row, code: 'A B' }, 'code: code-shape {"typed":"A B"}'],
    [{ ...row, code: 'A/B' }, 'code: code-shape {"typed":"A/B"}'],
    [{ ...row, code: long(70) }, `code: code-shape {"typed":"${long(60)}"}`],
    [{ ...row, code: 'A\u200bB' }, 'code: code-shape {"typed":"A\u200bB"}'],
    [{ ...row, name: long(121) }, 'name: text-too-long {"most":120,"is":121}'],
    [{ ...row, note: long(2001) }, 'note: text-too-long {"most":2000,"is":2001}'],
    [{ ...row, unit: long(50) }, `unit: unknown-unit {"typed":"${long(40)}","known":["each","kg"]}`],
    [{ ...row, source: 'stolen' }, 'source: word-unknown {"typed":"stolen","known":["bought","made","both"]}'],
    [{ ...row, homeBin: 'A1' }, 'homeBin: bin-in-many-stores {"typed":"A1"}'],
    [{ ...row, homeBin: long(50) }, `homeBin: unknown-bin-code {"typed":"${long(40)}"}`],
    [{ ...row, reorderPoint: '1.5' }, 'reorderPoint: too-many-decimals {"typed":"1.5","decimals":0}'],
    [{ ...row, packs: 'twelve' }, 'packs: pack-shape {"typed":"twelve"}'],
    [{ ...row, packs: ' = 12' }, 'packs: pack-shape {"typed":"= 12"}'],
    [{ ...row, packs: `box = 0; ${long(60)}` }, 'packs: pack-shape {"typed":"box = 0"}'],
    [{ ...row, packs: `box = 1; ${long(60)}` }, `packs: pack-shape {"typed":"${long(40)}"}`],
    [{ ...row, packs: '=12 pieces' }, 'packs: pack-shape {"typed":"=12 pieces"}'],
    [{ ...row, packs: 'box = 12; Box = 6' }, 'packs: pack-twice {"name":"box"}'],
    [{ ...row, packs: 'box = 1.5' }, 'packs: too-many-decimals {"typed":"1.5","decimals":0}'],
    [{ ...row, [`field:${long(61)}`]: 'x' }, `field:${long(61)}: text-too-long {"most":60,"is":61}`],
    [{ ...row, 'field:Hue': long(201) }, 'field:Hue: text-too-long {"most":200,"is":201}'],
    [{ ...row, name: 'A\u0000' }, 'name: unprintable {"at":2}'],
  ])('%j', (cells, fault) => {
    expect(only('items', cells)?.map((one) => one.replace(/unprintable .*/, 'unprintable {"at":2}'))).toEqual([fault]);
  });

  it('take as many packs and fields as a form does, and no more', () => {
    const letters = 'abcdefghijklmnopqrstuvwxyz';
    const packs = (n: number) => [...letters.slice(0, n)].map((name) => `${name} = 2`).join('; ');
    expect(only('items', { ...row, packs: packs(20) })).toEqual([]);
    expect(only('items', { ...row, packs: packs(21) })).toEqual(['packs: too-many {"most":20}']);
    const fields = (n: number) => Object.fromEntries(Array.from({ length: n }, (_, at) => [`field:F${at}`, 'x']));
    expect(only('items', { ...row, ...fields(40) })).toEqual([]);
    expect(only('items', { ...row, ...fields(41) })).toEqual(['field:F40: too-many {"most":40}']);
  });

  it('keep packs as we write them, in the decimals of their unit, and a code of 40', () => {
    expect(record('items', { ...row, unit: 'KG', packs: ' bag:0.25 ;; Sack-2 =  1.50 ;' })?.packs).toBe(
      'bag = 0.25; Sack-2 = 1.5',
    );
    expect(record('items', { ...row, code: long(40), reorderPoint: '3', unit: '', source: '' })).toMatchObject({
      code: long(40),
      unit: 'each',
      source: 'bought',
      reorderPoint: '3',
      homeBin: '',
    });
    expect(record('items', { ...row, unit: 'kg', reorderPoint: '0.125', homeBin: 'main/a1' })).toMatchObject({
      reorderPoint: '0.125',
      homeBin: 'MAIN/A1',
    });
  });

  it('are read without the spaces around them, up to the most that is kept', () => {
    const trimmed = record('items', { code: '  PEG ', name: ' Peg ', note: ' x ', 'field:Hue': ' red ' });
    expect(trimmed).toMatchObject({ code: 'PEG', name: 'Peg', note: 'x', 'field:Hue': 'red' });
    expect(
      plan(
        'items',
        [
          { code: ' peg ', name: 'Peg' },
          { code: 'PEG', name: 'Peg' },
        ],
        around(),
      ).fates.map(({ fate }) => fate),
    ).toEqual(['new', 'refused']);
    expect(
      only('items', { ...row, name: long(120), note: long(2000), 'field:Hue': long(200), [`field:${long(60)}`]: 'x' }),
    ).toEqual([]);
  });

  it('know their fields in any case, and forget those that a file leaves empty', () => {
    const before = { ...fileKinds.items.defaults, ...row, 'field:Hue': 'red', 'field:Size': 'L' };
    const existing = new Map([['peg', [before]]]);
    const changed = record('items', { code: 'PEG', 'field:HUE': ' blue ', 'field:size': ' ' }, around({ existing }));
    expect(changed).toMatchObject({ 'field:Hue': 'blue' });
    expect(Object.keys(changed ?? {}).filter((key) => key.startsWith('field:'))).toEqual(['field:Hue']);
  });

  it('may not take the barcode of one that keeps it, in the books or in the file', () => {
    const from = around({ barcodes: new Map([['96385074', 'NAIL']]) });
    expect(only('items', { ...row, barcode: '96385074' }, from)).toEqual([
      'barcode: barcode-taken {"barcode":"96385074","by":"NAIL"}',
    ]);
    expect(only('items', { code: 'nail', name: 'Nail', barcode: '96385074' }, from)).toEqual([]);
    expect(
      faults('items', [
        { ...row, barcode: '96385074' },
        { code: 'PEG-2', name: 'Peg', barcode: '96385074' },
      ]),
    ).toEqual([[], ['barcode: barcode-taken {"barcode":"96385074","by":"peg"}']]);
  });

  it('are judged by what is there of them', () => {
    const from = (more: object) =>
      around({
        known: [known('PEG', more)],
        existing: new Map([['peg', [{ ...fileKinds.items.defaults, ...row }]]]),
      });
    const change = (cells: FileRecord, more: object = {}) => only('items', { code: 'PEG', ...cells }, from(more));
    expect(change({ unit: 'kg' }, { hasHistory: true })).toEqual(['unit: unit-in-use {}']);
    expect(change({ tracking: 'lot' }, { hasStock: true })).toEqual(['tracking: tracking-in-use {}']);
    expect(change({ tracking: 'lot' }, { isPacked: true })).toEqual(['tracking: kit-is-tracked {"tracking":"lot"}']);
    expect(change({ archived: 'yes' }, { isPromised: true })).toEqual(['archived: archive-is-promised {}']);
    expect(change({ unit: 'kg', tracking: 'lot', archived: 'yes' })).toEqual([]);
    expect(only('items', { ...row, unit: 'kg', tracking: 'serial' })).toEqual(['tracking: serial-needs-whole {}']);
    expect(only('items', { ...row, code: 'FRESH', archived: 'yes', tracking: 'lot' })).toEqual([]);
  });
});

describe('prices by quantity, patterns and rules of lots', () => {
  it('are read in any spacing and sign, and refused with what was typed', () => {
    const row = { item: 'nail', supplier: 'ns', price: '2' };
    const breaks = (cell: string) => plan('prices', [{ ...row, breaks: cell }], around(), 'comma').fates[0]?.faults;
    const typed = { ...row, breaks: '1000=1,5; 100 = 1,80;' };
    const [change] = plan('prices', [typed], around(), 'comma').changes;
    expect(change?.rows[0]?.breaks).toBe('100 = 1.8; 1000 = 1.5');
    for (const [cell, code] of [
      ['100', 'break-shape'],
      ['100 = 1 = 2', 'break-shape'],
      ['100 = 1; 100 = 2', 'break-shape'],
      ['0 = 1', 'not-positive'],
      [Array.from({ length: 13 }, (_, n) => `${n + 1} = 1`).join(';'), 'too-many'],
    ] as const)
      expect([cell, breaks(cell)]).toEqual([cell, [expect.objectContaining({ column: 'breaks', code })]]);
  });
});

it('breaks of a price are taken apart as they were put together', () => {
  const breaks = [
    ['100', '1.8'],
    ['1000', '1.5'],
  ] as const;
  expect(breaksIn(writeBreaks([...breaks].reverse()))).toEqual(breaks);
  expect(breaksIn('')).toEqual([]);
});

describe('prices', () => {
  const row = { item: 'nail', supplier: 'ns', price: '1,25' };
  it('are kept in our own words, with what a new one has where the file says nothing', () => {
    const [change] = plan(
      'prices',
      [{ ...row, pack: '', minimum: '', leadDays: '007', supplierName: '' }],
      around(),
      'comma',
    ).changes;
    expect(change).toEqual({
      fate: 'new',
      key: 'nail|ns',
      rows: [
        {
          item: 'NAIL',
          supplier: 'NS',
          supplierName: 'North Shed Timber',
          supplierItem: '',
          price: '1.25',
          pack: '1',
          minimum: '0',
          breaks: '',
          leadDays: '7',
        },
      ],
    });
    expect(record('prices', { ...row, price: '1', leadDays: '', supplier: 'FRESH' })).toMatchObject({
      supplier: 'FRESH',
      supplierName: '',
      leadDays: '',
    });
  });

  it.each<[FileRecord, string]>([
    [{ leadDays: '1000' }, 'leadDays: out-of-range {"least":0,"most":999}'],
    [{ leadDays: '5 days' }, 'leadDays: out-of-range {"least":0,"most":999}'],
    [{ item: long(70) }, `item: unknown-item-code {"typed":"${long(60)}"}`],
    [{ supplier: 'A B' }, 'supplier: code-shape {"typed":"A B"}'],
    [{ supplierName: 'South Shed' }, 'supplierName: supplier-two-names {"supplier":"NS","name":"North Shed Timber"}'],
    [{ pack: '0' }, 'pack: not-positive {}'],
  ])('%j', (cells, fault) => {
    expect(only('prices', { ...row, price: '1', ...cells })).toContain(fault);
  });

  it('call a supplier by one name, known or first said in the file', () => {
    expect(only('prices', { ...row, price: '1', supplierName: 'North Shed Timber' })).toEqual([]);
    const fresh = (item: string, supplierName: string) => ({ item, supplier: 'NEW', supplierName, price: '1' });
    expect(
      faults('prices', [
        fresh('NAIL', ''),
        fresh('PIN', 'New Iron'),
        fresh('BOX', 'New Iron'),
        fresh('SET', 'Old Iron'),
      ]),
    ).toEqual([[], [], [], ['supplierName: supplier-two-names {"supplier":"NEW","name":"New Iron"}']]);
    // Without a supplier there is no record to be the same as another.
    expect(
      faults('prices', [
        { ...row, supplier: '', price: '1' },
        { ...row, supplier: '', price: '1' },
      ]),
    ).toEqual([['supplier: cell-missing {}'], ['supplier: cell-missing {}']]);
  });

  it('are for packs typed in any unit of the item', () => {
    const from = around({
      known: [known('NAIL', { unit: 'kg', decimals: 3, measures: [{ name: 'box', one: 2_500_000 as never }] })],
    });
    const pack = (cell: string) => record('prices', { ...row, price: '1', pack: cell }, from)?.pack;
    expect(['450', '1.5 kg', '2 box', '1/2 box', '1,000', '2.', '3box'].map(pack)).toEqual([
      '450',
      '1.5',
      '5',
      '1.25',
      '1000',
      '2',
      '7.5',
    ]);
    expect(only('prices', { ...row, price: '1', pack: '2 crates' }, from)?.[0]).toContain('pack: unknown-measure');
    expect(only('prices', { ...row, price: '1', pack: 'box' }, from)?.[0]).toContain('pack: not-a-number');
  });
});

describe('opening stock', () => {
  const row = { item: 'NAIL', bin: 'B1', quantity: '4', unitCost: '2' };
  const there = new Map([['nail|main/b1', [{ item: 'NAIL', bin: 'MAIN/B1', quantity: '4', unitCost: '2' }]]]);
  it('is refused where something stands already, and is the same where it is', () => {
    const from = around({ existing: there });
    expect(plan('stock', [row], from).fates[0]?.fate).toBe('same');
    const already = ['quantity: stock-there-already {"quantity":"4","unitCost":"2"}'];
    expect(only('stock', { ...row, quantity: '5' }, from)).toEqual(already);
    expect(only('stock', { ...row, unitCost: '3' }, from)).toEqual(already);
  });

  it.each<[object, string[]]>([
    [{ archived: true }, ['item: item-archived {"name":"The NAIL"}']],
    [{ isPacked: true }, ['item: packed-not-stocked {"name":"The NAIL"}']],
    [{ tracking: 'lot' }, ['item: stock-is-tracked {"tracking":"lot"}']],
    [{ tracking: 'serial' }, ['item: stock-is-tracked {"tracking":"serial"}']],
    [{ hasMoved: true }, ['item: stock-has-moved {}']],
    [{}, []],
  ])('of an item that is %j', (more, expected) => {
    const from = around({ known: [known('NAIL', more)] });
    expect(only('stock', row, from)).toEqual(expected);
    // Nothing of it is nothing to be brought in.
    if ('hasMoved' in more) expect(plan('stock', [{ ...row, quantity: '0' }], from).fates[0]?.fate).toBe('same');
  });

  it('needs its item and its bin to be told apart', () => {
    expect(
      faults('stock', [
        { ...row, bin: '' },
        { ...row, bin: '' },
      ]),
    ).toEqual([['bin: cell-missing {}'], ['bin: cell-missing {}']]);
    expect(faults('stock', [row, { ...row, bin: 'main/b1' }])[1]).toEqual(['null: row-repeated {"first":2}']);
  });
});
