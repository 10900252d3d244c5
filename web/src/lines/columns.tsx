import { formatDecimal, type Money } from '@yosegi/core/number';
import { Choice } from '../ui/Choice.tsx';
import { useFormat } from '../ui/format.ts';
import type { shelfOptions } from '../ui/shelves.ts';
import type { LineColumn } from './LineTable.tsx';
import type { ItemHead } from './typedLines.tsx';

interface Shelved {
  readonly key: number;
  readonly item: ItemHead;
  readonly binId: string;
}

/** The bin of a line. */
export const binColumn = <Line extends Shelved>(asks: {
  readonly head: string;
  /** What it is called before the item's name, like “Bin for”. */
  readonly called: string;
  readonly shelves: ReturnType<typeof shelfOptions>;
  readonly set: (key: number, part: { readonly binId: string }) => void;
  readonly errorAt: (index: number, name: 'binId') => string | undefined;
}): LineColumn<Line> => ({
  head: asks.head,
  width: 200,
  onPhone: asks.head,
  cell: ({ key, item, binId }, index) => (
    <Choice
      label={`${asks.called} ${item.name}`}
      hideLabel
      value={binId}
      options={asks.shelves}
      onChange={(next) => asks.set(key, { binId: next })}
      error={asks.errorAt(index, 'binId')}
    />
  ),
});

/** What each line comes to. */
export const valueColumn = <Line,>(
  read: readonly { readonly value: Money | bigint }[],
  head = 'Value',
): LineColumn<Line> => ({
  head,
  width: 100,
  numeric: true,
  onPhone: head,
  cell: (_, index) => <Amount value={read[index]?.value ?? (0 as Money)} />,
});

function Amount({ value }: { value: Money | bigint }) {
  return useFormat().money(formatDecimal(value));
}
