import type { Line, Rate, Revision } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import { difference } from './difference.ts';

const item = (id: number, code: string) => ({
  ...{ id, code, name: `The ${code}`, unit: 'each', decimals: 0, measures: [] },
  ...{ averageCost: '2', latestCost: '2', standardCost: null, costFrom: 'average' },
});
const part = (id: number, code: string, more: object = {}) => ({
  ...{ id, kind: 'part', item: item(id, code), basis: 'per-output', quantity: '2', waste: '0', taken: 'picked-first' },
  ...{ share: null, comesBack: true, tolerance: null, fromBinId: null, alternates: [] },
  ...more,
});
const labour = (text: string, more: object = {}) => ({
  ...{ id: 8, kind: 'labour', text, basis: 'per-output', minutes: '6', rateId: 1 },
  ...more,
});
const revision = (...lines: object[]) =>
  ({ id: 1, number: 1, version: 0, outputQuantity: '1', lines: lines as Line[] }) as unknown as Revision;
const rates = [
  { id: 1, name: 'Bench', perHour: '24' },
  { id: 2, name: 'Paint', perHour: '30' },
] as Rate[];
/** What is told of one line that is otherwise: which facts, from what to what. */
function told(before: object, after: object) {
  const [line] = difference(revision(before), revision(after), 0, rates, (id) => `bin ${id}`).lines;
  if (line?.change !== 'changed') return line?.change;
  return line.facts.map((fact) => [fact, line.before.facts[fact], line.after.facts[fact]]);
}

describe('the difference between two revisions', () => {
  it('tells each fact of a part that is otherwise, as people read it', () => {
    const of = (more: object) => told(part(1, 'OAK'), part(1, 'OAK', more));
    expect(of({})).toBe('same');
    expect(of({ quantity: '3' })).toEqual([['amount', '2', '3']]);
    expect(of({ basis: 'per-run' })).toEqual([['basis', 'per output', 'per run']]);
    expect(of({ waste: '5' })).toEqual([['waste', '0', '5']]);
    expect(of({ taken: 'when-finished' })).toEqual([['taken', 'picked first', 'when finished']]);
    expect(of({ share: '40' })).toEqual([['share', null, '40']]);
    expect(of({ comesBack: false })).toEqual([['comesBack', true, false]]);
    expect(of({ tolerance: '3' })).toEqual([['tolerance', null, '3']]);
    expect(of({ fromBinId: 4 })).toEqual([['from', null, 'bin 4']]);
    const alternates = [
      { item: item(2, 'PINE'), ratio: '2' },
      { item: item(3, 'ASH'), ratio: '1' },
    ];
    expect(of({ alternates })).toEqual([['alternates', null, 'PINE × 2, ASH × 1']]);
    expect(told(part(1, 'OAK'), part(2, 'PINE'))).toBe('added');
  });

  it('tells labour by its rate and minutes, a charge by its amount, and notes by their words', () => {
    expect(told(labour('Saw'), labour('Saw', { rateId: 2, minutes: '9' }))).toEqual([
      ['amount', '6', '9'],
      ['rate', 'Bench', 'Paint'],
    ]);
    expect(told(labour('Saw'), labour('Saw', { rateId: 9, basis: 'per-run' }))).toEqual([
      ['basis', 'per output', 'per run'],
      ['rate', 'Bench', null],
    ]);
    const charge = (amount: string, more: object = {}) => ({
      ...{ id: 9, kind: 'charge', text: 'Varnish', basis: 'per-run', amount },
      ...more,
    });
    expect(told(charge('5'), charge('7', { basis: 'per-output' }))).toEqual([
      ['amount', '5', '7'],
      ['basis', 'per run', 'per output'],
    ]);
    const note = (text: string) => ({ id: 7, kind: 'note', text });
    expect([told(note('Glue'), note('Glue')), told(note('Glue'), note('Sand'))]).toEqual(['same', 'added']);
    // Work and a charge of the same words are two things.
    expect(told(labour('Varnish'), charge('5'))).toBe('added');
  });

  it('names each line, and costs it at today’s averages and its rate', () => {
    const all = [part(1, 'OAK'), labour(''), labour('Saw'), { id: 7, kind: 'note', text: 'Glue first' }];
    const { lines, costBefore, costAfter } = difference(revision(), revision(...all), 0, rates, String);
    expect(lines.map(({ after }) => [after?.title, after?.code, after?.cost])).toEqual([
      ['The OAK', 'OAK', 4e6],
      ['Labour', null, 2.4e6],
      ['Saw', null, 2.4e6],
      ['Glue first', null, 0],
    ]);
    expect([costBefore, costAfter]).toEqual([0, 8.8e6]);
  });
});
