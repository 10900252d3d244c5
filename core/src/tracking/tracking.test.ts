import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Quantity } from '../number/index.ts';
import {
  byExpiry,
  type LotStock,
  monthsAfter,
  nextFreeBlock,
  numberIn,
  parsePattern,
  passedOver,
  readMonths,
  readSerials,
  refuseTooManySerials,
  serialAt,
  withAttributes,
  writeSerials,
} from './index.ts';

const refusal = (code: string) => expect.objectContaining({ code });

describe('serial numbers', () => {
  it('are made from a pattern and found in it again', () => {
    const pattern = parsePattern('SC-####/A');
    expect([1, 42, 12345].map((number) => serialAt(pattern, number))).toEqual(['SC-0001/A', 'SC-0042/A', 'SC-12345/A']);
    const any = fc.record({
      before: fc.stringMatching(/^[A-Z-]{0,4}$/),
      digits: fc.integer({ min: 1, max: 6 }),
      after: fc.stringMatching(/^[A-Z]{0,2}$/),
    });
    fc.assert(
      fc.property(any, fc.integer({ min: 0, max: 1e7 }), (made, number) => {
        expect(numberIn(made, serialAt(made, number))).toBe(number);
      }),
    );
    expect(numberIn(pattern, 'XX-0042/A')).toBeNull();
    expect(numberIn(pattern, 'SC-00042/A')).toBeNull();
  });

  it('are told from a pattern part by part, in any case', () => {
    const [both, none] = [parsePattern(' SC-##/A '), parsePattern('###')];
    expect([both, none]).toEqual([
      { before: 'SC-', digits: 2, after: '/A' },
      { before: '', digits: 3, after: '' },
    ]);
    expect(parsePattern(`${'x'.repeat(31)}#########`).digits).toBe(9);
    expect(() => parsePattern(`${'x'.repeat(32)}#########`)).toThrow(
      expect.objectContaining({ code: 'serial-pattern', facts: { typed: `${'x'.repeat(32)}########` } }),
    );
    expect(
      ['sc-07/a', 'SC-7/A', 'SC-07/B', 'SC-0x/A', 'SC-x7/A', 'SC-07', '/A', 'SC-/A'].map((code) =>
        numberIn(both, code),
      ),
    ).toEqual([7, ...Array<null>(7).fill(null)]);
    expect(['007', '7', '1234', '0123', 'A07', '07A'].map((code) => numberIn(none, code))).toEqual([
      7,
      null,
      1234,
      null,
      null,
      null,
    ]);
    expect(numberIn(none, '9'.repeat(17))).toBeNull();
  });

  it('are no more than can be named at once', () => {
    const of = (n: number) => (n * 1_000_000) as Quantity;
    const refused = expect.objectContaining({ code: 'too-many-serials', field: 'quantity', facts: { most: 2000 } });
    expect(() => refuseTooManySerials('serial', of(2001), 'quantity')).toThrow(refused);
    for (const fine of [
      () => refuseTooManySerials('serial', of(2000)),
      () => refuseTooManySerials('lot', of(2001)),
      () => refuseTooManySerials('none', of(9999)),
    ])
      expect(fine).not.toThrow();
    expect(readSerials('A1..A2000')).toHaveLength(2000);
    expect(() => readSerials('A1..A2000 B1')).toThrow(
      expect.objectContaining({ code: 'too-many-serials', facts: { most: 2000 } }),
    );
    expect(() => readSerials('A1..A2000 B1..B2')).toThrow(refusal('too-many-serials'));
    expect(() => readSerials('A1..A2002')).toThrow(expect.objectContaining({ facts: { most: 2000 } }));
  });

  it('are typed with any signs between them, and a wrong one is told', () => {
    expect(readSerials(' A1,, A2;\n\tA3 ')).toEqual(['A1', 'A2', 'A3']);
    expect(readSerials('   ')).toEqual([]);
    const typed = (text: string) => {
      try {
        return readSerials(text);
      } catch (error) {
        return (error as { facts: object }).facts;
      }
    };
    expect(typed('A1 a1')).toEqual({ code: 'a1' });
    expect(typed(`${'x'.repeat(70)}..`)).toEqual({ typed: 'x'.repeat(60) });
    expect(typed(`${'x'.repeat(70)}9..1`)).toEqual({ typed: 'x'.repeat(60) });
    expect(typed('7..9')).toEqual(['7', '8', '9']);
    expect(typed('A8..a10')).toEqual(['A8', 'A9', 'A10']);
    expect(typed('A10..9')).toEqual({ typed: 'A10..9' });
    expect(typed('A098..101')).toEqual(['A098', 'A099', 'A100', 'A101']);
    expect(typed('A98..0101')).toEqual(['A98', 'A99', 'A100', 'A101']);
  });

  it('are written as runs only where a run reads back the same', () => {
    expect(writeSerials(['A1', 'A2', 'A3'])).toBe('A1..3');
    expect(writeSerials(['A9', 'A10'])).toBe('A9, A10');
    expect(writeSerials(['A', 'B', '1x', '2x'])).toBe('A, B, 1x, 2x');
    expect(writeSerials(['x', '0'])).toBe('x, 0');
    expect(writeSerials(['A01', 'A2', 'A3'])).toBe('A01, A2..3');
    expect(writeSerials([])).toBe('');
  });

  it.each(['', 'SC-', 'A#B#', 'SC ##', '#'.repeat(10)])('refuse the pattern %j', (text) => {
    expect(() => parsePattern(text)).toThrow(refusal('serial-pattern'));
  });

  it('come in the first block that is wholly free', () => {
    expect(nextFreeBlock([], 5)).toBe(1);
    expect(nextFreeBlock([1, 2, 3, 9], 5)).toBe(4);
    expect(nextFreeBlock([1, 2, 3, 8], 5)).toBe(9);
    expect(nextFreeBlock([1, 2, 12, 3], 2, 10)).toBe(10);
    expect(nextFreeBlock([11, 10, 5], 2, 10)).toBe(12);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 40 })), fc.integer({ min: 1, max: 9 }), (taken, count) => {
        const start = nextFreeBlock(taken, count);
        const free = (from: number) => !taken.some((number) => number >= from && number < from + count);
        expect(free(start)).toBe(true);
        for (let earlier = 1; earlier < start; earlier += 1) expect(free(earlier)).toBe(false);
      }),
    );
  });

  it('are typed as ranges and lists, and written the shortest way', () => {
    expect(readSerials('SC-0099..0102, X7\nX8')).toEqual(['SC-0099', 'SC-0100', 'SC-0101', 'SC-0102', 'X7', 'X8']);
    expect(readSerials('SC-0101..SC-0103')).toHaveLength(3);
    // Years and other numbers that end in nines or noughts are numbers like any other.
    expect(readSerials('SC-1990..1999')).toEqual(Array.from({ length: 10 }, (_, n) => `SC-${1990 + n}`));
    expect(readSerials('SC-998..1001')).toEqual(['SC-998', 'SC-999', 'SC-1000', 'SC-1001']);
    expect(readSerials('7..7')).toEqual(['7']);
    expect(writeSerials(['SC-0099', 'SC-0100', 'SC-0101', 'X7', 'AB'])).toBe('SC-0099..0101, X7, AB');
    const code = fc
      .tuple(fc.constantFrom('SC-', 'A', ''), fc.integer({ min: 1, max: 60 }))
      .map(([prefix, n]) => prefix + String(n).padStart(4, '0'));
    fc.assert(
      fc.property(fc.uniqueArray(code, { maxLength: 20 }), (codes) => {
        expect(readSerials(writeSerials(codes))).toEqual(codes);
      }),
    );
  });

  it.each([
    ['SC-0140..0101', 'serial-range'],
    ['SC-1998..02', 'serial-range'],
    ['A1..A2001', 'too-many-serials'],
    ['SC-01..XX-05', 'serial-range'],
    ['SC..', 'serial-range'],
    ['A1, a1', 'serial-twice'],
    ['A1..A9999', 'too-many-serials'],
  ])('refuse %j', (text, code) => {
    expect(() => readSerials(text, 'serials')).toThrow(expect.objectContaining({ code, field: 'serials' }));
  });
});

