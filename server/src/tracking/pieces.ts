import type { Spot } from '@yosegi/core/ledger';
import { type Quantity, SCALE } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { ItemRow } from '../items/index.ts';
import { type BalanceRow, spotIn } from '../ledger/index.ts';
import type { Named } from './tracked.ts';

/** Shelves in the order to take a part from: of lots the first to expire, else its home bin first. */
export function inOrder(shelves: readonly BalanceRow[], item: ItemRow, home: number | null): BalanceRow[] {
  const day = (row: BalanceRow) => (item.tracking === 'lot' ? (row.best_before ?? '9999') : '');
  return shelves
    .filter((row) => row.item_id === item.id)
    .sort((a, b) => day(a).localeCompare(day(b)) || Number(b.bin_id === home) - Number(a.bin_id === home));
}

/** What is wanted of an item, and where it may come from. */
export interface Wanted {
  readonly item: ItemRow;
  readonly quantity: Quantity;
  /** Of it standing on a bench or in a parcel already, and where. */
  readonly standing: Quantity;
  readonly bench: readonly BalanceRow[];
  /** In the order to take from. */
  readonly shelves: readonly BalanceRow[];
  readonly named: Named | undefined;
  /** The name of the line's field, as the person's form knows it. */
  readonly at: (name: 'lot' | 'serials') => string;
}

/**
 * Which lots or serials of something are used: those that stand ready first, then from the shelves the ones that were
 * named.
 * @throws Refusal `serials-needed` when serials are taken from a shelf that nobody named; `lot-unknown`, `serial-unknown`
 */
export function choosePieces({ item, quantity, standing, bench, shelves, named, at }: Wanted): {
  bench: Spot[];
  shelves: Spot[];
} {
  if (item.tracking === 'none' || (!named?.lot && !named?.serials.length)) {
    const rest = quantity - Math.min(quantity, standing);
    if (item.tracking === 'serial' && rest > 0)
      throw new Refusal(
        'serials-needed',
        { name: item.name, count: quantity / SCALE, given: named?.serials.length ?? 0 },
        at('serials'),
      );
    return { bench: bench.map(spotIn), shelves: item.tracking === 'serial' ? [] : shelves.map(spotIn) };
  }
  if (item.tracking === 'lot') {
    const lots = shelves.filter((row) => row.lot?.toLowerCase() === named.lot?.toLowerCase());
    if (lots.length === 0) throw new Refusal('lot-unknown', { code: named.lot ?? '', name: item.name }, at('lot'));
    return { bench: bench.map(spotIn), shelves: lots.map(spotIn) };
  }
  const count = quantity / SCALE;
  const field = at('serials');
  if (named.serials.length !== count)
    throw new Refusal('serials-needed', { name: item.name, count, given: named.serials.length }, field);
  const pieces = named.serials.map((code) => {
    const row = [...bench, ...shelves].find((one) => one.serial?.toLowerCase() === code.toLowerCase());
    if (!row) throw new Refusal('serial-unknown', { code, name: item.name }, field);
    return row;
  });
  const onBench = pieces.filter((row) => row.holder_id !== null);
  if (onBench.length < Math.min(quantity, standing) / SCALE)
    throw new Refusal('bench-first', { name: item.name, count: standing / SCALE }, field);
  return {
    bench: onBench.map(spotIn),
    shelves: pieces.filter((row) => row.holder_id === null).map(spotIn),
  };
}
