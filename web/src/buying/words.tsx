import type { LearntLead, OrderState, PurchaseOrderRow } from '@yosegi/contract';
import { Chip, type Tone } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { count } from '../ui/format.ts';

const states: Record<OrderState, readonly [Tone, string]> = {
  draft: ['held', 'draft'],
  sent: ['coming', 'sent'],
  confirmed: ['coming', 'confirmed'],
  'partly-received': ['coming', 'partly received'],
  closed: ['ok', 'closed'],
  cancelled: ['held', 'cancelled'],
};

/** Where an order stands, in a word. */
export function OrderChip({ order }: { order: Pick<PurchaseOrderRow, 'state' | 'late'> }) {
  const [tone, words] = states[order.state];
  return <Chip $tone={order.late ? 'short' : tone}>{order.late ? `${words}, late` : words}</Chip>;
}

export const stateNames = Object.fromEntries(
  Object.entries(states).map(([state, [, words]]) => [state, words]),
) as Record<OrderState, string>;

/** Which orders a list shows. */
export const WhichOrders = (props: { readonly value: string; readonly onChange: (show: string) => void }) => (
  <Choice
    {...props}
    label="Which orders"
    hideLabel
    options={[
      ['open', 'Drafts and open orders'],
      ['late', 'Late'],
      ['back-order', 'Back orders'],
      ['draft', 'Drafts'],
      ['over', 'Closed and cancelled'],
      ['all', 'All'],
    ]}
  />
);

const days = (n: number) => count(n, 'day');

/** What deliveries taught, in a few words: "12 days, slow 20 · 6 deliveries". */
export function learntWords(learnt: LearntLead | null): string {
  if (learnt === null) return 'nothing yet';
  const slow = learnt.slow > learnt.usual ? `, slow ${learnt.slow}` : '';
  return `${days(learnt.usual)}${slow} · ${count(learnt.deliveries, 'delivery', 'deliveries')}`;
}

/** How often a promise was kept; nothing while no day was ever promised. */
export const keptWords = (learnt: LearntLead | null): string =>
  learnt === null || learnt.withDay === 0 ? '' : `${learnt.onTime} of ${learnt.withDay} on the promised day or before`;
