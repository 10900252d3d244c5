import type { Bin, Store } from '@yosegi/contract';

/** The bin whose printed label was scanned (“MAIN/A1”); undefined for anything else. */
export function scannedBin(stores: readonly Store[], text: string): Bin | undefined {
  const [storeCode, binCode, ...more] = text.trim().toLowerCase().split('/');
  if (!storeCode || !binCode || more.length > 0) return undefined;
  const store = stores.find((one) => one.code.toLowerCase() === storeCode);
  return store?.bins.find((bin) => bin.code.toLowerCase() === binCode && bin.kind !== 'bench');
}

/** What a bin's label carries. */
export const binLabel = (store: Pick<Store, 'code'>, bin: Pick<Bin, 'code'>) => `${store.code}/${bin.code}`;
