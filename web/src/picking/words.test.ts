import type { Order, OrderPart } from '@yosegi/contract';
import { expect, it } from 'vitest';
import type { Format } from '../ui/format.ts';
import { jobOfBuild, jobOfOrder } from './job.ts';
import { suggestedTrack } from './steps.ts';
import { walkedWords, whereItIs } from './words.ts';

const format = { quantity: (text: string, unit: string) => `${text} ${unit}` } as Format;

it('says how long a walk took, as far as anybody knows', () => {
  const walked = (minutes: number, linesPerHour: number | null) =>
    walkedWords({ stops: 3, lines: 4, minutes, linesPerHour });
  expect([walked(0, null), walked(1, 1), walked(12, 40)]).toEqual([
    '',
    ' in 1 minute, 1 line an hour',
    ' in 12 minutes, 40 lines an hour',
  ]);
});

it('says where else it is, or that it is nowhere', () => {
  const missing = (elsewhere: { store: string; quantity: string }[]) =>
    whereItIs({ item: { unit: 'kg', decimals: 3 }, quantity: '5', elsewhere } as never, format);
  expect(missing([])).toBe('5 kg out of stock');
  expect(
    missing([
      { store: 'Barn', quantity: '2' },
      { store: 'Shed', quantity: '1' },
    ]),
  ).toBe('2 kg in Barn, 1 kg in Shed');
});

it('of an order picks what is open of each part, and counts those that are packed', () => {
  const part = (id: number, open: string, packed: string) =>
    ({ id, item: { id }, open, packed, bins: [] }) as unknown as OrderPart;
  const order = (parts: OrderPart[][], parcels: string[] = []) =>
    ({
      ...{ id: 5, number: 'O-5', customer: 'Lark' },
      lines: parts.map((own) => ({ parts: own })),
      parcels: parcels.map((number) => ({ number })),
    }) as unknown as Order;
  const job = jobOfOrder(
    order([
      [part(1, '0', '0'), part(2, '3', '0')],
      [part(3, '0', '2'), part(4, '0.5', '1')],
    ]),
  );
  expect(job.lines.map(({ id }) => id)).toEqual([2, 4]);
  expect([job.kind, job.id, job.what, job.picked, job.of, job.place]).toEqual([
    'order',
    5,
    'Lark',
    1,
    3,
    'in its parcel',
  ]);
  expect([job.home, job.next]).toEqual(['/orders/5', { to: '/orders/5?ship=1', says: 'Ship the order' }]);
  expect(jobOfOrder(order([[]], ['PC-1', 'PC-2'])).place).toBe('in PC-2');
});

it('of a build goes to its bench, and on to its finish', () => {
  const build = { id: 7, number: 'B-7', code: 'HIVE', name: 'The hive', quantity: '4', pickedLines: 1, pickLines: 3 };
  const job = jobOfBuild({ ...build, finished: '1', rejected: '1', outputQuantity: '1', lines: [] } as never);
  expect([job.tile, job.what, job.picked, job.of, job.place]).toEqual(['HIVE', '4 × The hive', 1, 3, 'on the bench']);
  expect([job.home, job.next]).toEqual(['/build/7', { to: '/build/7/finish', says: 'Finish the build' }]);
  expect(job.some?.left).toBe('2');
});

it('proposes the first serials of a bin, and leaves lots to be the first that expires', () => {
  const piece = (serial: string | null) => ({ serial, lot: serial === null ? 'L' : null });
  const bin = { pieces: [piece('S1'), piece(null), piece('S2'), piece('S3')] } as never;
  const of = (tracking: string, quantity: string, there = bin) =>
    suggestedTrack({ tracking } as never, there, quantity).serials;
  expect([of('serial', '2'), of('serial', '9'), of('serial', 'x'), of('lot', '2')]).toEqual(['S1..2', 'S1..3', '', '']);
  expect(of('serial', '2', null as never)).toBe('');
});
