import type { Today } from '@yosegi/contract';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { AndMore, comes, Job, JobLane, Lane, StartButton } from '../builds/index.ts';
import { Outlook } from '../orders/index.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { H2 } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Muted } from '../ui/text.ts';
import { useToday } from '../ui/today.ts';
import { When } from '../ui/When.tsx';

const Page = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 372px; height: 100%; min-height: 0;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); height: auto; }
`;
const Left = styled.section`padding: 20px 24px 60px; overflow: auto;`;
const Right = styled.aside`background: var(--birch); border-left: 1px solid var(--line); padding: 20px 22px; overflow: auto;`;
const Glance = styled.p`padding: 7px 0; border-bottom: 1px solid var(--line); a { color: inherit; }`;
const Hold = styled.div`
  display: grid; grid-template-columns: 34px minmax(0, 1fr) auto; gap: 12px; padding: 9px 0; border-bottom: 1px solid var(--line); align-items: center; line-height: 1.25;
  small { color: var(--ink-2); } a { color: inherit; }
`;

/** What the owner reads first in the morning. */
export function TodayPage() {
  const today = useQuestion('today', {});
  return <Answer of={today}>{(data) => <Board today={data} />}</Answer>;
}

function Board({ today }: { today: Today }) {
  const format = useFormat();
  const day = useToday();
  const { ready, waiting, onBench, holdUps, putRight, counts } = today;
  const sales = today.canLeave.length + today.atRisk.length;
  const nothing = ready.length + waiting.length + onBench.length + sales === 0;
  return (
    <Page>
      <Left>
        <h1>{format.longDay(day)}</h1>
        <Lead>{conclusion(counts)}</Lead>
        {nothing && (
          <EmptyState
            title="No builds are planned"
            action={
              <LinkButton look="go" to={today.counts.define > 0 ? '/cover' : '/define'}>
                {today.counts.define > 0 ? 'See what you can make' : 'Define your first product'}
              </LinkButton>
            }
          >
            Enter what you want to make, see whether you have enough parts, and plan the build.
          </EmptyState>
        )}
        <JobLane title="Ready to start" under="every part is free" edge="moss" builds={ready} of={counts.today}>
          {(build) => <StartButton build={build} />}
        </JobLane>
        <JobLane title="Short of parts" under="earliest due first" edge="coming" builds={waiting} of={counts.waiting}>
          {(build) =>
            Number(build.canStart) > 0 ? (
              <StartButton build={build} />
            ) : (
              <LinkButton to={`/build/${build.id}`}>See what’s missing</LinkButton>
            )
          }
        </JobLane>
        <OrderLane
          title="Ready to ship"
          under="everything is on the shelf"
          edge="moss"
          orders={today.canLeave}
          of={counts.orders}
        />
        <OrderLane
          title="Orders at risk"
          under="earliest wanted first"
          edge="short"
          orders={today.atRisk}
          of={counts.atRisk}
        />
        <BackLane returns={today.cameBack} of={counts.cameBack} />
        <JobLane title="On the bench" under="" edge="indigo" builds={onBench} of={counts.build}>
          {(build) =>
            build.pickedLines < build.pickLines ? (
              <LinkButton to={`/pick/${build.id}`}>Pick</LinkButton>
            ) : build.held.length > 0 ? (
              <LinkButton to={`/build/${build.id}`}>See what’s on hold</LinkButton>
            ) : (
              <LinkButton to={`/build/${build.id}/finish`}>Finish</LinkButton>
            )
          }
        </JobLane>
      </Left>
      <Right>
        <h2>What holds up the most work</h2>
        <Muted>{holdUps.length > 0 ? 'sales value held up by each part' : 'No sales held up by parts.'}</Muted>
        {holdUps.slice(0, 8).map((part) => (
          <Hold key={part.itemId}>
            <Tile code={part.code} />
            <div>
              <Link to={`/stock/items/${part.itemId}`}>
                <b>{part.name}</b>
              </Link>
              <br />
              <small>
                {format.quantity(part.short, part.unit, 3)} short ·{' '}
                {[part.builds > 0 && count(part.builds, 'build'), part.orders > 0 && count(part.orders, 'order')]
                  .filter(Boolean)
                  .join(', ')}{' '}
                · {comes(part, format)}
              </small>
            </div>
            <b>{format.money(part.salesValue, 0)}</b>
          </Hold>
        ))}
        <H2 $top={22}>Needs attention</H2>
        {putRight.length === 0 && <Muted>Nothing to fix.</Muted>}
        <Eye counts={counts} />
        {putRight.map((entry) => (
          <Hold key={entry.id}>
            <Chip $tone="short">!</Chip>
            <div>
              <b>{entry.quantity === null ? `${entry.name}: started short` : `${entry.name} went below zero`}</b>
              <br />
              <small>
                {entry.quantity !== null && `${format.quantity(entry.quantity, entry.unit, 3)} in ${entry.bin}, `}
                {entry.source} · “{entry.reason}” · {entry.person}, <When at={entry.at} />
              </small>
            </div>
            <LinkButton look="ghost" to="/stock/put-right">
              Put right
            </LinkButton>
          </Hold>
        ))}
        <AndMore shown={putRight.length} of={counts.putRight} to="/stock/put-right" />
      </Right>
    </Page>
  );
}

/** What is not wrong yet, but wants to be looked at. */
function Eye({ counts }: { counts: Today['counts'] }) {
  const rows = [
    [counts.lateOrders, 'purchase order is late', 'purchase orders are late', '/buying/orders?show=late'],
    [counts.announced, 'delivery is on its way', 'deliveries are on their way', '/buying/orders'],
    [counts.expiring, 'lot expires soon', 'lots expire soon', '/stock/lots?show=soon'],
  ] as const;
  const news = rows.filter(([n]) => n > 0);
  if (news.length === 0) return null;
  return (
    <Glance>
      {news.map(([n, one, many, to], index) => (
        <span key={to}>
          {index > 0 && ' · '}
          <Link to={to}>
            {n} {n === 1 ? one : many}
          </Link>
        </span>
      ))}
    </Glance>
  );
}

function conclusion({ today, waiting, build, orders, putRight, late }: Today['counts']): string {
  const parts = [
    `${count(today, 'build')} can start`,
    `${waiting} short of parts`,
    `${build} on the bench`,
    ...(orders > 0 ? [`${count(orders, 'order')} can ship`] : []),
  ];
  const eye = putRight > 0 ? ` ${count(putRight, 'thing')} to fix.` : '';
  return `${parts.join(', ')}.${late > 0 ? ` ${count(late, 'build')} late.` : ' Nothing is late.'}${eye}`;
}

/** What customers sent back and nobody has decided about. */
function BackLane({ returns, of }: { returns: Today['cameBack']; of: number }) {
  const format = useFormat();
  if (returns.length === 0) return null;
  return (
    <Lane>
      <h2>
        Returned goods <span>to decide</span>
      </h2>
      {returns.map((row) => (
        <Job key={row.id} $edge="held">
          <Tile code={row.code} />
          <Link to={`/take-apart/returns/${row.id}`}>
            <b>{row.what}</b>
            <br />
            <Faint>
              {row.number} · {row.customer} · {row.reasons}
            </Faint>
          </Link>
          <span>{row.days === 0 ? 'since today' : `for ${count(row.days, 'day')}`}</span>
          <span>{format.money(row.value)}</span>
          <LinkButton to={`/take-apart/returns/${row.id}`}>Decide</LinkButton>
        </Job>
      ))}
      <AndMore shown={returns.length} of={of} to="/take-apart/returns" />
    </Lane>
  );
}

/** Orders of customers that want something of today. */
function OrderLane({
  title,
  under,
  edge,
  orders,
  of,
}: {
  title: string;
  under: string;
  edge: string;
  orders: Today['canLeave'];
  of: number;
}) {
  const format = useFormat();
  if (orders.length === 0) return null;
  return (
    <Lane>
      <h2>
        {title} <span>{under}</span>
      </h2>
      {orders.map((order) => (
        <Job key={order.id} $edge={edge}>
          <Tile code={order.customer} />
          <Link to={`/orders/${order.id}`}>
            <b>{order.customer}</b>
            <br />
            <Faint>
              {order.number}
              {order.reference && ` · ${order.reference}`}
            </Faint>
          </Link>
          <Outlook order={order} />
          <span>
            {order.wantedOn ? `wanted ${format.day(order.wantedOn)}` : <Faint>no date</Faint>}
            <br />
            <Faint>{format.money(order.worth, 0)}</Faint>
          </span>
          <LinkButton to={`/orders/${order.id}`}>{order.canLeave ? 'Ship' : 'See why'}</LinkButton>
        </Job>
      ))}
      <AndMore shown={orders.length} of={of} to="/orders" />
    </Lane>
  );
}
