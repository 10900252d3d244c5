import type { BuildRow, CoverItem, Supplier } from '@yosegi/contract';
import type { Change } from '@yosegi/core/coverage';
import { type Quantity, SCALE } from '@yosegi/core/number';
import { expect, it } from 'vitest';
import { isAsked, isHeldUp, pageOf } from '../builds/held.ts';
import type { Format } from '../ui/format.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import { wordsOf } from './caseWords.ts';
import { missingOf } from './missing.ts';
import { readWant, termsOf } from './want.ts';

const item = (id: number, name: string, unit = 'each', decimals = 0) =>
  ({ id, name, unit, decimals, measures: [] }) as unknown as CoverItem;
const items = new Map([
  [1, item(1, 'Oak')],
  [2, item(2, 'Pine', 'kg', 3)],
]);
const q = (n: number) => (n * SCALE) as Quantity;

it('says a change of a case as people say it', () => {
  const format = {
    quantity: (text: string, unit: string) => `${text} ${unit}`,
    day: (iso: string) => `day ${iso}`,
  } as Format;
  const names = {
    supply: (kind: string, id: number) => ({ number: `${kind} ${id}`, from: '', to: null }),
    source: ({ id }: { id: number }) => (id === 9 ? undefined : { number: `O-${id}` }),
  } as never;
  const suppliers = [{ id: 3, name: 'North' }] as Supplier[];
  const says = (change: Change) => wordsOf(change, { names, items, suppliers, format });
  const of = { kind: 'purchase' as const, id: 7 };
  expect(says({ what: 'day', ...of, on: '2026-12-09' })).toBe('purchase 7 on day 2026-12-09');
  expect(says({ what: 'day', ...of, on: null })).toBe('purchase 7 without a date');
  expect(says({ what: 'gone', ...of })).toBe('purchase 7 never comes');
  expect(says({ what: 'late', supplierId: 3, days: 1 })).toBe('North 1 day late');
  expect(says({ what: 'late', supplierId: 3, days: null })).toBe('North: no date yet');
  expect(says({ what: 'late', supplierId: 4, days: 2 })).toBe('A supplier 2 days late');
  expect(says({ what: 'build', itemId: 1, quantity: q(4), on: null })).toBe('4 each more built');
  expect(says({ what: 'build', itemId: 5, quantity: q(4), on: '2026-12-09' })).toBe('4 more built by day 2026-12-09');
  expect(says({ what: 'missing', itemId: 2, quantity: q(1.5) })).toBe('1.5 kg turn out missing');
  expect(says({ what: 'instead', itemId: 1, other: 2, quantity: q(3) })).toBe('Pine for 3 each');
  expect(says({ what: 'instead', itemId: 1, other: 8, quantity: q(3) })).toBe('an alternate for 3 each');
  expect(says({ what: 'first', source: { kind: 'order', id: 4 } })).toBe('O-4 goes first');
  expect(says({ what: 'last', source: { kind: 'order', id: 9 } })).toBe('… goes last');
  expect(says({ what: 'last', source: { kind: 'order', id: 4 } })).toBe('O-4 goes last');
  expect(says({ what: 'first', source: { kind: 'order', id: 9 } })).toBe('… goes first');
});

it('asks about what is short and has a name', () => {
  const component = (itemId: number, short: number) => ({ itemId, short: q(short) });
  const answer = { components: [component(1, 2), component(2, 0), component(9, 4)] } as unknown as CoverAnswer;
  expect(missingOf(answer, items)).toEqual([{ itemId: 1, name: 'Oak' }]);
});

it('reads a line of a question, or says what is wrong with it once all names are known', () => {
  const read = (itemId: number, quantity: string, isWhole = true) => readWant({ itemId, quantity }, items, isWhole);
  expect(read(1, '4')).toEqual({ wanted: { itemId: 1, quantity: q(4) } });
  expect(read(9, '4')).toEqual({ wanted: null, error: 'This item does not exist.' });
  expect(read(9, '4', false)).toEqual({ wanted: null });
  for (const text of ['0', '', 'few', '1.5', '-2'])
    expect(read(1, text)).toEqual({ wanted: null, error: expect.stringMatching(/\w/) });
});

it('reads what else is asked from the address, and nothing of what it does not know', () => {
  const terms = (text: string) => termsOf(new URLSearchParams(text));
  expect(terms('')).toEqual({ by: '', stores: null, finishedFirst: false, drafts: false, aside: null, changes: [] });
  expect(terms('by=2026-12-01&stores=2,1,x&finished=1&drafts=1&aside=orders')).toMatchObject({
    by: '2026-12-01',
    stores: [2, 1],
    finishedFirst: true,
    drafts: true,
    aside: 'orders',
  });
  expect(terms('finished=0&drafts=yes&aside=builds&stores=')).toMatchObject({
    stores: null,
    finishedFirst: false,
    drafts: false,
    aside: 'builds',
  });
  expect(terms('aside=all').aside).toBeNull();
});

it('knows what holds a build up, and where it is seen to', () => {
  const build = (repair: object | null, waiting: object[] = []) => ({ id: 4, repair, waiting }) as unknown as BuildRow;
  const asked = { id: 8, state: 'asked' };
  expect([isAsked(build(null)), isAsked(build(asked)), isAsked(build({ id: 8, state: 'agreed' }))]).toEqual([
    false,
    true,
    false,
  ]);
  expect([isHeldUp(build(null)), isHeldUp(build(null, [{}])), isHeldUp(build(asked))]).toEqual([false, true, true]);
  expect([pageOf(build(null)), pageOf(build(asked))]).toEqual(['/build/4', '/build/repairs/8']);
});
