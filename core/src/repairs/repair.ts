import { type Money, minus, ZERO } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** How far the repair of a customer's goods has come. */
export const repairStates = ['taken-in', 'asked', 'agreed', 'on-bench', 'ready', 'given-back'] as const;
export type RepairState = (typeof repairStates)[number];

/** What people read of it. */
export const repairWords = {
  'taken-in': 'taken in',
  asked: 'waiting for the customer',
  agreed: 'agreed',
  'on-bench': 'on the bench',
  ready: 'ready',
  'given-back': 'given back',
} as const satisfies Record<RepairState, string>;

/** What is done with it: from which states, and what it is then. */
const deeds = {
  ask: { from: ['taken-in', 'asked', 'agreed'], to: 'asked' },
  agree: { from: ['taken-in', 'asked', 'agreed'], to: 'agreed' },
  start: { from: ['taken-in', 'agreed'], to: 'on-bench' },
  decline: { from: ['taken-in', 'asked', 'agreed', 'on-bench'], to: 'ready' },
  finish: { from: ['on-bench'], to: 'ready' },
  unfinish: { from: ['ready'], to: 'on-bench' },
  'give-back': { from: ['ready'], to: 'given-back' },
  'take-back': { from: ['given-back'], to: 'ready' },
} as const satisfies Record<string, { from: readonly RepairState[]; to: RepairState }>;
export type RepairDeed = keyof typeof deeds;

/** Whether something can be done with a repair as it is. */
export const canDo = (deed: RepairDeed, state: RepairState): boolean =>
  (deeds[deed].from as readonly RepairState[]).includes(state);

/**
 * What a repair is after something was done.
 * @throws Refusal `wrong-state`
 */
export function afterDeed(
  deed: RepairDeed,
  { number, state }: { readonly number: string; readonly state: RepairState },
): RepairState {
  if (canDo(deed, state)) return deeds[deed].to;
  throw new Refusal('wrong-state', { kind: 'repair', number, state });
}

/** What a repair brings beyond what it costs; a warranty brings nothing. */
export const repairMargin = (charged: Money | null, cost: Money): Money => minus(charged ?? (ZERO as Money), cost);
