import type { Store } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import { binLabel, scannedBin, scanOfItem } from './scans.ts';

const bin = (id: number, code: string, kind: 'shelf' | 'bench' | 'quarantine' = 'shelf') => ({
  id,
  storeId: 1,
  code,
  kind,
  pickingOrder: id,
  version: 0,
});
const store: Store = {
  id: 1,
  code: 'MAIN',
  name: 'Main store',
  version: 0,
  bins: [bin(1, 'A1'), bin(2, 'Q1', 'quarantine'), bin(3, 'BENCH', 'bench')],
};

describe('a scanned bin', () => {
  it('is known by what its label carries, however it is written', () => {
    for (const one of store.bins.slice(0, 2)) expect(scannedBin([store], binLabel(store, one))).toBe(one);
    expect(scannedBin([store], ' main/a1 ')?.id).toBe(1);
  });

  it('is nothing else, and never a bench', () => {
    for (const text of ['A1', 'MAIN', 'MAIN/', '/A1', 'MAIN/A9', 'COLD/A1', 'MAIN/A1/2', 'MAIN/BENCH', ''])
      expect(scannedBin([store], text), text).toBeUndefined();
  });
});

describe('a scan of an item', () => {
  const item = { code: 'WAX-F', barcode: '4006381333931' };

  it('means it by GTIN with or without zeros, by its code or the supplier’s', () => {
    for (const text of ['4006381333931', '04006381333931', 'wax-f', 'W-12'])
      expect(scanOfItem(item, text, 'W-12'), text).toEqual({});
    expect(scanOfItem(item, '(01)04006381333931(17)280131(10)L7')).toMatchObject({ lot: 'L7', expires: '2028-01-31' });
  });

  it('of a label without a GTIN names a lot or serial of whatever is asked for', () => {
    expect(scanOfItem(item, ']C110L7')).toEqual({ lot: 'L7' });
  });

  it('is refused for anything else', () => {
    for (const text of ['WAX', '4006381333932', '(01)00000000000017', 'MAIN/A1'])
      expect(scanOfItem(item, text), text).toBeNull();
    expect(scanOfItem({ code: '0012', barcode: null }, '12')).toBeNull();
  });
});
