import { expect, it } from 'vitest';
import { initialsOf, isCurrency, isLocale } from './index.ts';

it('currencies and languages are those that can be written', () => {
  expect(['EUR', 'JPY', 'KWD', 'eur', 'EURO', 'ABC', ''].map(isCurrency)).toEqual([
    ...[true, true, true, false, false, false, false],
  ]);
  expect(['de-DE', 'en', 'pt-BR', 'xx-YY', 'de_DE', '', 'tlh'].map(isLocale)).toEqual([
    ...[true, true, true, false, false, false, false],
  ]);
});

it('initials are the first letters of the first and the last word', () => {
  expect(['Mo Okafor', 'Ada van der Quill', 'tom', ' Élodie  Petit ', ''].map(initialsOf)).toEqual([
    ...['MO', 'AQ', 'T', 'ÉP', ''],
  ]);
});
