import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readLocal, writeLocal, writingOf } from './local.ts';

const [english, german, swiss, french] = ['en-GB', 'de-DE', 'de-CH', 'fr-FR'].map(writingOf) as [
  ReturnType<typeof writingOf>,
  ReturnType<typeof writingOf>,
  ReturnType<typeof writingOf>,
  ReturnType<typeof writingOf>,
];

describe('a number that somebody typed', () => {
  it.each([
    ['12', '12'],
    ['1.5', '1.5'],
    ['1,5', '1.5'],
    ['-0,125 kg', '-0.125 kg'],
    ['0,500', '0.500'],
    [',5', '0.5'],
    ['12,', '12'],
    ['1,234.50', '1234.50'],
    ['1.234,50', '1234.50'],
    ['1,234,567', '1234567'],
    ['1.234.567', '1234567'],
    ['12 500', '12500'],
    ["1'234.5", '1234.5'],
    ['3 box', '3 box'],
    ['1 1/2', '1 1/2'],
    ['1 1/250 m', '1 1/250 m'],
    ['450 g', '450 g'],
  ])('is read alike wherever there is no doubt: %s', (typed, plain) => {
    for (const writing of [english, german, swiss, french])
      expect(readLocal(typed, writing)).toEqual({ plain, isDoubtful: false });
  });

  it('is read as the language writes it where there is doubt, and says so', () => {
    expect(readLocal('1,234', english)).toEqual({ plain: '1234', isDoubtful: true });
    expect(readLocal('1,234', german)).toEqual({ plain: '1.234', isDoubtful: false });
    expect(readLocal('1.234', german)).toEqual({ plain: '1234', isDoubtful: true });
    expect(readLocal('1.234', english)).toEqual({ plain: '1.234', isDoubtful: false });
    // Neither is a sign of thousands there.
    expect(readLocal('1.234 kg', french)).toEqual({ plain: '1.234 kg', isDoubtful: true });
  });

  it('stays as it is where no number can be made of it', () => {
    for (const text of [
      '',
      'abc',
      '1,2,3',
      '1.2.3',
      '1,23,45',
      '1234,567,890',
      '1234,567.5',
      'x1,234,567',
      '1.5,5.5',
      '-',
      'box 3',
    ])
      expect(readLocal(text, english)).toEqual({ plain: text, isDoubtful: false });
  });

  it('comes back as it was written, in every language', () => {
    const number = fc
      .tuple(fc.boolean(), fc.nat(99_999_999), fc.option(fc.stringMatching(/^\d{1,6}$/)))
      .map(([minus, whole, fraction]) => `${minus ? '-' : ''}${whole}${fraction === null ? '' : `.${fraction}`}`);
    const languages = fc.constantFrom('en-GB', 'en-IN', 'de-DE', 'de-AT', 'de-CH', 'fr-FR', 'es-ES', 'sv-SE', 'pl-PL');
    fc.assert(
      fc.property(number, languages, fc.constantFrom('', ' kg', ' box'), (plain, locale, unit) => {
        const writing = writingOf(locale);
        expect(readLocal(writeLocal(plain + unit, writing), writing)).toEqual({
          plain: plain + unit,
          isDoubtful: false,
        });
        const shown = new Intl.NumberFormat(locale, { maximumFractionDigits: 6 }).format(
          plain as Intl.StringNumericLiteral,
        );
        // A number that is shown can be typed as it is shown; only "1,234" leaves a doubt.
        expect(Number(readLocal(shown.replace('−', '-'), writing).plain)).toBe(Number(plain));
      }),
    );
  });
});
