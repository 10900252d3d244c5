import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkDigit } from '../item/barcode.ts';
import { looksLikeGs1, readGs1, scanOf, writeGs1 } from './index.ts';

const TODAY = '2026-11-24';
const GS = '\u001d';

describe('GS1 element strings', () => {
  it.each<[string, object]>([
    ['(01)04006381333931(17)271130(10)AB-7', { gtin: '04006381333931', expires: '2027-11-30', lot: 'AB-7' }],
    [
      `]d20104006381333931172711001010AB${GS}21S-9`,
      { gtin: '04006381333931', expires: '2027-11-30', lot: '10AB', serial: 'S-9' },
    ],
    [`]C110LOT${GS}21SN1`, { lot: 'LOT', serial: 'SN1' }],
    ['010400638133393121SC-0101', { gtin: '04006381333931', serial: 'SC-0101' }],
    ['(17)260200', { expires: '2026-02-28' }],
    ['(17)990101', { expires: '1999-01-01' }],
    ['(17)760101', { expires: '2076-01-01' }],
  ])('reads %j', (scan, said) => {
    expect(looksLikeGs1(scan) || scan.startsWith('(17)')).toBe(true);
    expect(readGs1(scan, TODAY)).toEqual(said);
  });

  it.each([
    ['(01)04006381333932', 'barcode-check-digit'],
    ['(01)0400638133393', 'gs1-unreadable'],
    ['(17)271331', 'gs1-unreadable'],
    ['(17)270015', 'gs1-unreadable'],
    ['(17)270000', 'gs1-unreadable'],
    ['(17)271232', 'gs1-unreadable'],
    ['(17)270230', 'gs1-unreadable'],
    ['(99)ours', 'gs1-unreadable'],
    ['(10)A(10)B', 'gs1-unreadable'],
    [`]C110${GS}`, 'gs1-unreadable'],
    ['(10)ÄÖ', 'gs1-unreadable'],
    [']C1', ''],
  ])('refuses %j', (scan, code) => {
    if (code === '') expect(readGs1(scan, TODAY)).toEqual({});
    else expect(() => readGs1(scan, TODAY)).toThrow(expect.objectContaining({ code }));
  });

  it('says plain codes from its own', () => {
    expect(['HB-0042', '4006381333931', '96385074', '(no)'].map(looksLikeGs1)).toEqual([false, false, false, false]);
  });

  it('reads back what it writes, as printed and as scanned', () => {
    const value = fc.stringMatching(/^[A-Za-z0-9/._-]{1,20}$/);
    const piece = fc.record(
      {
        gtin: fc.stringMatching(/^\d{13}$/).map((digits) => digits + checkDigit(digits)),
        lot: value,
        serial: value,
        expires: fc
          .integer({ min: 0, max: 9000 })
          .map((day) => new Date(Date.UTC(2020, 0, 1 + day)).toISOString().slice(0, 10)),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(piece, (said) => {
        expect(readGs1(writeGs1(said), TODAY)).toEqual(said);
        expect(readGs1(scanOf(said), TODAY)).toEqual(said);
      }),
    );
  });
});
