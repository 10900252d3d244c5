import type { BuildRow, OrderRow } from '@yosegi/contract';
import { Link } from 'react-router';
import { useList } from '../api/list.ts';
import { comes } from '../builds/index.ts';
import { Outlook } from '../orders/index.ts';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead } from '../ui/text.ts';

type Promise =
  | { readonly kind: 'build'; readonly day: string; readonly waits: boolean; readonly build: BuildRow }
  | { readonly kind: 'order'; readonly day: string; readonly waits: boolean; readonly order: OrderRow };

/** Everything that is promised, to builds and to customers, and when it is whole: the first wanted first. */
export function Promised() {
  const builds = useList('builds', { state: 'open' });
  const orders = useList('orders', {});
  return (
    <Answer of={builds}>
      {({ rows: open }) => <Answer of={orders}>{({ rows }) => <All promises={promisesOf(open, rows)} />}</Answer>}
    </Answer>
  );
}

function promisesOf(builds: readonly BuildRow[], orders: readonly OrderRow[]): Promise[] {
  const far = '9999';
  return [
    ...builds.map(
      (build): Promise => ({
        ...{ kind: 'build', day: build.due ?? far, waits: build.waiting.length > 0, build },
      }),
    ),
    ...orders
      .filter(({ outlook }) => outlook !== 'over')
      .map(
        (order): Promise => ({
          ...{ kind: 'order', day: order.wantedOn ?? far, waits: !order.canLeave, order },
        }),
      ),
  ].sort((one, other) => one.day.localeCompare(other.day));
}

function All({ promises }: { promises: readonly Promise[] }) {
  const format = useFormat();
  if (promises.length === 0) {
    return (
      <EmptyState isPage title="Is there enough?">
        Add one or more products on the left. You see at once how many you can make now, what is short, and when
        everything is ready. From the answer you plan the builds.
      </EmptyState>
    );
  }
  const waiting = promises.filter(({ waits }) => waits).length;
  return (
    <>
      <div>
        <h1>
          {waiting === 0
            ? `Stock covers all ${promises.length} promises.`
            : `${waiting} of ${promises.length} orders and builds are short of something.`}
        </h1>
        <Lead>
          Every open build and order, earliest date first. Add a product on the left to see what it would take.
          {waiting > 0 && (
            <>
              {' '}
              <Link to="/cover/scarce">Who gets the scarce parts?</Link>
            </>
          )}
        </Lead>
      </div>
      <Grid>
        <thead>
          <tr>
            <th>Promised</th>
            <th>To</th>
            <th>Wanted</th>
            <th>Complete on</th>
          </tr>
        </thead>
        <tbody>
          {promises.map((one) =>
            one.kind === 'build' ? (
              <tr key={`b${one.build.id}`}>
                <td>
                  <Cell>
                    <Tile code={one.build.code} size={26} />
                    <Link to={`/build/${one.build.id}`}>
                      {format.quantity(one.build.quantity, one.build.unit)} × {one.build.name}
                    </Link>
                  </Cell>
                </td>
                <td>
                  {one.build.orders[0]?.customer ?? 'stock'} <Faint>{one.build.number}</Faint>
                </td>
                <td className="one-line">{one.build.due ? <Day day={one.build.due} late={one.build.late} /> : '–'}</td>
                <td>
                  <BuildWaits build={one.build} />
                </td>
              </tr>
            ) : (
              <tr key={`o${one.order.id}`}>
                <td>
                  <Cell>
                    <Tile code={one.order.customer} size={26} />
                    <Link to={`/orders/${one.order.id}`}>{count(one.order.lines, 'line')} of an order</Link>
                  </Cell>
                </td>
                <td>
                  {one.order.customer} <Faint>{one.order.number}</Faint>
                </td>
                <td className="one-line">{one.order.wantedOn ? format.day(one.order.wantedOn) : '–'}</td>
                <td>
                  <Outlook order={one.order} />
                </td>
              </tr>
            ),
          )}
        </tbody>
      </Grid>
    </>
  );
}

function Day({ day, late }: { day: string; late: boolean }) {
  const format = useFormat();
  return late ? <Late>{format.day(day)}</Late> : format.day(day);
}

function BuildWaits({ build }: { build: BuildRow }) {
  const format = useFormat();
  const [first, ...more] = build.waiting;
  if (build.state === 'on-bench') return <>on the bench</>;
  if (!first) return <>every part is free</>;
  return (
    <>
      {format.quantity(first.short, first.unit, 3)} × {first.name}
      {more.length > 0 && ` and ${count(more.length, 'other part')}`} short <Faint>{comes(first, format)}</Faint>
    </>
  );
}
