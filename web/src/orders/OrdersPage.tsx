import type { OrderRow } from '@yosegi/contract';
import { formatDecimal, readForText, sumForText } from '@yosegi/core/number';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { useList } from '../api/list.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count, useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { Grid, Sheet, Strip, StripHead, StripList, Three } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem, StripSection } from '../ui/StripItem.tsx';
import { Th } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Faint, Late, Lead, Push, Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { BuildForPanel } from './BuildForPanel.tsx';
import { MessageButton } from './MessageButton.tsx';
import { OrderSheet } from './OrderSheet.tsx';
import { Outlook } from './Outlook.tsx';
import { Shares } from './Shares.tsx';
import { outlookShort, standingWords } from './words.ts';

const OrderForm = later(() => import('./OrderForm.tsx'), 'OrderForm');
const NewOrder = later(() => import('./NewOrder.tsx'), 'NewOrder');

type Shown = 'open' | 'quotes' | 'shipped' | 'cancelled';

/** What customers have asked for: what can leave, what will be whole, what is at risk; and one order of them. */
export function OrdersPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  const go = useNavigate();
  const q = useSought();
  const [show, setShow] = useAddress('show', 'open');
  // What is open is counted in a sentence; what is over is history, of any length.
  const list = useList('orders', { show, q: q || undefined }, show === 'open');
  useShortcut('n', () => void go('/orders?new=1'), { alt: true });
  return (
    <Three $margin={false}>
      <Strip>
        <StripHead>
          <Finder label="Find an order or customer" placeholder="Find an order or customer" />
          <Choice
            label="Which orders"
            hideLabel
            value={show}
            onChange={setShow}
            options={[
              ['open', 'Open orders'],
              ['quotes', 'Quotes'],
              ['shipped', 'Shipped'],
              ['cancelled', 'Cancelled'],
            ]}
          />
          <Row>
            <LinkButton to="/orders?new=1">Enter an order</LinkButton>
            <Push />
            <MessageButton />
          </Row>
          <Row>
            <Link to="/orders/weeks">Four weeks</Link>
            <Push />
            <Link to="/orders/jobs">Jobs</Link>
            <Push />
            <Link to="/orders/customers">Customers</Link>
          </Row>
        </StripHead>
        <StripList aria-label="Orders">
          <Answer of={list}>
            {({ rows }) =>
              show === 'open' ? (
                groups.map(([title, holds]) => <Group key={title} title={title} rows={rows.filter(holds)} />)
              ) : (
                <Group title={titles[show as Shown]} rows={rows} />
              )
            }
          </Answer>
          <More of={list.pages}>Show older</More>
        </StripList>
      </Strip>
      {id ? (
        <One key={id} id={Number(id)} changing={search.has('change')} />
      ) : search.has('new') ? (
        <NewOrder key={search.get('for')} customerId={Number(search.get('for')) || null} />
      ) : (
        <Answer of={list}>
          {({ rows, isMore }) => <Overview rows={rows} isMore={isMore} show={show as Shown} everyRow={list.everyRow} />}
        </Answer>
      )}
    </Three>
  );
}

const FILE: readonly FileColumn<OrderRow>[] = [
  { title: 'Order', text: ({ number }) => number },
  { title: 'Customer', text: ({ customer }) => customer },
  { title: 'Reference', text: ({ reference }) => reference },
  { title: 'Status', text: ({ standing }) => standingWords[standing] },
  { title: 'Wanted on', text: ({ wantedOn }) => wantedOn ?? '' },
  { title: 'Complete on', text: ({ completeOn, canLeave }) => (canLeave ? today() : (completeOn ?? '')) },
  { title: 'Lines open', text: ({ lines }) => String(lines), isAmount: true },
  { title: 'Lines ready', text: ({ readyLines }) => String(readyLines), isAmount: true },
  { title: 'Value', text: ({ worth }) => worth, isAmount: true },
];

const waits =
  (...outlooks: OrderRow['outlook'][]) =>
  ({ outlook, canLeave }: OrderRow) =>
    !canLeave && outlooks.includes(outlook);
const groups: readonly (readonly [string, (row: OrderRow) => boolean])[] = [
  ['Ready to ship', ({ canLeave }) => canLeave],
  ['Ready in time', waits('in-time')],
  ['At risk', waits('late')],
  ['No date yet', waits('unknown')],
];
const titles: Record<Shown, string> = { open: 'Open', quotes: 'Quotes', shipped: 'Shipped', cancelled: 'Cancelled' };

