import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { utcDay } from '../days/index.ts';
import { checkDigit } from '../items/barcode.ts';
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

  it('says where it could not be read, and what a check digit should be', () => {
    const facts = (scan: string) => {
      try {
        return readGs1(scan, TODAY);
      } catch (error) {
        return (error as { facts: object }).facts;
      }
    };
    expect(facts('(10)A(10)B')).toEqual({ at: '(10) twice' });
    expect(facts('(01)04006381333932')).toEqual({ typed: '04006381333932', right: '1' });
    expect(facts(`]C110A${GS}99${'x'.repeat(40)}`)).toEqual({ at: `99${'x'.repeat(28)}` });
    expect(facts(`]C110Ä${GS}21S`)).toEqual({ at: '10Ä␝21S' });
    expect(facts('(17)271331')).toEqual({ at: '(17)271331' });
    expect(facts('(17)2713310')).toEqual({ at: '(17)2713310' });
    expect(facts('(01)104006381333931')).toEqual({ at: '(01)104006381333931' });
    expect(facts('oops (10)A')).toMatchObject({ at: 'oops (10)A' });
    expect(() => writeGs1({ lot: 'zu lang für ein Los' })).toThrow(
      expect.objectContaining({ facts: { at: '(10)zu lang für ein Los' } }),
    );
  });

  it('holds only what was said, with a separator only where more follows a value without end', () => {
    expect(readGs1('(21)S', TODAY)).toEqual({ serial: 'S' });
    expect(readGs1(`]C1${GS}10A${GS}`, TODAY)).toEqual({ lot: 'A' });
    expect(readGs1(`10A${GS}17270101`, TODAY)).toEqual({ lot: 'A', expires: '2027-01-01' });
    expect(scanOf({ lot: 'A', serial: 'S' })).toBe(`10A${GS}21S`);
    expect(scanOf({ gtin: '4006381333931', expires: '2027-01-01', serial: 'S' })).toBe(
      '010400638133393117270101' + '21S',
    );
    expect(writeGs1({ gtin: '96385074' })).toBe('(01)00000096385074');
    expect(readGs1('(10)A\nB'.replace('\n', ''), TODAY)).toEqual({ lot: 'AB' });
  });

  it('lies in the century that is nearest to today', () => {
    const year = (two: string, today: string) => readGs1(`(17)${two}0101`, today).expires?.slice(0, 4);
    expect([year('76', '2026-01-01'), year('77', '2026-01-01'), year('78', '2026-01-01')]).toEqual([
      '2076',
      '1977',
      '1978',
    ]);
    expect([year('49', '2099-01-01'), year('48', '2099-01-01'), year('50', '2099-01-01')]).toEqual([
      '2149',
      '2148',
      '2050',
    ]);
  });

  it('says plain codes from its own', () => {
    const plain = ['HB-0042', '4006381333931', '96385074', '(no)', 'x(10)A', '9010400638133393110AB'];
    expect(plain.filter(looksLikeGs1)).toEqual([]);
    expect([']d2', `A${GS}B`, '(10)A', '(3103)1', '010400638133393110A'].every(looksLikeGs1)).toBe(true);
  });

  it('reads back what it writes, as printed and as scanned', () => {
    const value = fc.stringMatching(/^[A-Za-z0-9/._-]{1,20}$/);
    const piece = fc.record(
      {
        gtin: fc.stringMatching(/^\d{13}$/).map((digits) => digits + checkDigit(digits)),
        lot: value,
        serial: value,
        expires: fc.integer({ min: 0, max: 9000 }).map((day) => utcDay(new Date(Date.UTC(2020, 0, 1 + day)))),
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
