import { cover } from '@yosegi/core/coverage';
import { definitionCost } from '@yosegi/core/definitions';
import { formatDecimal, parseDecimal, type Quantity } from '@yosegi/core/number';
import { describe, expect, it } from 'vitest';
import type { Snapshot } from './coverage.ts';
import { CoverageWorld } from './coverage-input.ts';

const item = (id: number, onHand: string, promised: string, decimals = 0): Snapshot['items'][number] => ({
  id,
  code: `I${id}`,
  name: `Item ${id}`,
  unit: decimals ? 'kg' : 'each',
  decimals,
  homeBin: null,
  measures: [],
  onHand,
  promised,
  averageCost: '2.5',
  definitionId: null,
});
const snapshot: Snapshot = {
  items: [item(1, '0', '0'), item(2, '20', '3'), item(3, '1.5', '0', 3)],
  definitions: [
    {
      itemId: 1,
      outputQuantity: '2',
      parts: [
        { itemId: 2, basis: 'per-output', quantity: '3', waste: '0', taken: 'picked-first', alternates: [] },
        { itemId: 3, basis: 'per-run', quantity: '0.25', waste: '0', taken: 'when-finished', alternates: [] },
      ],
      labour: [{ basis: 'per-output', minutes: '30', ratePerHour: '24' }],
      charges: [{ basis: 'per-run', amount: '1.75' }],
    },
  ],
  coming: [
    { itemId: 2, quantity: '4', date: '2026-12-02', from: 'B-0001' },
    { itemId: 2, quantity: '9', date: null, from: 'B-0002' },
  ],
};

describe('a snapshot made ready for the core', () => {
  const world = new CoverageWorld(snapshot);
  const ask = (quantity: string) => cover(world.input([{ itemId: 1, quantity: parseDecimal(quantity) as Quantity }]));

  it('answers like the core on the same figures', () => {
    expect(ask('11')).toMatchObject({ products: [{ now: 11e6, limitedBy: null }], wholeOn: '' });
    expect(ask('14')).toMatchObject({ products: [{ now: 11e6, limitedBy: 2 }], wholeOn: '2026-12-02' });
    expect(ask('19').components[0]).toMatchObject({
      itemId: 2,
      needed: 29e6,
      free: 17e6,
      promised: 3e6,
      coming: 13e6,
      short: 0,
      wholeOn: null,
    });
    expect(ask('21').components[0]).toMatchObject({ needed: 32e6, short: 2e6 });
  });

  it('costs parts, labour and charges', () => {
    const revision = world.revision(1);
    if (!revision) throw new Error('the product is defined');
    const cost = definitionCost(revision, (id) => world.averageCost(id));
    expect([cost.parts, cost.labour, cost.charges, cost.perUnit].map((amount) => formatDecimal(amount))).toEqual([
      '8.125',
      '12',
      '1.75',
      '10.9375',
    ]);
  });

  it('knows nothing of what is not in it', () => {
    expect(world.revision(9)).toBeUndefined();
    expect(world.averageCost(9)).toBe(0);
    expect(cover(world.input([{ itemId: 2, quantity: 1e6 as Quantity }])).products[0]).toMatchObject({
      hasDefinition: false,
      now: 0,
    });
  });
});
