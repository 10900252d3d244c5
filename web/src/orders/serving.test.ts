import type { Order, OrderLine } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import type { Format } from '../ui/format.ts';
import { proposed, readyWords, servedWords, stillBuilt } from './serving.ts';

const format = { quantity: (text: string, unit: string) => `${text} ${unit}` } as Format;
const build = (id: number, quantity: string, kept = '0', state = 'on-bench') => ({ id, quantity, kept, state });
const part = (builds: object[], more: object = {}) => ({ packed: '0', open: '9', builds, ...more });
const line = (id: number, more: object = {}) =>
  ({
    ...{ id, name: `Item ${id}`, unit: 'each', decimals: 0, revision: null, open: '9', canShip: '0' },
    ...more,
  }) as unknown as OrderLine;
const built = (id: number, builds: object[], more: object = {}) => line(id, { parts: [part(builds)], ...more });

describe('what is proposed to ship', () => {
  const finishing = (...all: [number, string][]) => new Map(all.map(([id, good]) => [id, { good }]));

  it('is what can leave, with what the builds that are finished bring to each line, up to what is open', () => {
    const lines = [
      built(1, [build(7, '5')], { canShip: '2' }),
      built(2, [build(7, '4', '1'), build(8, '2')], { canShip: '0' }),
      built(3, [build(7, '20')], { open: '3' }),
    ];
    expect(proposed(lines, new Map())).toEqual({ 1: '2', 2: '', 3: '' });
    expect(proposed(lines, finishing([7, '4']))).toEqual({ 1: '6', 2: '3', 3: '3' });
    expect(proposed(lines, finishing([7, '10'], [8, '1.5']))).toEqual({ 1: '7', 2: '4.5', 3: '3' });
  });

  it('is nothing of a build while what is typed of it cannot be read, and leaves kits as they are', () => {
    expect(proposed([built(1, [build(7, '5')], { canShip: '2' })], new Map([[7, null]]))).toEqual({ 1: '2' });
    expect(proposed([built(1, [build(7, '5')], { revision: 3 })], finishing([7, '5']))).toEqual({});
    expect(proposed([line(1, { parts: [], canShip: '1' })], finishing([7, '5']))).toEqual({ 1: '1' });
  });
});

it('builds that still make something for an order are told once, those that are over or gave all not at all', () => {
  const lines = [
    built(1, [build(7, '5'), build(8, '2', '2'), build(9, '4', '1', 'finished'), build(10, '4', '1', 'planned')]),
    built(2, [build(7, '5')]),
  ];
  expect(stillBuilt({ lines } as Order).map(({ id }) => id)).toEqual([7, 10]);
});

describe('where a line stands', () => {
  const says = (more: object, builds: object[] = []) => servedWords(line(1, { parts: [part(builds, more)] }), format);

  it('is told in the order it goes through, without what is nothing', () => {
    expect(says({ packed: '2', open: '5' }, [build(7, '4', '1')])).toBe(
      '2 each in the parcel, 2 each from stock, 3 each built for this order',
    );
    expect(says({ open: '3' }, [build(7, '3')])).toBe('3 each built for this order');
    expect(says({ open: '3' }, [build(7, '3', '0', 'cancelled')])).toBe('3 each from stock');
    expect(says({ open: '0' })).toBe('shipped');
    expect(servedWords(line(1, { parts: [] }), format)).toBe('');
  });

  it('of a kit counts the parts that are packed', () => {
    const kit = (...packed: string[]) =>
      servedWords(line(1, { revision: 2, parts: packed.map((one) => part([], { packed: one })) }), format);
    expect([kit('0', '0'), kit('1', '0', '3')]).toEqual([
      'packed for this order',
      'packed for this order, 2 of 3 parts in the parcel',
    ]);
  });
});

it('what is ready of an order names two lines and counts the rest', () => {
  const words = (...canShip: string[]) =>
    readyWords({ lines: canShip.map((own, at) => line(at + 1, { canShip: own })) } as Order, format);
  expect(words('0', '0')).toBe('Nothing ready yet');
  expect(words('1', '0')).toBe('1 each Item 1 is ready');
  expect(words('2')).toBe('2 each Item 1 are ready');
  expect(words('1', '1')).toBe('1 each Item 1; 1 each Item 2 are ready');
  expect(words('1', '2', '3', '4')).toBe('1 each Item 1; 2 each Item 2; and 2 more are ready');
});
