import { scanOf } from '@yosegi/core/scan';
import { describe, expect, it } from 'vitest';
import { scannedLabel } from '../ui/scanned.ts';
import { countOf, NOTHING_TYPED, namedInOf, namedOf, readTrack, toggleSerial, withScan } from './typed.ts';

const scale = { id: 1, name: 'Scale', tracking: 'serial' as const };
const wax = { id: 2, name: 'Wax', tracking: 'lot' as const };
const plain = { id: 3, name: 'Nail', tracking: 'none' as const };
const scanned = (...pieces: Parameters<typeof scanOf>[0][]) =>
  pieces.reduce((typed, piece) => withScan(typed, scannedLabel(`]C1${scanOf(piece)}`) ?? {}), NOTHING_TYPED);

describe('scans one after the other', () => {
  it('count each, also when their numbers follow each other', () => {
    const typed = scanned({ serial: 'SC-0001' }, { serial: 'SC-0002' }, { serial: 'SC-0003' });
    expect(typed.serials).toBe('SC-0001..0003');
    expect(countOf(scale, typed)).toBe(3);
    expect(namedOf(scale, typed).serials).toEqual(['SC-0001', 'SC-0002', 'SC-0003']);
    expect(countOf(scale, withScan(typed, { serial: 'sc-0002' }))).toBe(3);
  });

  it('bring lot, best-before day and serials to where they belong', () => {
    const typed = scanned({ gtin: '04006381333931', lot: 'L7', expires: '2028-01-31' });
    expect(namedInOf(wax, typed)).toEqual({ lot: 'L7', bestBefore: '2028-01-31', serials: [] });
    expect(namedInOf(plain, typed)).toEqual({ lot: null, bestBefore: null, serials: [] });
    expect(namedInOf(scale, scanned({ serial: 'X1' }))).toEqual({ lot: null, bestBefore: null, serials: ['X1'] });
    // The next label says no day: the one before it stays.
    expect(withScan(typed, { lot: 'L8' })).toMatchObject({ lot: 'L8', bestBefore: '2028-01-31' });
  });

  it('take one back when it is tapped again, and keep what cannot be read', () => {
    expect(toggleSerial('SC-0001..0003', 'sc-0002')).toBe('SC-0001, SC-0003');
    expect(toggleSerial('SC-0001', 'SC-0002')).toBe('SC-0001..0002');
    expect(toggleSerial('A..', 'B')).toBe('A.. B');
    expect(readTrack(scale, { ...NOTHING_TYPED, serials: 'A, a' }).error).toContain('twice');
  });
});
