import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { folded, hasWords, isNearly } from './index.ts';

describe('a search by words', () => {
  it.each([
    ['Ten-frame hive, cedar', 'cedar hive'],
    ['Ten-frame hive, cedar', 'HIVE ten'],
    ['Süßer Löffel', 'susser loffel'],
    ['Crème brûlée', 'creme'],
    ['Łódź kit', 'lodz'],
    ['Honey tasting trio', 'tastnig'],
    ['Honey tasting trio', 'tastin'],
    ['Purchase orders', 'purchse'],
    ['Customers', 'custmoers'],
    ['HIVE-10 Ten-frame hive', 'hive-10'],
  ])('finds “%s” by “%s”', (text, asked) => expect(hasWords(text, asked)).toBe(true));

  it.each([
    ['Ten-frame hive, cedar', 'pine hive'],
    ['Bee brush', 'bea'],
    ['Feeder, 2 litre', 'reader'],
    ['Orders', 'borders of kingdom'],
  ])('does not find “%s” by “%s”', (text, asked) => expect(hasWords(text, asked)).toBe(false));

  const word = fc.stringMatching(/^[a-zäöüéñ]{5,10}$/);
  it('finds every text by its own words, whatever their order and accents', () => {
    fc.assert(
      fc.property(fc.uniqueArray(word, { minLength: 1, maxLength: 5 }), (words) => {
        expect(hasWords(words.join(' '), [...words].reverse().join('  '))).toBe(true);
        expect(hasWords(words.join(' '), folded([...words].sort().join(' ')))).toBe(true);
        expect(hasWords(words.join(' '), words.join(' ').toUpperCase())).toBe(true);
      }),
    );
  });

  it('forgives one slip of the hand in a long word', () => {
    const slip = fc.tuple(
      word,
      fc.nat(),
      fc.constantFrom('change', 'leave out', 'put in', 'swap'),
      fc.constantFrom('q', 'x'),
    );
    fc.assert(
      fc.property(slip, ([text, at, how, letter]) => {
        const own = folded(text);
        const n = at % own.length;
        const typed = {
          change: own.slice(0, n) + letter + own.slice(n + 1),
          'leave out': own.slice(0, n) + own.slice(n + 1),
          'put in': own.slice(0, n) + letter + own.slice(n),
          swap: own.slice(0, n) + (own[n + 1] ?? '') + own[n] + own.slice(n + 2),
        }[how];
        fc.pre(typed.length >= 5);
        expect(isNearly(own, typed)).toBe(true);
      }),
    );
  });
});
