import { writingOf } from '@yosegi/core/number';
import { expect, it } from 'vitest';
import { countedText } from './countedText.ts';

const english = writingOf('en-GB');

it('reads how many of what, in either order', () => {
  for (const text of ['30 KIT-M', 'KIT-M 30', '30 x KIT-M', '30× KIT-M', 'KIT-M ×30', '30xKIT-M'])
    expect(countedText(text, english), text).toEqual({ quantity: '30', rest: 'KIT-M' });
  expect(countedText('2,5 maple ply', writingOf('de-DE'))).toEqual({ quantity: '2.5', rest: 'maple ply' });
});

it('finds none in a code or a name', () => {
  for (const text of ['KIT-M', '30', 'JAR125', 'M8x40', '4006381333931', '', ' '])
    expect(countedText(text, english), text).toBeNull();
});
