import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatDecimal, type Measuring, parseQuantity, type Quantity, readQuantity } from './index.ts';

const q = (text: string) => parseQuantity(text, 6);
const kilogram: Measuring = { unit: 'kg', decimals: 3, measures: [{ name: 'g', one: q('0.001') }] };
const each: Measuring = {
  unit: 'each',
  decimals: 0,
  measures: [
    { name: 'box', one: q('12') },
    { name: 'pallet', one: q('480') },
  ],
};
const metre: Measuring = { unit: 'm', decimals: 3, measures: [{ name: 'cm', one: q('0.01') }] };
const refusal = (code: string, facts = {}) => expect.objectContaining({ code, facts: expect.objectContaining(facts) });

describe('typed quantities', () => {
  it.each<[string, Measuring, string]>([
    ['450 g', kilogram, '0.45'],
    ['450g', kilogram, '0.45'],
    ['0.5 kg', kilogram, '0.5'],
    ['3 box', each, '36'],
    ['2 Boxes', each, '24'],
    ['1/2 box', each, '6'],
    ['1 pallet', each, '480'],
    ['1/2 m', metre, '0.5'],
    ['1 1/2', metre, '1.5'],
    ['3/16 m', { unit: 'm', decimals: 4, measures: [] }, '0.1875'],
    ['1/10', metre, '0.1'],
    ['46 cm', metre, '0.46'],
    ['.25', metre, '0.25'],
    ['-3 box', each, '-36'],
  ])('reads %j', (text, measuring, result) => {
    expect(formatDecimal(readQuantity(text, measuring))).toBe(result);
  });

  it('never rounds: what the unit cannot hold exactly is refused', () => {
    expect(() => readQuantity('1/3 m', metre)).toThrow(refusal('too-many-decimals', { decimals: 3 }));
    expect(() => readQuantity('0.5 g', kilogram)).toThrow(refusal('too-many-decimals'));
    expect(() => readQuantity('1/5 box', each)).toThrow(refusal('too-many-decimals', { decimals: 0 }));
  });

  it('names the units and packs that may be typed when it knows another', () => {
    expect(() => readQuantity('3 crate', each, 'quantity')).toThrow(
      refusal('unknown-measure', { name: 'crate', known: ['each', 'box', 'pallet'] }),
    );
  });

  it.each(['', 'box', '1/0', '1 2', '1.5/2', '--3', '1,5', '3 box box', '1e3', '٣'])('refuses %j', (text) => {
    expect(() => readQuantity(text, each)).toThrow(
      expect.objectContaining({ code: expect.stringMatching(/not-a-number|unknown-measure/) }),
    );
  });

  it('reads a plain decimal as parseQuantity does, and any measure as that many times its size', () => {
    const measure = fc.integer({ min: 1, max: 1e9 });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e6 }), measure, (count, one) => {
        const measuring = { unit: 'x', decimals: 6, measures: [{ name: 'lot', one: one as Quantity }] };
        expect(readQuantity(`${count} lot`, measuring)).toBe(count * one);
        expect(readQuantity(formatDecimal(one), measuring)).toBe(parseQuantity(formatDecimal(one), 6));
      }),
    );
  });

  it('says what it could not read, and takes names with the endings of many', () => {
    const measuring = {
      unit: 'kg',
      decimals: 3,
      measures: [
        { name: 'box', one: 2_000_000 as Quantity },
        { name: 'sack', one: 5_000_000 as Quantity },
      ],
    };
    const read = (text: string) => {
      try {
        return readQuantity(text, measuring, 'quantity');
      } catch (error) {
        const { code, field, facts } = error as { code: string; field: string; facts: object };
        return [code, field, facts];
      }
    };
    expect([read('2 boxes'), read('3 SACKS'), read(' 1 kgs ')]).toEqual([4_000_000, 15_000_000, 1_000_000]);
    expect(read('2 boxsets')).toEqual([
      'unknown-measure',
      'quantity',
      { name: 'boxsets', known: ['kg', 'box', 'sack'] },
    ]);
    expect(read(' a lot ')).toEqual(['not-a-number', 'quantity', { typed: 'a lot' }]);
    expect(read('x'.repeat(80))).toEqual(['not-a-number', 'quantity', { typed: 'x'.repeat(60) }]);
    expect(read('1/0 kg')).toEqual(['not-a-number', 'quantity', { typed: '1/0 kg' }]);
    expect(read('0.0005 kg')).toEqual(['too-many-decimals', 'quantity', { typed: '0.0005 kg', decimals: 3 }]);
    expect(read('999999999')).toBe(999_999_999_000_000);
    expect(read('999999999.001')).toEqual(['too-large', 'quantity', { largest: 999_999_999_000_000 }]);
    expect(read('499999999.5 box')).toBe(999_999_999_000_000);
    expect(read('500000000 box')).toEqual(['too-large', 'quantity', { largest: 999_999_999_000_000 }]);
  });
});
