import type { Item, Order } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import { useDeferredValue } from 'react';
import { useQuestion } from '../api/client.ts';
import { readPricedLine } from '../lines/pricedLine.ts';
import type { TypedLine } from '../lines/typedLines.tsx';
import { plainTyped } from '../ui/measuring.ts';
import { type TypedPart, wishesOf } from './kit.ts';

/** What stands above the lines. */
export interface Head {
  /** Empty until chosen. */
  readonly customerId: string;
  readonly reference: string;
  readonly wantedOn: string;
  readonly delivery: Order['delivery'];
  readonly remark: string;
  readonly benchNote: string;
  readonly deliverTo: string;
  readonly jobTag: string;
  /** The day by which it gives way to others; empty where it takes its own turn. */
  readonly turnOn: string;
  /** Off the whole order, in percent. */
  readonly orderDiscount: string;
  readonly freight: string;
}

export interface Line extends TypedLine {
  readonly item: Pick<Item, 'id' | 'code' | 'name' | 'unit' | 'decimals' | 'measures'>;
  /** The line of the order that it is; null for a new one. */
  readonly id: number | null;
  readonly quantity: string;
  /** A day of its own; empty for the order's. */
  readonly wantedOn: string;
  /** Empty: the item's own price, or what it was agreed at. */
  readonly price: string;
  /** Off the price, in percent. */
  readonly discount: string;
  /** What is otherwise in a kit on this line; null: as it was. */
  readonly contents: readonly TypedPart[] | null;
}

/** Nothing is typed where nothing is taken off. */
const shown = (amount: string | undefined) => (amount === undefined || amount === '0' ? '' : amount);

export const headOf = (order: Order | null, customerId: number | null): Head => ({
  customerId: String(order?.customerId ?? customerId ?? ''),
  reference: order?.reference ?? '',
  wantedOn: order?.wantedOn ?? '',
  delivery: order?.delivery ?? 'whole',
  remark: order?.remark ?? '',
  benchNote: order?.benchNote ?? '',
  deliverTo: order?.deliverTo ?? '',
  jobTag: order?.jobTag ?? '',
  turnOn: order?.turnOn ?? '',
  orderDiscount: shown(order?.orderDiscount),
  freight: shown(order?.freight),
});

/** Under which an order that is typed stays on this machine. */
export const keptAs = (orderId: number | null, customerId: number | null): string =>
  orderId === null ? `sale.new.${customerId ?? ''}` : `sale.${orderId}`;

/** An order while it is typed. */
export type Typed = Head & { readonly lines: readonly Line[] };

/** The lines of an order to type over; what was given up whole is left out, and stays so. */
export const linesOf = (order: Order | null): Line[] =>
  (order?.lines ?? [])
    .filter((line) => line.quantity !== line.dropped)
    .map(({ id, itemId, code, name, unit, decimals, quantity, listPrice, discount, priceFrom, wantedOn }) => ({
      key: id,
      id,
      item: { id: itemId, code, name, unit, decimals, measures: [] },
      quantity,
      wantedOn: wantedOn ?? '',
      price: priceFrom === 'typed' ? listPrice : '',
      discount: shown(discount),
      contents: null,
    }));

/** What is typed, as the wire takes it. */
export const inputOf = ({ lines, ...head }: Typed) => ({
  // What is not chosen is missing, and is asked for.
  customerId: (Number(head.customerId) || undefined) as number,
  reference: head.reference.trim(),
  wantedOn: head.wantedOn || null,
  delivery: head.delivery,
  remark: head.remark.trim(),
  benchNote: head.benchNote.trim(),
  deliverTo: head.deliverTo.trim(),
  jobTag: head.jobTag.trim(),
  turnOn: head.turnOn || null,
  orderDiscount: head.orderDiscount.trim() || '0',
  freight: head.freight.trim() || '0',
  lines: lines.map((line) => ({
    id: line.id,
    itemId: line.item.id,
    quantity: plainTyped(line.quantity, line.item),
    price: line.price.trim() || null,
    discount: line.discount.trim() || '0',
    wantedOn: line.wantedOn || null,
    contents: wishesOf(line.contents),
  })),
});

export type OrderBody = ReturnType<typeof inputOf>;

/** What the server says of the lines as they stand; of the ones before while the answer is on its way. */
export function useLook(input: OrderBody, orderId: number | null, lines: readonly Line[]) {
  const asked = useDeferredValue(
    JSON.stringify({
      customerId: input.customerId || null,
      orderId,
      wantedOn: input.wantedOn,
      turnOn: input.turnOn,
      lines: input.lines.map((line, index) => ({ ...line, ...readable(lines[index], line.price) })),
    }),
  );
  const question = useQuestion(
    'lookAhead',
    { body: JSON.parse(asked) },
    { enabled: input.lines.length > 0, keep: true },
  );
  return input.lines.length === question.data?.lines.length ? question.data : undefined;
}

/** What cannot be read yet counts as one at its own price, so that the other lines keep their answers. */
function readable(
  line: Line | undefined,
  price: string | null,
): {
  quantity?: string;
  price?: string | null;
  discount?: string;
  contents?: ReturnType<typeof wishesOf>;
} {
  if (!line) return {};
  const { quantity, quantityError, costError } = readPricedLine(line.item, {
    quantity: line.quantity,
    cost: price ?? '',
  });
  return {
    contents: wishesOf(line.contents, true),
    ...(quantityError ? { quantity: '1' } : { quantity: formatDecimal(quantity) }),
    ...(costError ? { price: null } : {}),
    discount: '0',
  };
}
