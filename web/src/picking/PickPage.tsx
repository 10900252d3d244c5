import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { standingWords } from '../orders/index.ts';
import { LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Scroll } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead } from '../ui/text.ts';
import { useNarrow } from '../ui/useNarrow.ts';
import { jobOfBuild, jobOfOrder, type PickJob } from './job.ts';
import { PickPhone } from './PickPhone.tsx';
import { PickTable } from './PickTable.tsx';

const Jobs = styled.div`padding: 20px 24px; display: grid; gap: 8px; max-width: 900px;`;
const Job = styled(Link)`
  display: grid; grid-template-columns: 44px minmax(0, 1fr) auto; gap: 14px; align-items: center; background: var(--sheet); border: 1px solid var(--line-soft);
  border-left: 5px solid var(--indigo); padding: 12px 14px; border-radius: 2px; color: inherit; text-decoration: none; min-height: 60px; line-height: 1.25;
`;

/** What is to be picked, and picking it: a table at the desk, one thing at a time on a phone. */
export function PickPage() {
  const { id } = useParams();
  return id ? <PickBuild id={Number(id)} /> : <PickList />;
}

/** The same for an order, into its parcel. */
export function PickOrderPage() {
  const { id } = useParams();
  return <PickOrder id={Number(id)} />;
}

function PickList() {
  const format = useFormat();
  const builds = useQuestion('builds', { query: { state: 'on-bench', limit: 200 } });
  const orders = useQuestion('orders', { query: { limit: 200 } });
  return (
    <Scroll>
      <Answer of={builds}>
        {({ rows }) => (
          <Answer of={orders}>
            {({ rows: sales }) => {
              const open = rows.filter((row) => row.pickedLines < row.pickLines);
              const leaving = sales.filter((row) => row.toPick);
              if (open.length + leaving.length === 0) {
                return (
                  <EmptyState
                    isPage
                    title="Nothing to pick"
                    action={<LinkButton to="/build">See the builds</LinkButton>}
                  >
                    Builds that were sent to the bench, and orders of which something is on the shelf, wait here until
                    it has been brought.
                  </EmptyState>
                );
              }
              return (
                <Jobs>
                  <h1>{pickWords(open.length, leaving.length)}</h1>
                  <Lead>The earliest due first.</Lead>
                  {open.map((row) => (
                    <Job key={row.id} to={`/pick/${row.id}`}>
                      <Tile code={row.code} size={44} />
                      <span>
                        <b>
                          {format.number(row.quantity)} × {row.name}
                        </b>
                        <br />
                        <Faint>
                          {row.number} · {row.pickedLines} of {count(row.pickLines, 'line')} picked
                        </Faint>
                      </span>
                      <Due day={row.due} late={row.late} />
                    </Job>
                  ))}
                  {leaving.map((row) => (
                    <Job key={row.number} to={`/pick/orders/${row.id}`}>
                      <Tile code={row.customer} size={44} />
                      <span>
                        <b>{row.customer}</b>
                        <br />
                        <Faint>
                          {row.number} ·{' '}
                          {row.outlook === 'ready' ? 'everything is on the shelf' : 'some is on the shelf'}
                        </Faint>
                      </span>
                      <Due day={row.wantedOn} late={row.outlook === 'late'} />
                    </Job>
                  ))}
                </Jobs>
              );
            }}
          </Answer>
        )}
      </Answer>
    </Scroll>
  );
}

function pickWords(builds: number, orders: number): string {
  const what = [builds > 0 && count(builds, 'build'), orders > 0 && count(orders, 'order')].filter(Boolean);
  return `${what.join(' and ')} to pick for.`;
}

function Due({ day, late }: { day: string | null; late: boolean }) {
  const format = useFormat();
  if (!day) return null;
  return late ? <Late>due {format.day(day)}</Late> : <span>due {format.day(day)}</span>;
}

function Picking({ job }: { job: PickJob }) {
  const isPhone = useNarrow(700);
  const stores = useQuestion('stores', {});
  return (
    <Answer of={stores}>
      {(places) => (isPhone ? <PickPhone job={job} stores={places} /> : <PickTable job={job} stores={places} />)}
    </Answer>
  );
}

function PickBuild({ id }: { id: number }) {
  const build = useQuestion('build', { params: { id } });
  return (
    <Answer of={build}>
      {(data) =>
        data.state === 'on-bench' ? (
          <Picking job={jobOfBuild(data)} />
        ) : (
          <EmptyState
            title={`${data.number} is not on the bench`}
            action={<LinkButton to={`/build/${id}`}>Open {data.number}</LinkButton>}
          >
            Parts are picked for a build on the bench; this one is {data.state}.
          </EmptyState>
        )
      }
    </Answer>
  );
}

function PickOrder({ id }: { id: number }) {
  const order = useQuestion('order', { params: { id } });
  return (
    <Answer of={order}>
      {(data) =>
        data.standing === 'open' || data.standing === 'partly-shipped' ? (
          <Picking job={jobOfOrder(data)} />
        ) : (
          <EmptyState
            title={`Nothing to pick for ${data.number}`}
            action={<LinkButton to={`/orders/${id}`}>Open {data.number}</LinkButton>}
          >
            Goods are picked for a confirmed order; this one is {standingWords[data.standing]}.
          </EmptyState>
        )
      }
    </Answer>
  );
}
