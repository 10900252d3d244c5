import type { Item } from '@yosegi/contract';
import type { KeyboardEvent } from 'react';
import { MoneyCell, QuantityCell } from '../ui/Cells.tsx';
import type { LineColumn } from './LineTable.tsx';
import type { PricedLine } from './pricedLine.ts';

interface Priced {
  readonly item: Pick<Item, 'name' | 'unit'>;
  readonly quantity: string;
}

interface Asks<Line extends Priced> {
  /** What the two are called above the column and before the item's name, and the name of the cost in a refusal. */
  readonly quantity: { readonly head: string; readonly called: string; readonly width?: number };
  readonly cost: { readonly head: string; readonly name: string; readonly of: (line: Line) => string };
  readonly read: readonly PricedLine[];
  /** What one costs while nothing is typed. */
  readonly costHint?: (index: number) => string | undefined;
  readonly onQuantity: (line: Line, text: string) => void;
  /** @returns a text that is shown instead, where it was put elsewhere */
  readonly onCost: (line: Line, text: string) => unknown;
  readonly toNext: (event: KeyboardEvent<HTMLElement>) => void;
  /** What a refusal says of a field of a line. */
  readonly errorAt: (index: number, name: string) => string | undefined;
}

/** How much of something is bought, sold or came, and what one costs. */
export function pricedColumns<Line extends Priced>(asks: Asks<Line>): LineColumn<Line>[] {
  const { quantity, cost, read, toNext, errorAt } = asks;
  return [
    {
      head: quantity.head,
      width: quantity.width ?? 140,
      numeric: true,
      onPhone: quantity.head,
      cell: (line, index) => (
        <QuantityCell
          label={`${quantity.called} ${line.item.name}`}
          value={line.quantity}
          unit={line.item.unit}
          onChange={(text) => asks.onQuantity(line, text)}
          onKeyDown={toNext}
          error={read[index]?.quantityError ?? errorAt(index, 'quantity')}
        />
      ),
    },
    {
      head: cost.head,
      width: 120,
      numeric: true,
      onPhone: cost.head,
      cell: (line, index) => {
        const hint = asks.costHint?.(index);
        return (
          <MoneyCell
            label={`${cost.head} of ${line.item.name}`}
            value={cost.of(line)}
            onChange={(text) => asks.onCost(line, text)}
            {...(hint === undefined ? {} : { placeholder: hint })}
            onKeyDown={toNext}
            error={read[index]?.costError ?? errorAt(index, cost.name)}
          />
        );
      },
    },
  ];
}
