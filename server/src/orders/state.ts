import { dayOf } from '@yosegi/core/days';
import type { OrderState } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import type { Doing } from '../command/doing.ts';
import { readOrder } from './read.ts';

const STATE_NAMES: Record<OrderState, string> = { quote: 'a quote', confirmed: 'confirmed', cancelled: 'cancelled' };

/** @throws Refusal `wrong-state` saying what it is and would have to be */
export function requireState(order: { readonly state: OrderState }, states: readonly OrderState[]): void {
  if (states.includes(order.state)) return;
  const must = states.map((state) => STATE_NAMES[state]).join(' or ');
  throw new Refusal('wrong-state', { is: STATE_NAMES[order.state], must });
}

/** The order as it stands now, for whoever typed over an older one. */
export const current = (doing: Doing, id: number) => readOrder(doing.tx, id, dayOf(doing.now));
