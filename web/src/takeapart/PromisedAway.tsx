import type { Item } from '@yosegi/contract';
import { useQuestion } from '../api/client.ts';
import { PromisedRows } from '../items/index.ts';
import { useFormat } from '../ui/format.ts';
import { Section } from '../ui/space.ts';
import { Late } from '../ui/text.ts';

/** To whom some of it is promised that would be taken apart. */
export function PromisedAway({ item }: { item: Item }) {
  const format = useFormat();
  const rows = useQuestion('promisedTo', { params: { id: item.id } }).data ?? [];
  return (
    <Section $top={14} role="status" aria-label="Promised to">
      <p>
        <Late>
          Only {format.quantity(item.free, item.unit, item.decimals)} {item.name} free. The rest is promised:
        </Late>
      </p>
      <PromisedRows rows={rows} unit={item.unit} decimals={item.decimals} />
    </Section>
  );
}
