import { describe, expect, it } from 'vitest';
import type { Money, Percent } from '../number/index.ts';
import { type Behaviour, faultsOf, priceFromParts, refuseContradiction, type Surroundings } from './index.ts';

const stocked: Behaviour = {
  made: 'ahead',
  paperwork: 'one-line',
  onOrder: 'locked',
  swapFor: 'listed',
  price: 'own',
  discount: 0 as Percent,
};
const alone: Surroundings = {
  purpose: 'build',
  tracking: 'none',
  hasStock: false,
  openBuilds: [],
  partOf: [],
  hasAlternates: false,
};

describe('the switches of a kit', () => {
  const packed = { ...stocked, made: 'packed-per-order' } as const;

  it('are independent: every combination stands when nothing contradicts it', () => {
    for (const made of ['ahead', 'packed-per-order'] as const)
      for (const paperwork of ['one-line', 'contents'] as const)
        for (const onOrder of ['locked', 'quantities', 'swaps'] as const) {
          const behaviour = { ...stocked, made, paperwork, onOrder };
          expect(() => refuseContradiction(behaviour, { ...alone, hasAlternates: true })).not.toThrow();
        }
  });

  it.each<[string, Behaviour, Partial<Surroundings>]>([
    ['kit-has-stock', packed, { hasStock: true }],
    ['kit-has-builds', packed, { openBuilds: ['B-0001'] }],
    ['kit-is-part', packed, { partOf: ['SET'] }],
    ['kit-is-tracked', packed, { tracking: 'serial' }],
    ['kit-purpose', packed, { purpose: 'record' }],
    ['kit-no-alternates', { ...stocked, onOrder: 'swaps' }, {}],
  ])('refuse %s', (code, behaviour, around) => {
    expect(() => refuseContradiction(behaviour, { ...alone, ...around })).toThrow(expect.objectContaining({ code }));
  });

  it('let anything be swapped without a list, and keep a stocked product with stock and builds', () => {
    const free = { ...stocked, onOrder: 'swaps', swapFor: 'anything' } as const;
    const around = { ...alone, hasStock: true, openBuilds: ['B-1'], partOf: ['X'], tracking: 'lot' } as const;
    expect(() => refuseContradiction(free, around)).not.toThrow();
  });
});

describe('the price of a kit by its parts', () => {
  const of = (quantity: number, price: number | null) => ({
    quantity: (quantity * 1e6) as never,
    price: price === null ? null : ((price * 1e6) as Money),
  });
  it('is what they sell at for one, less the discount; none while any has no price', () => {
    const price = (parts: ReturnType<typeof of>[], discount = 0, output = 1) =>
      priceFromParts(parts, (output * 1e6) as never, (discount * 1e6) as never, 2);
    expect(price([of(2, 5), of(1, 2.5)])).toBe(12_500_000);
    expect(price([of(2, 5), of(1, 2.5)], 10)).toBe(11_250_000);
    expect(price([of(1, 1)], 0, 3)).toBe(333_333);
    // What is reckoned is what can be paid: 117 less an eighth is 102.375.
    expect(price([of(13, 9)], 12.5)).toBe(102_380_000);
    expect(price([of(2, 5), of(1, null)])).toBeNull();
    expect(price([of(1, 0)])).toBe(0);
    expect(price([], 10)).toBe(0);
  });
});

describe('a contradiction', () => {
  const packed: Behaviour = {
    made: 'packed-per-order',
    paperwork: 'one-line',
    onOrder: 'locked',
    swapFor: 'listed',
    price: 'own',
    discount: 0 as never,
  };
  const free: Surroundings = {
    purpose: 'build',
    tracking: 'none',
    hasStock: false,
    openBuilds: [],
    partOf: [],
    hasAlternates: false,
  };
  const told = (behaviour: Partial<Behaviour>, around: Partial<Surroundings>) => {
    try {
      refuseContradiction({ ...packed, ...behaviour }, { ...free, ...around });
      return null;
    } catch (error) {
      const { code, field, facts } = error as { code: string; field: string; facts: object };
      return [field, code, facts];
    }
  };
  it('names the switch, and what stands against it', () => {
    expect(told({}, {})).toBeNull();
    expect(told({}, { purpose: 'rework' })).toEqual(['made', 'kit-purpose', { purpose: 'rework' }]);
    expect(told({}, { hasStock: true })).toEqual(['made', 'kit-has-stock', {}]);
    expect(told({}, { openBuilds: ['B-1'] })).toEqual(['made', 'kit-has-builds', { builds: ['B-1'] }]);
    expect(told({}, { partOf: ['BOX'] })).toEqual(['made', 'kit-is-part', { products: ['BOX'] }]);
    expect(told({}, { tracking: 'lot' })).toEqual(['made', 'kit-is-tracked', { tracking: 'lot' }]);
    expect(told({ onOrder: 'swaps' }, {})).toEqual(['onOrder', 'kit-no-alternates', {}]);
    expect(told({ onOrder: 'swaps', swapFor: 'anything' }, {})).toBeNull();
    expect(told({ onOrder: 'swaps' }, { hasAlternates: true })).toBeNull();
    expect(
      told({ made: 'ahead' }, { hasStock: true, tracking: 'lot', openBuilds: ['B-1'], partOf: ['BOX'] }),
    ).toBeNull();
  });
});

describe('faults of a definition', () => {
  const whole = {
    purpose: 'build',
    hasRevisionInUse: true,
    parts: [{ itemId: 1, unitCost: 5 as Money, archived: false }],
    unitCost: 5 as Money,
    price: 9 as Money,
  } as const;

  it('finds each kind, and none where all is well', () => {
    expect(faultsOf(whole)).toEqual([]);
    const parts = [
      { itemId: 1, unitCost: 0 as Money, archived: false },
      { itemId: 1, unitCost: 0 as Money, archived: false },
      { itemId: 2, unitCost: 4 as Money, archived: true },
    ];
    expect(faultsOf({ ...whole, parts, hasRevisionInUse: false, price: 4 as Money })).toEqual([
      { fault: 'none-in-use', itemIds: [] },
      { fault: 'archived-part', itemIds: [2] },
      { fault: 'unpriced-part', itemIds: [1] },
      { fault: 'below-cost', itemIds: [] },
    ]);
  });

  it('finds nothing in a price that just covers the cost, or in none at all', () => {
    const below = (price: number | null, unitCost: number | null = 5) =>
      faultsOf({ ...whole, price: price as Money | null, unitCost: unitCost as Money | null }).map(
        ({ fault }) => fault,
      );
    expect([below(4), below(5), below(null)]).toEqual([['below-cost'], [], []]);
    expect(below(4, null)).toEqual(['beyond-reckoning']);
  });

  it('asks no price of a rework, nor costs of a record', () => {
    expect(faultsOf({ ...whole, purpose: 'rework', price: 1 as Money })).toEqual([]);
    const unpriced = [{ itemId: 1, unitCost: 0 as Money, archived: false }];
    expect(faultsOf({ ...whole, purpose: 'record', parts: unpriced })).toEqual([]);
  });
});
