import type { Item } from '@yosegi/contract';
import type { KeyboardEvent } from 'react';
import { MoneyCell, QuantityCell } from '../ui/Cells.tsx';

interface Props {
  readonly item: Pick<Item, 'name' | 'unit'>;
  /** What the two are called before the item's name: "Quantity of", "Cost of one". */
  readonly called: readonly [quantity: string, cost: string];
  readonly quantity: string;
  readonly cost: string;
  /** What it is while nothing is typed. */
  readonly costHint?: string | undefined;
  readonly onQuantity: (text: string) => void;
  readonly onCost: (text: string) => void;
  readonly onKeyDown: (event: KeyboardEvent<HTMLElement>) => void;
  readonly quantityError?: string | undefined;
  readonly costError?: string | undefined;
}

/** How much of something is bought or came, and what one costs: two cells of a grid. */
export function PricedCells(props: Props) {
  const { item, called, onKeyDown } = props;
  return (
    <>
      <td data-label="Quantity">
        <QuantityCell
          label={`${called[0]} ${item.name}`}
          value={props.quantity}
          unit={item.unit}
          onChange={props.onQuantity}
          onKeyDown={onKeyDown}
          error={props.quantityError}
        />
      </td>
      <td data-label={called[1]}>
        <MoneyCell
          label={`${called[1]} ${item.name}`}
          value={props.cost}
          onChange={props.onCost}
          {...(props.costHint === undefined ? {} : { placeholder: props.costHint })}
          onKeyDown={onKeyDown}
          error={props.costError}
        />
      </td>
    </>
  );
}
