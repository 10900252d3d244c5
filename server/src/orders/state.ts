import { dayOf } from '@yosegi/core/days';
import type { OrderState } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import type { Doing } from '../command/doing.ts';
import { readOrder } from './read.ts';

/** @throws Refusal `wrong-state`, with what it is and what to do next */
export function requireState(
  order: { readonly number: string; readonly state: OrderState },
  states: readonly OrderState[],
): void {
  if (states.includes(order.state)) return;
  throw new Refusal('wrong-state', { kind: 'order', number: order.number, state: order.state });
}

/** The order as it stands now, for whoever typed over an older one. */
export const current = (doing: Doing, id: number) => readOrder(doing.tx, id, dayOf(doing.now));
