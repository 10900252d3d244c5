import { describe, expect, it } from 'vitest';
import { type ItemAround, type ItemFacts, refuseItem } from './rules.ts';

const item: ItemFacts = { unit: 'kg', decimals: 3, tracking: 'none', archived: false };
const alone: ItemAround = { hasHistory: false, hasStock: false, isPromised: false, isPacked: false };
const refused = (
  after: Partial<ItemFacts>,
  around: Partial<ItemAround> = {},
  before: Partial<ItemFacts> | null = {},
) => {
  try {
    refuseItem({ ...item, ...after }, before === null ? undefined : { ...item, ...before }, { ...alone, ...around });
    return null;
  } catch (error) {
    const { code, field } = error as { code: string; field: string };
    return `${field}: ${code}`;
  }
};

describe('an item that contradicts itself or what there is of it', () => {
  it('serials come in whole pieces only', () => {
    expect(refused({ tracking: 'serial' })).toBe('tracking: serial-needs-whole');
    expect(refused({ tracking: 'serial', decimals: 0 })).toBeNull();
    expect(refused({ tracking: 'lot' })).toBeNull();
    expect(refused({ tracking: 'serial' }, {}, null)).toBe('tracking: serial-needs-whole');
  });

  it('a new one has nothing yet to contradict', () => {
    const all = { hasHistory: true, hasStock: true, isPromised: true, isPacked: true };
    expect(refused({ unit: 'each', tracking: 'lot', archived: true }, all, null)).toBeNull();
  });

  it('its unit stays once something was counted in it', () => {
    expect(refused({ unit: 'each' }, { hasHistory: true })).toBe('unit: unit-in-use');
    expect(refused({ unit: 'each' })).toBeNull();
    expect(refused({}, { hasHistory: true })).toBeNull();
  });

  it('its tracking stays while any is there, and a kit that is packed per order has none', () => {
    expect(refused({ tracking: 'lot' }, { hasStock: true })).toBe('tracking: tracking-in-use');
    expect(refused({ tracking: 'lot' }, { isPacked: true })).toBe('tracking: kit-is-tracked');
    expect(refused({ tracking: 'lot' }, { hasHistory: true })).toBeNull();
    expect(refused({}, { hasStock: true, isPacked: true })).toBeNull();
  });

  it('it is archived only when nothing of it is there or promised', () => {
    expect(refused({ archived: true }, { hasStock: true, isPromised: true })).toBe('archived: archive-has-stock');
    expect(refused({ archived: true }, { isPromised: true })).toBe('archived: archive-is-promised');
    expect(refused({ archived: true })).toBeNull();
    // What is archived already, or comes back, minds neither.
    expect(refused({ archived: true }, { hasStock: true, isPromised: true }, { archived: true })).toBeNull();
    expect(refused({}, { hasStock: true, isPromised: true }, { archived: true })).toBeNull();
  });
});
