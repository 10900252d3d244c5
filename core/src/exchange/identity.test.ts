import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { known, plan, world } from '../../test/world.ts';
import {
  definitionKey,
  type FileKindName,
  type FileRecord,
  fileKinds,
  harmless,
  type ImportWorld,
  readCell,
} from './index.ts';

describe('going out and coming in again', () => {
  const text = fc
    .string({ minLength: 1, maxLength: 30 })
    .map((raw) => raw.trim())
    .filter((raw) => raw !== '');
  const code = fc.stringMatching(/^[A-Za-z=+@'-][A-Za-z0-9.-]{0,9}$/);
  const amount = (decimals: number) => fc.integer({ min: 1, max: 1e9 }).map((n) => plain(n, decimals));
  const optional = <T>(from: fc.Arbitrary<T>) => fc.oneof(from, fc.constant(''));
  const plain = (n: number, decimals: number) => {
    const digits = String(n).padStart(decimals + 1, '0');
    const whole = digits.slice(0, digits.length - decimals);
    const fraction = digits.slice(digits.length - decimals).replace(/0+$/, '');
    return fraction ? `${whole}.${fraction}` : whole;
  };
  const allSame = (kind: FileKindName, records: FileRecord[], around: ImportWorld, keys: string[]) => {
    const existing = new Map<string, FileRecord[]>();
    for (const [index, record] of records.entries())
      existing.set(keys[index] ?? '', [...(existing.get(keys[index] ?? '') ?? []), record]);
    const cells = records.map((record) =>
      Object.fromEntries(Object.entries(record).map(([key, cell]) => [key, readCell(harmless(cell))])),
    );
    const result = plan(kind, cells, { ...around, existing });
    expect(result.fates.filter(({ fate }) => fate !== 'same')).toEqual([]);
    expect(result.changes).toEqual([]);
  };

  it('changes no item', () => {
    const item = fc.record({
      code,
      name: text,
      unit: fc.constantFrom('each', 'kg'),
      source: fc.constantFrom('bought', 'made', 'both'),
      tracking: fc.constantFrom('none', 'lot', 'serial'),
      serialPattern: fc.constantFrom('', 'SC-####', '#'),
      lotOrder: fc.constantFrom('prescribed', 'free'),
      lotFields: fc.constantFrom('', 'Colour', 'Colour; Place of origin'),
      returnDays: optional(fc.integer({ min: 0, max: 9999 }).map(String)),
      homeBin: fc.constantFrom('', 'MAIN/A1', 'MAIN/B1'),
      sellPrice: optional(amount(6)),
      taxFree: fc.constantFrom('yes', 'no'),
      reorderPoint: optional(fc.integer({ min: 0, max: 9999 }).map(String)),
      standardCost: optional(amount(6)),
      barcode: fc.constant(''),
      packs: fc.constantFrom('', 'box = 12', 'box = 12; pallet = 480'),
      note: optional(text),
      archived: fc.constantFrom('yes', 'no'),
      'field:Warranty months': text,
    });
    const items = fc.uniqueArray(item, { selector: (record) => record.code.toLowerCase(), maxLength: 12 });
    fc.assert(
      fc.property(items, (records) =>
        allSame(
          'items',
          records,
          world(),
          records.map((record) => record.code.toLowerCase()),
        ),
      ),
    );
  });

  it('changes no price and no stock', () => {
    const items = [known('NAIL', { unit: 'kg', decimals: 3 })];
    const price = fc.record({
      item: fc.constant('NAIL'),
      supplier: fc.constantFrom('NS'),
      supplierName: fc.constant('North Shed Timber'),
      supplierItem: optional(text),
      price: amount(6),
      pack: amount(3),
      breaks: fc.constantFrom('', '100 = 1.8', '0.5 = 3; 100 = 1.8; 1000 = 0.000001'),
      minimum: amount(3),
      leadDays: optional(fc.integer({ min: 0, max: 999 }).map(String)),
    });
    fc.assert(fc.property(price, (record) => allSame('prices', [record], world({ known: items }), ['nail|ns'])));
    const stock = fc.record({
      item: fc.constant('NAIL'),
      bin: fc.constant('MAIN/B1'),
      quantity: amount(3),
      unitCost: amount(6),
    });
    fc.assert(fc.property(stock, (record) => allSame('stock', [record], world({ known: items }), ['nail|main/b1'])));
  });

  it('changes no definition', () => {
    const none = fileKinds.definitions.defaults;
    const part = fc.record({
      component: fc.constantFrom('NAIL', 'BOX'),
      quantity: fc.integer({ min: 1, max: 1e6 }).map(String),
      counted: fc.constantFrom('per output', 'per run'),
      waste: fc.constantFrom('0', '4.5'),
      taken: fc.constantFrom('picked first', 'when finished'),
      from: fc.constantFrom('', 'MAIN/A1'),
      comesBack: fc.constantFrom('yes', 'no'),
      alternates: fc.constantFrom('', 'FELT', 'FELT x 1.2; SET x 3'),
    });
    const line = fc.oneof(
      part.map((spec) => ({ ...none, kind: 'part', ...spec })),
      fc
        .record({ quantity: amount(2), text: optional(text) })
        .map((spec) => ({ ...none, kind: 'labour', rate: 'Bench hour', ...spec })),
      fc.record({ quantity: amount(6), text }).map((spec) => ({ ...none, kind: 'charge', ...spec })),
      text.map((words) => ({ ...none, kind: 'note', text: words })),
    );
    const head = fc.record({
      makes: fc.integer({ min: 1, max: 500 }).map(String),
      state: fc.constantFrom('in use', 'draft'),
      paperwork: fc.constantFrom('one line', 'contents'),
      onOrder: fc.constantFrom('locked', 'quantities', 'swaps anything'),
      partsDiscount: fc.constantFrom('', '0', '12.5'),
    });
    const first = part.map((spec) => ({ ...none, kind: 'part', ...spec }));
    const around = world({ known: ['HIVE', 'BOX', 'NAIL', 'SET', 'FELT'].map((one) => known(one)) });
    fc.assert(
      fc.property(head, first, fc.array(line, { maxLength: 6 }), (shared, one, rest) => {
        const records = [one, ...rest].map((spec) => ({ ...spec, product: 'HIVE', ...shared }));
        allSame(
          'definitions',
          records,
          around,
          records.map(() => definitionKey('HIVE', 'build')),
        );
      }),
    );
  });
});
