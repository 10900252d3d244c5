import type { PartItem, Revision } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  chargeLine,
  type Draft,
  draftOf,
  isSavedAs,
  labourLine,
  noteLine,
  partLine,
  reckon,
  toInput,
} from './draft.ts';

const item = (id: number, averageCost: string, more: Partial<PartItem> = {}): PartItem => ({
  id,
  code: `I-${id}`,
  name: `Item ${id}`,
  unit: 'kg',
  decimals: 3,
  measures: [{ name: 'g', one: '0.001' }],
  tracking: 'none',
  lotOrder: 'prescribed',
  lotFields: [],
  barcode: null,
  archived: false,
  sellPrice: null,
  averageCost,
  costFrom: 'average',
  latestCost: null,
  standardCost: null,
  free: '10',
  onHand: '10',
  definitionId: null,
  ...more,
});
const rates = [{ id: 1, name: 'Bench hour', perHour: '24' }];
const draft = (...lines: Draft['lines'][number][]): Draft => ({ outputQuantity: '2', lines, mending: [], price: '' });

describe('a draft while it is typed', () => {
  it('costs every line, at the average and at the latest price', () => {
    const part = { ...partLine(item(1, '5', { latestCost: '6' })), amount: '0.46', waste: '4' };
    const { cost, byBasis, lacking, faults } = reckon(
      draft(part, { ...labourLine(1), amount: '20' }, { ...chargeLine(), text: 'Stamp', amount: '1.5' }),
      0,
      rates,
    );
    expect(faults.size).toBe(0);
    expect(lacking).toEqual({ averageCost: 0, latestCost: 0, standardCost: 1 });
    expect(cost.lines.map((amount) => formatDecimal(amount))).toEqual(['2.392', '8', '1.5']);
    expect([cost.perUnit, byBasis.latestCost.perUnit].map((amount) => formatDecimal(amount))).toEqual([
      '5.946',
      '6.1852',
    ]);
  });

  it('costs by each basis as a slow sum does, the average standing in where a basis is missing', () => {
    const cents = fc.integer({ min: 0, max: 1e6 });
    const part = fc.record({
      grams: fc.integer({ min: 1, max: 1e6 }),
      average: cents,
      latest: fc.option(cents),
      standard: fc.option(cents),
    });
    const decimal = (thousandths: number) => formatDecimal(thousandths * 1000);
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 6 }), (parts) => {
        const lines = parts.map(({ grams, average, latest, standard }, id) => ({
          ...partLine(
            item(id + 1, decimal(average), {
              latestCost: latest === null ? null : decimal(latest),
              standardCost: standard === null ? null : decimal(standard),
            }),
          ),
          // Typed in grams of an item kept in kilograms.
          amount: `${grams} g`,
        }));
        const { byBasis, lacking, faults } = reckon(draft(...lines), 0, rates);
        expect([...faults.keys()]).toEqual([]);
        const slow = (pick: (one: (typeof parts)[number]) => number | null) =>
          parts.reduce((sum, one) => sum + one.grams * (pick(one) ?? one.average), 0);
        expect(byBasis.averageCost.total).toBe(slow((one) => one.average));
        expect(byBasis.latestCost.total).toBe(slow((one) => one.latest));
        expect(byBasis.standardCost.total).toBe(slow((one) => one.standard));
        expect(lacking.standardCost).toBe(parts.filter((one) => one.standard === null).length);
      }),
    );
  });

  it('names what cannot be read at its field and counts it as nothing', () => {
    const bad = { ...partLine(item(1, '5')), amount: '1.2345', waste: 'some', share: '1.005' };
    const { faults, cost } = reckon(
      {
        outputQuantity: '0',
        lines: [bad, { ...labourLine(1), amount: '' }, chargeLine(), noteLine()],
        mending: [],
        price: '',
      },
      0,
      rates,
    );
    expect([...faults.keys()].sort()).toEqual([
      'lines.0.quantity',
      'lines.0.share',
      'lines.0.waste',
      'lines.1.minutes',
      'lines.2.text',
      'lines.3.text',
      'outputQuantity',
    ]);
    expect(faults.get('lines.0.quantity')).toContain('3 are allowed');
    expect(formatDecimal(cost.total)).toBe('1');
  });

  it('takes no zero amount, no waste below zero and no ratio of nothing', () => {
    const pine = { item: item(2, '4', { code: 'PINE' }), ratio: '0' };
    const lines = [
      { ...partLine(item(1, '5')), amount: '0', waste: '-1', alternates: [pine, { ...pine, ratio: '-2' }] },
      { ...labourLine(1), amount: '0' },
      { ...chargeLine(), text: 'Stamp', amount: '-1' },
      {
        ...partLine(item(3, '5')),
        alternates: [
          { ...pine, ratio: 'two' },
          { ...pine, ratio: '0.5' },
        ],
      },
    ];
    expect([...reckon(draft(...lines), 0, rates).faults.keys()].sort()).toEqual([
      'lines.0.alternates.0.ratio',
      'lines.0.alternates.1.ratio',
      'lines.0.quantity',
      'lines.0.waste',
      'lines.1.minutes',
      'lines.2.amount',
      'lines.3.alternates.0.ratio',
    ]);
    expect(reckon(draft({ ...chargeLine(), text: 'Free of charge', amount: '0' }), 0, rates).faults.size).toBe(0);
  });

  it('takes as many grams as the stock unit can hold', () => {
    const { faults, revision } = reckon(draft({ ...partLine(item(1, '5')), amount: '1000000000 g' }), 0, rates);
    expect([...faults.keys()]).toEqual([]);
    expect(revision.lines[0]).toMatchObject({ quantity: 1_000_000_000_000 });
  });

  it('balances empty take-apart shares by cost to exactly 100', () => {
    const lines = [
      { ...partLine(item(1, '1')), share: '33.33' },
      partLine(item(2, '2')),
      { ...partLine(item(3, '9')), comesBack: false },
      partLine(item(4, '1')),
    ];
    const { shares } = reckon(draft(...lines), 0, rates);
    expect(shares).toEqual([33_330_000, 44_450_000, null, 22_220_000]);
    const over = reckon(
      draft({ ...partLine(item(1, '1')), share: '60' }, { ...partLine(item(2, '1')), share: '50' }),
      0,
      rates,
    );
    expect(over.faults.get('share')).toContain('120'.replace('120', '110'));
    expect(over.shares).toEqual([null, null]);
  });

  it('comes back from the server as it was sent', () => {
    const lines = [
      {
        ...partLine(item(1, '5')),
        amount: ' 2.5 ',
        share: '100',
        tolerance: ' 5 ',
        taken: 'when-finished' as const,
        fromBinId: 8,
        alternates: [
          { item: item(7, '4'), ratio: ' 2 ' },
          { item: item(6, '4'), ratio: '0.5' },
        ],
      },
      { ...labourLine(1), text: 'Glue', amount: '7', basis: 'per-run' as const },
      { ...chargeLine(), text: 'Stamp' },
      { ...noteLine(), text: 'Mind the grain' },
    ];
    const input = toInput(draft(...lines));
    expect(input[0]).toEqual({
      kind: 'part',
      itemId: 1,
      basis: 'per-output',
      quantity: '2.5',
      waste: '0',
      taken: 'when-finished',
      share: '100',
      comesBack: true,
      tolerance: '5',
      fromBinId: 8,
      alternates: [
        { itemId: 7, ratio: '2' },
        { itemId: 6, ratio: '0.5' },
      ],
    });
    expect(input[1]).toMatchObject({ basis: 'per-run', minutes: '7' });
    const [part, labour, charge, note] = input;
    const revision = {
      outputQuantity: '2',
      lines: [
        {
          ...part,
          item: item(1, '5'),
          alternates: [
            { item: item(7, '4'), ratio: '2' },
            { item: item(6, '4'), ratio: '0.5' },
          ],
        },
        { ...labour, ratePerHour: '24' },
        charge,
        note,
      ],
    } as unknown as Revision;
    expect(toInput(draftOf(revision))).toEqual(input);
    // What a closed tab kept is known for what was saved of it, whatever rows are still to be placed.
    const kept = { ...draftOf(revision), mending: [{}] } as unknown as Draft;
    expect(isSavedAs(kept, revision)).toBe(true);
    expect(isSavedAs({ ...kept, outputQuantity: '9' }, revision)).toBe(false);
    expect(isSavedAs({ ...kept, lines: kept.lines.slice(1) }, revision)).toBe(false);
  });
});