describe('lots', () => {
  it('keep what is known of them and is asked for no more, and lose what is cleared', () => {
    const known = { Colour: 'red', Mill: 'North', Old: 'kept' };
    expect(withAttributes(known, { colour: ' blue ' }, ['Colour', 'Mill'])).toEqual({
      Colour: 'blue',
      Mill: 'North',
      Old: 'kept',
    });
    expect(withAttributes({ Old: 'kept' }, { MILL: 'South' }, ['Colour', 'Mill'])).toEqual({
      Mill: 'South',
      Old: 'kept',
    });
    expect(() => withAttributes({}, { Size: '9' }, ['Colour'])).toThrow(
      expect.objectContaining({ code: 'unknown-choice' }),
    );
  });

  const lot = (lotId: number, quantity: number, bestBefore: string | null): LotStock => ({
    lotId,
    binId: 1,
    quantity: quantity as Quantity,
    bestBefore,
  });
  const lots = [lot(1, 5, null), lot(2, 4, '2027-03-01'), lot(3, 6, '2026-12-01'), lot(4, 9, '2026-10-01')];

  const take = (lotId: number, quantity: number) => ({ lotId, binId: 1, quantity: quantity as Quantity });

  it('stand in the order of their days, the older of one day before the newer', () => {
    const more = [lot(9, 1, '2026-12-01'), ...lots];
    expect(more.toSorted(byExpiry).map(({ lotId }) => lotId)).toEqual([4, 3, 9, 2, 1]);
  });

  it('that expire first go first, those of one day in any order, and what keeps comes last', () => {
    expect(passedOver(lots, [take(2, 4)])?.lotId).toBe(4);
    expect(passedOver(lots, [take(4, 9), take(2, 4)])?.lotId).toBe(3);
    expect(passedOver(lots, [take(4, 9), take(3, 6), take(2, 1)])).toBeNull();
    expect(passedOver(lots, [take(4, 8), take(1, 1)])?.lotId).toBe(4);
    expect(passedOver([lot(5, 1, '2026-10-01'), ...lots], [take(4, 9)])).toBeNull();
    expect(passedOver(lots, [])).toBeNull();
  });

  it('taken in the order of their days never pass one over', () => {
    const stock = fc.uniqueArray(
      fc.record({
        lotId: fc.integer({ min: 1, max: 50 }),
        binId: fc.integer({ min: 1, max: 3 }),
        quantity: fc.integer({ min: 0, max: 20 }).map((n) => n as Quantity),
        bestBefore: fc.constantFrom(null, '2026-12-01', '2027-01-01'),
      }),
      { selector: ({ lotId, binId }) => `${lotId}:${binId}`, maxLength: 12 },
    );
    fc.assert(
      fc.property(stock, fc.nat(40), (raw, wanted) => {
        // One day a lot, as in the books.
        const there = raw.map((row) => ({
          ...row,
          bestBefore: raw.find((one) => one.lotId === row.lotId)?.bestBefore ?? null,
        }));
        let left = wanted;
        const takings = [...there].sort(byExpiry).map((row) => {
          const quantity = Math.min(left, row.quantity) as Quantity;
          left -= quantity;
          return { ...row, quantity };
        });
        expect(passedOver(there, takings)).toBeNull();
        const reversed = [...there].reverse().sort((a, b) => byExpiry(b, a));
        const [latest] = reversed.filter(({ quantity }) => quantity > 0);
        const earlier = there.some(
          (row) => row.quantity > 0 && (row.bestBefore ?? '9999') < (latest?.bestBefore ?? '9999'),
        );
        if (latest) expect(passedOver(there, [{ ...latest, quantity: 1 as Quantity }]) !== null).toBe(earlier);
      }),
    );
  });
});

describe('a warranty', () => {
  it('ends so many months after the unit left, on the same day or the last of a shorter month', () => {
    expect(monthsAfter('2026-11-25', 24)).toBe('2028-11-25');
    expect(monthsAfter('2026-01-31', 1)).toBe('2026-02-28');
    expect(monthsAfter('2028-01-31', 1)).toBe('2028-02-29');
    expect(monthsAfter('2026-11-30', 3)).toBe('2027-02-28');
    expect(monthsAfter('2026-05-05', 0)).toBe('2026-05-05');
  });

  it('is read as people write it', () => {
    expect(['24', ' 24 months', '6 Mon.', '2 years', ''].map(readMonths)).toEqual([24, 24, 6, null, null]);
  });
});
