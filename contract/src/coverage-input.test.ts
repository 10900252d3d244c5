import { cover } from '@yosegi/core/coverage';
import { definitionCost } from '@yosegi/core/definitions';
import { formatDecimal, parseDecimal, type Quantity } from '@yosegi/core/number';
import { describe, expect, it } from 'vitest';
import type { Snapshot } from './coverage.ts';
import { CoverageRows, worldOf } from './coverage-input.ts';

const need = (lineId: number, itemId: number, quantity: string): Snapshot['demands'][number] => ({
  ...{
    kind: 'order',
    id: 1,
    lineId,
    itemId,
    quantity,
    wantedOn: null,
    begun: false,
    priority: null,
    age: 1,
    transport: 0,
    alternates: [],
  },
});
const bought = (id: number, itemId: number, quantity: string, on: string | null): Snapshot['supplies'][number] => ({
  ...{ kind: 'purchase', id, itemId, quantity, on, bench: null, only: null, draft: false, planned: false, supplier: 1 },
});
const snapshot: Snapshot = {
  version: 'a',
  since: null,
  today: '2026-11-25',
  workDays: [1, 2, 3, 4, 5],
  benchMinutes: 480,
  items: [
    [1, 0, '2.5', []],
    [2, 0, '2.5', [[1, '20']]],
    [3, 3, '2.5', [[1, '1.5']]],
  ],
  definitions: [
    {
      itemId: 1,
      draft: false,
      output: '2',
      benchDays: null,
      parts: [
        [2, '3', 0, '0', []],
        [3, '0.25', 1, '0', []],
      ],
      labour: [['30', 0, '24']],
      charges: [['1.75', 1]],
    },
  ],
  demands: [need(1, 2, '3')],
  supplies: [bought(1, 2, '4', '2026-12-02'), bought(2, 2, '9', null)],
  gone: [],
};
const wanted = (quantity: string, itemId = 1) => ({
  wanted: [{ itemId, quantity: parseDecimal(quantity) as Quantity }],
});

describe('a snapshot made ready for the core', () => {
  const world = worldOf(snapshot);
  const ask = (quantity: string) => cover(world, wanted(quantity));

  it('answers like the core on the same figures', () => {
    expect(ask('11')).toMatchObject({ products: [{ now: 11e6, limitedBy: null }], completeOn: '2026-11-25' });
    expect(ask('14')).toMatchObject({ products: [{ now: 11e6, limitedBy: 2 }], completeOn: '2026-12-02' });
    expect(ask('19').components[0]).toMatchObject({
      itemId: 2,
      needed: 29e6,
      free: 17e6,
      promised: 3e6,
      coming: 13e6,
      short: 0,
      completeOn: null,
    });
    expect(ask('21').components[0]).toMatchObject({ needed: 32e6, short: 2e6 });
  });

  it('costs parts, labour and charges', () => {
    const revision = world.definitionOf(1);
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
    expect(world.definitionOf(9)).toBeUndefined();
    expect(world.averageCost(9)).toBe(0);
    expect(cover(world, wanted('1', 2)).products[0]).toMatchObject({ hasDefinition: false, now: 0 });
  });

  it('takes in what changed and what is gone, and begins anew where it is whole', () => {
    const rows = CoverageRows.of(snapshot, null);
    const next = CoverageRows.of(
      {
        ...{ ...snapshot, version: 'b', since: 'a', items: [[2, 0, '2.5', [[1, '8']]]], definitions: [] },
        ...{ demands: [], supplies: [bought(1, 2, '4', '2026-12-04')], gone: ['norder1', 'spurchase2'] },
      },
      rows,
    );
    expect(next.version).toBe('b');
    const answer = cover(next.world(), wanted('8'));
    expect(answer.products[0]).toMatchObject({ now: 5e6, partsOn: '2026-12-04' });
    expect(answer.components[0]).toMatchObject({ free: 8e6, promised: 0, coming: 4e6 });
    // The one before is as it was.
    expect(cover(rows.world(), wanted('11')).products[0]?.now).toBe(11e6);
    const anew = CoverageRows.of({ ...snapshot, demands: [], version: 'c' }, next);
    expect(cover(anew.world(), wanted('1')).components[0]).toMatchObject({ free: 20e6, coming: 13e6 });
  });

  it('counts drafts where it is asked to', () => {
    const drafted: Snapshot = {
      ...snapshot,
      definitions: snapshot.definitions.map((definition) => ({ ...definition, draft: true })),
      supplies: [{ ...bought(7, 2, '5', null), draft: true }],
    };
    expect(cover(worldOf(drafted), wanted('1')).products[0]?.hasDefinition).toBe(false);
    const answer = cover(worldOf(drafted, true), wanted('1'));
    expect(answer.products[0]).toMatchObject({ hasDefinition: true, isDraft: true, now: 1e6 });
    expect(answer.components[0]?.coming).toBe(5e6);
  });
});
