import type { Store } from '@yosegi/contract';
import { isForGoods } from '@yosegi/core/places';

/** Bins that goods can be kept in, as choices. */
export const shelfOptions = (stores: readonly Store[]) =>
  stores.flatMap((store) =>
    store.bins
      .filter((bin) => isForGoods(bin.kind))
      .map((bin): [string, string] => [
        String(bin.id),
        `${bin.code} · ${store.name}${bin.kind === 'quarantine' ? ' · quarantine' : ''}`,
      ]),
  );
