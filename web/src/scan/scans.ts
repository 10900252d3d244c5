import type { Bin, Item, Store } from '@yosegi/contract';
import { isForGoods } from '@yosegi/core/places';
import type { ElementString } from '@yosegi/core/scan';
import { scannedLabel } from '../ui/scanned.ts';

/** The bin whose printed label was scanned (“MAIN/A1”); undefined for anything else. */
export function scannedBin(stores: readonly Store[], text: string): Bin | undefined {
  const [storeCode, binCode, ...more] = text.trim().toLowerCase().split('/');
  if (!storeCode || !binCode || more.length > 0) return undefined;
  const store = stores.find((one) => one.code.toLowerCase() === storeCode);
  return store?.bins.find((bin) => bin.code.toLowerCase() === binCode && isForGoods(bin.kind));
}

/** What a bin's label carries. */
export const binLabel = (store: Pick<Store, 'code'>, bin: Pick<Bin, 'code'>) => `${store.code}/${bin.code}`;

/** What a scan says besides the item, when it means this one: by GTIN, own barcode, our code or a supplier's; else null. */
export function scanOfItem(
  item: Pick<Item, 'code' | 'barcode'>,
  text: string,
  supplierCode = '',
): ElementString | null {
  const label = labelOf(text);
  const meant = plain(label?.gtin ?? text);
  const names = [item.barcode, item.code, supplierCode].filter((name): name is string => Boolean(name));
  // A label without a GTIN names a lot or a serial of whatever is asked for.
  if (label && label.gtin === undefined) return label;
  return names.some((name) => plain(name) === meant) ? (label ?? {}) : null;
}

/** Leading zeros only fill a GTIN up. */
const plain = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replace(/^0+(?=\d{8})/, '');

/** What a GS1 label says; null for a plain code. */
export function labelOf(text: string): ElementString | null {
  try {
    return scannedLabel(text);
  } catch {
    return null;
  }
}
