import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkDigit, isGtin, readBarcode } from './index.ts';

describe('barcodes', () => {
  it.each(['4006381333931', '96385074', '036000291452', '10614141000415'])('takes the GTIN %s', (gtin) => {
    expect(readBarcode(gtin)).toBe(gtin);
    expect(isGtin(gtin)).toBe(true);
  });

  it('takes own codes as they are, and GTINs without their spaces', () => {
    expect(readBarcode(' HB-0042/a ')).toBe('HB-0042/a');
    expect(readBarcode('4 006381 333931')).toBe('4006381333931');
    expect(readBarcode(' x ')).toBe('x');
    expect(isGtin('HB-0042')).toBe(false);
  });

  it('finds any single wrong digit, and says the right last one', () => {
    expect(() => readBarcode('4006381333932')).toThrow(
      expect.objectContaining({ code: 'barcode-check-digit', facts: { typed: '4006381333932', right: '1' } }),
    );
    const digits = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 12, maxLength: 12 });
    fc.assert(
      fc.property(digits, fc.nat(12), fc.integer({ min: 1, max: 9 }), (body, at, by) => {
        const gtin = body.join('') + checkDigit(body.join(''));
        expect(readBarcode(gtin)).toBe(gtin);
        const slip = [...gtin].map((digit, place) => (place === at ? (Number(digit) + by) % 10 : digit)).join('');
        expect(() => readBarcode(slip)).toThrow(expect.objectContaining({ code: 'barcode-check-digit' }));
      }),
    );
  });

  it.each(['', 'a\nb', 'ü', 'x'.repeat(49)])('refuses %j', (text) => {
    expect(() => readBarcode(text)).toThrow(expect.objectContaining({ code: 'barcode-shape' }));
  });
});
