import type { ComingRow, CoverItem } from '@yosegi/contract';
import type { Arrival } from '@yosegi/core/coverage';
import { formatDecimal } from '@yosegi/core/number';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { PromisedRows } from '../items/index.ts';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { Faint } from '../ui/text.ts';

const Two = styled.div`display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 24px; @media (max-width: 700px) { grid-template-columns: 1fr; }`;

/** To whom a component is promised, and what is coming of it: from whom, and when. */
export function Below({ item, arrivals }: { item: CoverItem; arrivals: readonly Arrival[] }) {
  const promised = useQuestion('promisedTo', { params: { id: item.id } });
  const coming = useQuestion('coming', { params: { id: item.id } });
  return (
    <Two>
      <section aria-label={`Promised to, of ${item.name}`}>
        <Answer of={promised}>
          {(rows) =>
            rows.length === 0 ? (
              <Faint>Not promised to anyone.</Faint>
            ) : (
              <PromisedRows rows={rows} unit={item.unit} decimals={item.decimals} />
            )
          }
        </Answer>
      </section>
      <section aria-label={`Coming, of ${item.name}`}>
        <Answer of={coming}>{(rows) => <Arrivals item={item} arrivals={arrivals} rows={rows} />}</Answer>
      </section>
    </Two>
  );
}

function Arrivals({
  item,
  arrivals,
  rows,
}: {
  item: CoverItem;
  arrivals: readonly Arrival[];
  rows: readonly ComingRow[];
}) {
  const format = useFormat();
  if (arrivals.length === 0) return <Faint>Nothing is coming.</Faint>;
  return arrivals.map((arrival) => {
    const row = rows.find(({ source, lineId }) => source === arrival.kind && lineId === arrival.id);
    return (
      <KeyValue key={`${arrival.kind}${arrival.id}`}>
        <span>
          {row ? (
            <Link to={row.source === 'purchase' ? `/buying/orders/${row.id}` : `/build/${row.id}`}>{row.number}</Link>
          ) : arrival.id < 0 ? (
            'From this question'
          ) : (
            'From a draft order'
          )}{' '}
          <Faint>
            {arrival.on === null ? 'no date yet' : format.day(arrival.on)}
            {row && ` · ${row.from}`}
          </Faint>
        </span>
        <b>{format.quantity(formatDecimal(arrival.quantity), item.unit, item.decimals)}</b>
      </KeyValue>
    );
  });
}
