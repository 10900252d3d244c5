import type { CoverItem, Supplier } from '@yosegi/contract';
import type { Change } from '@yosegi/core/coverage';
import { formatDecimal } from '@yosegi/core/number';
import { count, type Format } from '../ui/format.ts';
import type { Names } from './useNames.ts';

/** What the words of a change are made of. */
export interface Known {
  readonly names: Names;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly suppliers: readonly Supplier[];
  readonly format: Format;
}

/** A change as one says it. */
export function wordsOf(change: Change, { names, items, suppliers, format }: Known): string {
  const amount = (itemId: number, scaled: number) => {
    const item = items.get(itemId);
    return item ? format.quantity(formatDecimal(scaled), item.unit, item.decimals) : formatDecimal(scaled);
  };
  switch (change.what) {
    case 'day': {
      const { number } = names.supply(change.kind, change.id);
      return change.on ? `${number} on ${format.day(change.on)}` : `${number} without a date`;
    }
    case 'gone':
      return `${names.supply(change.kind, change.id).number} never comes`;
    case 'late': {
      const name = suppliers.find(({ id }) => id === change.supplierId)?.name ?? 'A supplier';
      return change.days === null ? `${name}: no date yet` : `${name} ${count(change.days, 'day')} late`;
    }
    case 'build':
      return `${amount(change.itemId, change.quantity)} more built${change.on ? ` by ${format.day(change.on)}` : ''}`;
    case 'missing':
      return `${amount(change.itemId, change.quantity)} turn out missing`;
    case 'instead':
      return `${items.get(change.other)?.name ?? 'an alternate'} for ${amount(change.itemId, change.quantity)}`;
    case 'first':
      return `${names.source(change.source)?.number ?? '…'} goes first`;
    case 'last':
      return `${names.source(change.source)?.number ?? '…'} goes last`;
  }
}
