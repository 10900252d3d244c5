import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type DecimalSign, fileKinds, guessDecimalSign, guessMatching, readAmount } from './index.ts';

/** A number as a file may have it: groups of three, or not, with so many decimals. */
const written = fc.record({
  whole: fc.integer({ min: 0, max: 999_999_999 }),
  decimals: fc.integer({ min: 0, max: 6 }),
  fraction: fc.integer({ min: 0, max: 999_999 }),
  grouped: fc.boolean(),
  sign: fc.constantFrom('', '-', '+'),
});
const write = (
  { whole, decimals, fraction, grouped, sign }: typeof written extends fc.Arbitrary<infer T> ? T : never,
  by: DecimalSign,
) => {
  const [group, point] = by === 'point' ? [',', '.'] : ['.', ','];
  const digits = grouped ? String(whole).replace(/\B(?=(\d{3})+$)/g, group) : String(whole);
  return `${sign}${digits}${decimals > 0 ? point + String(fraction).padStart(6, '0').slice(0, decimals) : ''}`;
};

describe('amounts in files', () => {
  it('are read as they were written, with either sign for decimals', () => {
    fc.assert(
      fc.property(written, fc.constantFrom<DecimalSign>('point', 'comma'), (number, by) => {
        const plain = write({ ...number, grouped: false }, 'point');
        const value = Number(plain);
        expect(Number(readAmount(write(number, by), by))).toBe(value || 0);
        expect(Number(readAmount(`  € ${write(number, by)} `, by))).toBe(value || 0);
      }),
    );
  });

  it.each<[string, DecimalSign]>([
    ['1,234.5x', 'point'],
    ['x1,234.5', 'point'],
    ['12,34.5', 'point'],
    ['1,2345', 'point'],
    ['1234,567.8', 'point'],
    ['1.234,5x', 'comma'],
    ['x1.234,5', 'comma'],
    ['1.2345', 'comma'],
    ['1234.567,8', 'comma'],
    ['1,2,3', 'comma'],
  ])('refuse %j with a decimal %s, saying the beginning of what is there', (cell, sign) => {
    expect(() => readAmount(cell, sign, 'price')).toThrow(
      expect.objectContaining({ code: 'not-a-number', field: 'price' }),
    );
    expect(() => readAmount(`${'1,2'.repeat(20)}${cell}`, 'point')).toThrow(
      expect.objectContaining({ facts: { typed: '1,2'.repeat(20).slice(0, 40) } }),
    );
  });

  it('say which sign they use, where only one can be meant', () => {
    fc.assert(
      fc.property(written, fc.constantFrom<DecimalSign>('point', 'comma'), (number, by) => {
        const { decimals, grouped, whole } = number;
        // "1,234" is a thousand or one and a bit; "0,234" and "1.234,5" are not.
        const isClear = decimals > 0 && (decimals !== 3 || whole === 0 || (grouped && whole > 999));
        const cell = write(number, by);
        if (isClear) expect(guessDecimalSign([cell])).toBe(by);
        if (!isClear) expect(guessDecimalSign([cell])).toBe('point');
        // Text says nothing, and neither does as much for one as for the other.
        expect(guessDecimalSign(['about 1,5', '1,5 or so', cell, cell])).toBe(isClear ? by : 'point');
        expect(guessDecimalSign(['1,5', '1.5', cell])).toBe(isClear ? by : 'point');
      }),
    );
    expect(guessDecimalSign(['1,234', '12'], 'comma')).toBe('comma');
    expect(guessDecimalSign(['1.5'], 'comma')).toBe('point');
    expect(guessDecimalSign([' 1,5 ', ',5', '-,25', '+0,125'])).toBe('comma');
    expect(guessDecimalSign(['€ 1,50', '1,5 EUR', '1.5'])).toBe('comma');
    expect(guessDecimalSign(['1.5', '.5', '1,5'])).toBe('point');
    expect(guessDecimalSign([',12345', '1,12345', '0.5'])).toBe('comma');
    expect(guessDecimalSign(['1.234.567,8', '1.5'])).toBe('point');
    expect(guessDecimalSign(['1,234,567.8', '1,5', '2,5'])).toBe('comma');
  });
});

describe('titles of columns', () => {
  const match = (...titles: string[]) => guessMatching(titles, fileKinds.items.columns);
  it('give the best likeness its column, whichever comes first', () => {
    expect(match('Selling pric', 'Sell price')).toEqual([null, 'sellPrice']);
    expect(match('Sell price', 'Selling price')).toEqual(['sellPrice', null]);
    expect(match('price', 'Sell price')).toEqual([null, 'sellPrice']);
    expect(match('Item code', 'SKU')).toEqual(['code', null]);
    expect(match('Preis', '', '  ', '—', 'x')).toEqual([null, null, null, null, null]);
  });

  it('are read whatever is around and within their words', () => {
    expect(match('ITEM_CODE', 'sellPrice', 'Réorder  point', '(Barcode)', 'Tax - free')).toEqual([
      'code',
      'sellPrice',
      'reorderPoint',
      'barcode',
      'taxFree',
    ]);
    expect(match('Reorder-lvl.', 'Standard  cost!')).toEqual(['reorderPoint', 'standardCost']);
  });

  it('name fields of their own after a colon', () => {
    expect(match(' Field:  Hue ', 'FIELD:Size', 'field: ', 'my field: x', 'Field:\tDeep blue')).toEqual([
      'field:Hue',
      'field:Size',
      null,
      null,
      'field:Deep blue',
    ]);
  });
});
