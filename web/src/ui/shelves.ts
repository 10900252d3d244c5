import type { Store } from '@yosegi/contract';

/** Bins that goods can be kept in, as choices. */
export const shelfOptions = (stores: readonly Store[]) =>
  stores.flatMap((store) =>
    store.bins
      .filter((bin) => bin.kind !== 'bench')
      .map((bin): [string, string] => [
        String(bin.id),
        `${bin.code} · ${store.name}${bin.kind === 'quarantine' ? ' · quarantine' : ''}`,
      ]),
  );