function Group({ title, rows }: { title: string; rows: readonly OrderRow[] }) {
  const format = useFormat();
  return (
    <StripSection title={title} rows={rows}>
      {(row) => (
        <StripItem
          key={row.id}
          to={`/orders/${row.id}`}
          code={row.customer}
          title={row.customer}
          under={
            <>
              {row.number} ·{' '}
              {row.outlook === 'late' ? <Late>{outlookShort(row, format)}</Late> : outlookShort(row, format)}
              <Shares shares={row.shares} />
            </>
          }
          side={<Faint>{format.money(row.worth, 0)}</Faint>}
        />
      )}
    </StripSection>
  );
}

function One({ id, changing }: { id: number; changing: boolean }) {
  const order = useQuestion('order', { params: { id } });
  return (
    <Answer of={order}>
      {(data) => (changing ? <OrderForm order={data} customerId={data.customerId} /> : <OrderSheet order={data} />)}
    </Answer>
  );
}

interface OverviewProps {
  readonly rows: readonly OrderRow[];
  readonly isMore: boolean;
  readonly show: Shown;
  readonly everyRow: () => Promise<readonly OrderRow[]>;
}

/** Where all of them stand, the worrying first. */
function Overview({ rows, isMore, show, everyRow }: OverviewProps) {
  const format = useFormat();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [building, setBuilding] = useState(false);
  const toggle = (id: number) =>
    setChosen((before) => new Set(before.has(id) ? [...before].filter((one) => one !== id) : [...before, id]));
  if (rows.length === 0)
    return (
      <Sheet>
        <EmptyState isPage title="No orders" action={<LinkButton to="/orders?new=1">Enter an order</LinkButton>}>
          {show === 'open'
            ? 'No open orders. Enter an order, and see at once what is in stock and when the rest arrives.'
            : 'No orders match.'}
        </EmptyState>
      </Sheet>
    );
  const turn = ['late', 'unknown', 'ready', 'in-time', 'over'];
  const sorted = [...rows].sort((a, b) => turn.indexOf(a.outlook) - turn.indexOf(b.outlook));
  return (
    <Sheet>
      <Row $wrap>
        <h1>{show === 'open' ? conclusion(rows) : `${count(rows.length, 'order')}${isMore ? ' and more' : ''}.`}</h1>
        <Push />
        <Export name={`Orders, ${titles[show].toLowerCase()}`} columns={FILE} rows={everyRow} />
      </Row>
      {show === 'open' && <Lead>{format.money(sum(rows))} on open orders. Orders that need attention come first.</Lead>}
      {chosen.size > 0 && !building && (
        <Row $top={12}>
          <Button look="go" onPress={() => setBuilding(true)}>
            Build for {count(chosen.size, 'order')}…
          </Button>
          <Button onPress={() => setChosen(new Set())}>Clear selection</Button>
        </Row>
      )}
      {building && (
        <BuildForPanel
          orderIds={[...chosen]}
          onDone={() => {
            setBuilding(false);
            setChosen(new Set());
          }}
        />
      )}
      <Grid $full $top={14}>
        <thead>
          <tr>
            {show === 'open' && <Th aria-label="Choose" $width={34} />}
            <th>Customer</th>
            <th>Order</th>
            <th>Wanted</th>
            <th>Ready</th>
            <th className="num">Lines ready</th>
            <th className="num">Value</th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((row) => (
            <tr key={row.id}>
              {show === 'open' && (
                <td>
                  <Tick label={`Choose ${row.number}`} isOn={chosen.has(row.id)} onChange={() => toggle(row.id)} />
                </td>
              )}
              <td>
                <Link to={`/orders/${row.id}`}>{row.customer}</Link>
              </td>
              <td>
                {row.number} {row.reference && <Faint>{row.reference}</Faint>}
              </td>
              <td>{row.wantedOn ? format.day(row.wantedOn) : '–'}</td>
              <td>
                <Outlook order={row} />
              </td>
              <td className="num">{row.outlook === 'over' ? '–' : `${row.readyLines} of ${row.lines}`}</td>
              <td className="num">{format.money(row.worth)}</td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </Sheet>
  );
}

const sum = (rows: readonly OrderRow[]) => formatDecimal(sumForText(rows.map((row) => readForText(row.worth))));

function conclusion(rows: readonly OrderRow[]): string {
  const of = (outlook: OrderRow['outlook']) => rows.filter((row) => row.outlook === outlook).length;
  const [ready, late, unknown] = [rows.filter(({ canLeave }) => canLeave).length, of('late'), of('unknown')];
  const parts = [
    ready > 0 && `${count(ready, 'order')} can ship now`,
    late > 0 && `${late} will be late`,
    unknown > 0 && `${unknown} ${unknown === 1 ? 'has' : 'have'} no date yet`,
  ].filter(Boolean);
  return parts.length > 0 ? `${parts.join(', ')}.` : `${count(rows.length, 'order')}, all ready in time.`;
}
