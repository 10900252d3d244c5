import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Format } from '../ui/format.ts';
import { changeWords, delayWords, outlookShort, outlookWords, whenThere } from './words.ts';

// How a day is written depends on how far it is from today.
beforeEach(() => vi.useFakeTimers({ now: new Date('2026-11-25T09:00:00'), toFake: ['Date'] }));
afterEach(() => vi.useRealTimers());

const format = new Format({ locale: 'en-GB', currency: 'EUR' });
const order = (
  outlook: 'ready' | 'in-time' | 'late' | 'unknown' | 'over',
  completeOn: string | null,
  wantedOn: string | null,
) => ({ outlook, completeOn, wantedOn, standing: 'open', canLeave: outlook === 'ready' }) as const;

it('an order says how its day stands to the day it is wanted', () => {
  const of = (completeOn: string | null, wantedOn: string | null, late = false) =>
    outlookWords(order(late ? 'late' : 'in-time', completeOn, wantedOn), format);
  expect(of('2026-12-08', '2026-12-12')).toBe(`Complete on ${format.day('2026-12-08')}, 4 days early.`);
  expect(of('2026-12-12', '2026-12-12')).toBe(`Complete on ${format.day('2026-12-12')}, on the wanted date.`);
  expect(of('2026-12-13', '2026-12-12', true)).toBe(`Complete on ${format.day('2026-12-13')}, 1 day late.`);
  expect(of('2026-12-08', null)).toBe(`Complete on ${format.day('2026-12-08')}.`);
  expect(of(null, '2026-12-12')).toBe('No completion date yet.');
  expect(outlookWords(order('ready', '', '2026-12-12'), format)).toBe('Everything is here. Ready to ship.');
});

it('an order that can leave says also how late it arrives', () => {
  const late = { ...order('late', '2026-11-29', '2026-11-27'), canLeave: true } as const;
  expect(outlookWords(late, format)).toBe(
    `Everything is here. Sent today, it arrives ${format.day('2026-11-29')}, 2 days late.`,
  );
  expect(outlookWords({ ...late, completeOn: '', wantedOn: '2026-11-24' }, format)).toBe(
    'Everything is here. Ready to ship, 1 day late.',
  );
  expect(outlookShort(late, format)).toBe(`wanted ${format.day('2026-11-27')}, arrives ${format.day('2026-11-29')}`);
});

it('a list says both days of what is late, and a line says when it is there', () => {
  expect(outlookShort(order('late', '2026-12-13', '2026-12-12'), format)).toBe(
    `wanted ${format.day('2026-12-12')}, complete ${format.day('2026-12-13')}`,
  );
  expect(outlookShort(order('unknown', null, null), format)).toBe('no date');
  expect([whenThere('', format), whenThere(null, format)]).toEqual(['now', 'no date yet']);
});

it('an order that is no more, or nothing yet, says so; what is late without a day says no day', () => {
  const of = (standing: 'quote' | 'shipped' | 'cancelled') =>
    outlookWords({ ...order('late', '2026-12-13', '2026-12-12'), standing }, format);
  expect([of('quote'), of('shipped'), of('cancelled')]).toEqual([
    'Quote: nothing is promised until it is confirmed.',
    'Everything has been shipped.',
    'Cancelled.',
  ]);
  expect(outlookShort(order('late', null, '2026-12-12'), format)).toBe(`wanted ${format.day('2026-12-12')}`);
  expect(outlookShort(order('in-time', '2026-12-08', '2026-12-12'), format)).toBe(`wanted ${format.day('2026-12-12')}`);
  const leaves = { ...order('late', '2026-11-29', null), canLeave: true } as const;
  expect(outlookWords(leaves, format)).toBe(`Everything is here. Sent today, it arrives ${format.day('2026-11-29')}.`);
});

it('an order that would come first says by how much it delays another', () => {
  expect(delayWords({ number: 'O-0133', before: '2026-12-05', after: '2026-12-07' })).toBe(
    'O-0133 would be 2 days later',
  );
  expect(delayWords({ number: 'O-0133', before: '', after: '2026-11-26' })).toBe('O-0133 would be 1 day later');
  expect(delayWords({ number: 'O-0133', before: '2026-11-26', after: '' })).toBe('O-0133');
  expect(delayWords({ number: 'O-0133', before: '2026-12-05', after: null })).toBe('O-0133 would have no date');
});

it('says what became of an item of an order', () => {
  const of = (before: string, after: string) => changeWords('Hive', before, after, (amount) => `${amount} pcs`);
  expect(of('0', '3')).toBe('3 pcs Hive added');
  expect(of('3', '0')).toBe('3 pcs Hive taken off');
  expect(of('3', '5')).toBe('Hive: 5 pcs instead of 3 pcs');
});
