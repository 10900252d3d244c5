import type { BuyRow, Offer } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { describe, expect, it } from 'vitest';
import { bySupplier, priceOf, withoutSuppliers, worth } from './buyChoice.ts';

const offer = (supplierId: number, supplier: string, price: string, more: object = {}) =>
  ({ supplierId, supplier, price, pack: '1', minimum: '0', breaks: [], ...more }) as unknown as Offer;
const row = (itemId: number, needed: string, offers: Offer[]) =>
  ({ itemId, needed, offers, unit: 'each', decimals: 0, measures: [] }) as unknown as BuyRow;
const north = offer(1, 'North', '2', { pack: '6' });
const south = offer(2, 'Ashby', '3', { minimum: '10' });

describe('what is bought of whom', () => {
  const rows = [row(10, '8', [north, south]), row(11, '4', [south]), row(12, '1', [])];

  it('is as proposed: of the first offer, in whole packs, suppliers by name, and what nobody sells aside', () => {
    const { groups, nobody } = bySupplier(rows, new Map());
    expect(groups.map(({ supplier, lines }) => [supplier.supplier, lines.map(({ typed }) => typed)])).toEqual([
      ['Ashby', ['10']],
      ['North', ['12']],
    ]);
    expect(nobody.map(({ itemId }) => itemId)).toEqual([12]);
  });

  it('is as changed: left out, another quantity, another supplier; one that sells it no more is the first again', () => {
    const changes = new Map([
      [10, { supplierId: 2, quantity: '9' }],
      [11, { out: true, supplierId: 99 }],
    ]);
    const { groups } = bySupplier(rows, changes);
    expect(groups).toHaveLength(1);
    expect(groups[0]?.lines.map(({ typed, out, offer: of }) => [typed, out, of.supplierId])).toEqual([
      ['9', false, 2],
      ['10', true, 2],
    ]);
    expect(withoutSuppliers(changes)).toEqual(
      new Map<number, object>([
        [10, { quantity: '9' }],
        [11, { out: true }],
      ]),
    );
  });

  it('is refused where it was typed: nothing, less than nothing, no number', () => {
    const errorOf = (quantity: string) => {
      const [group] = bySupplier([row(10, '8', [north])], new Map([[10, { quantity }]])).groups;
      return [formatDecimal(group?.lines[0]?.quantity ?? 0), group?.lines[0]?.error];
    };
    expect(errorOf('7')).toEqual(['7', undefined]);
    expect(errorOf('0')).toEqual(['0', 'Enter a quantity above zero, or remove the line.']);
    expect(errorOf('')).toEqual(['0', 'Enter a quantity above zero, or remove the line.']);
    expect(errorOf('-1')[0]).toBe('0');
    expect(errorOf('-1')[1]).toMatch(/\w/);
    expect(errorOf('1.5')[1]).toMatch(/\w/);
  });

  it('is what is needed where packs are so large that they cannot be counted', () => {
    const huge = offer(1, 'North', '2', { pack: '9000000000' });
    const { groups } = bySupplier([row(10, '9000000001', [huge])], new Map());
    expect(groups[0]?.lines[0]?.typed).toBe('9000000001');
  });

  it('costs what its quantity costs, price breaks included, to the currency’s own decimals', () => {
    const breaks = [{ from: '10', price: '1.555' }];
    const [line] = bySupplier([row(10, '8', [offer(1, 'North', '2', { breaks })])], new Map()).groups[0]?.lines ?? [];
    if (!line) throw new Error('no line');
    const costs = (quantity: number) => {
      const some = { ...line, quantity: (quantity * 1e6) as never };
      return [formatDecimal(priceOf(some)), formatDecimal(worth(some, 2)), formatDecimal(worth(some, 0))];
    };
    expect(costs(9)).toEqual(['2', '18', '18']);
    expect(costs(10)).toEqual(['1.555', '15.55', '16']);
    expect(costs(11)).toEqual(['1.555', '17.11', '17']);
  });
});
