import type { api, CustomerRow } from '@yosegi/contract';
import type { Output } from '@yosegi/contract/client';
import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useCommand, useQuestion } from '../api/client.ts';
import { useList } from '../api/list.ts';
import { CameBack } from '../returns/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count, marginWords, useFormat } from '../ui/format.ts';
import {
  Cell,
  Grid,
  KeyValue,
  Margin,
  Sheet,
  SheetAndMargin,
  SheetHead,
  Strip,
  StripHead,
  StripList,
  Three,
} from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { useNotify } from '../ui/Notice.ts';
import { OwnFacts } from '../ui/OwnFields.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem } from '../ui/StripItem.tsx';
import { H1, H2, Para } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Lines, Muted, Push, Row } from '../ui/text.ts';
import { isKept } from '../ui/typed.ts';
import { useAddress } from '../ui/useAddress.ts';
import { When } from '../ui/When.tsx';
import { CustomerForm } from './CustomerForm.tsx';
import { EarnedFigures } from './EarnedFigures.tsx';
import { Outlook } from './Outlook.tsx';

export type Customer = Output<typeof api.customer>;

const FILE: readonly FileColumn<CustomerRow>[] = [
  { title: 'Code', text: ({ code }) => code },
  { title: 'Name', text: ({ name }) => name },
  { title: 'Contact', text: ({ contact }) => contact },
  { title: 'Email', text: ({ email }) => email },
  { title: 'Phone', text: ({ phone }) => phone },
  { title: 'Discount, %', text: ({ discount }) => discount, isAmount: true },
  { title: 'Open orders', text: ({ openOrders }) => String(openOrders), isAmount: true },
];

/** Who buys from us: the list, and one of them with what they ordered and brought. */
export function CustomersPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  const q = useSought();
  const [show, setShow] = useAddress('show', 'active');
  const archived = show === 'archived';
  const customers = useList('customers', { q: q || undefined, show: archived ? 'archived' : 'active' }, false);
  return (
    <Three $margin={false}>
      <Strip {...(id ? {} : { 'data-alone': true })}>
        <StripHead>
          <Finder label="Find a customer" placeholder="Find a customer" />
          <Choice
            label="Which customers"
            hideLabel
            value={show}
            onChange={setShow}
            options={[
              ['active', 'In use'],
              ['archived', 'Archived'],
            ]}
          />
          <Row>
            <LinkButton to="/orders/customers?new=1">Add a customer</LinkButton>
            <Push />
            <Link to="/orders">Orders</Link>
          </Row>
          <Row>
            <Push />
            <Export name="Customers" columns={FILE} rows={customers.everyRow} />
          </Row>
        </StripHead>
        <StripList aria-label="Customers">
          <Answer of={customers}>
            {({ rows }) =>
              rows.map((row) => (
                <StripItem
                  key={row.id}
                  to={`/orders/customers/${row.id}`}
                  code={row.name}
                  title={row.name}
                  under={`${row.code}${row.openOrders > 0 ? ` · ${count(row.openOrders, 'open order')}` : ''}`}
                />
              ))
            }
          </Answer>
          <More of={customers.pages} />
        </StripList>
      </Strip>
      {id ? (
        <One key={id} id={Number(id)} />
      ) : (
        <Sheet>
          {search.has('new') ? (
            <>
              <H1 $bottom={12}>A new customer</H1>
              <CustomerForm customer={null} />
            </>
          ) : (
            <EmptyState
              isPage
              title={
                customers.data?.rows.length
                  ? `${count(customers.data.rows.length, 'customer')}${customers.data.isMore ? ' and more' : ''}`
                  : 'Who buys from you?'
              }
              action={<LinkButton to="/orders/customers?new=1">Add a customer</LinkButton>}
            >
              Each customer shows their orders, usual items and earnings.
            </EmptyState>
          )}
        </Sheet>
      )}
    </Three>
  );
}

function One({ id }: { id: number }) {
  const customer = useQuestion('customer', { params: { id } });
  return <Answer of={customer}>{(data) => <CustomerSheet customer={data} />}</Answer>;
}

function CustomerSheet({ customer }: { customer: Customer }) {
  const format = useFormat();
  const notify = useNotify();
  const [editing, setEditing] = useState(() => isKept(`customer.${customer.id}`));
  const archive = useCommand('archiveCustomer', (_, { body }) =>
    notify({ text: body.archived ? `${customer.name} archived.` : `${customer.name} is back in use.` }),
  );
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={customer.name} size={52} />
          <div>
            <h1>{customer.name}</h1>
            <Lead>{[customer.code, customer.contact, customer.email, customer.phone].filter(Boolean).join(' · ')}</Lead>
          </div>
          <Push />
          <Row>
            {!customer.archived && (
              <LinkButton look="go" to={`/orders?new=1&for=${customer.id}`}>
                New order
              </LinkButton>
            )}
            <Button onPress={() => setEditing(!editing)}>Change</Button>
          </Row>
        </SheetHead>
        {editing && <CustomerForm key={customer.id} customer={customer} onDone={() => setEditing(false)} />}
        {customer.orders.length === 0 ? (
          <Muted>Nothing ordered yet.</Muted>
        ) : (
          <Grid $full>
            <thead>
              <tr>
                <th>Order</th>
                <th>Wanted</th>
                <th>Status</th>
                <th className="num">Value</th>
              </tr>
            </thead>
            <tbody>
              {customer.orders.map((order) => (
                <tr key={order.id}>
                  <td>
                    <Link to={`/orders/${order.id}`}>{order.number}</Link> <Faint>{order.reference}</Faint>
                  </td>
                  <td>{order.wantedOn ? format.day(order.wantedOn) : '–'}</td>
                  <td>
                    <Outlook order={order} />
                  </td>
                  <td className="num">{format.money(order.worth)}</td>
                </tr>
              ))}
            </tbody>
          </Grid>
        )}
        {customer.shipments.length > 0 && (
          <>
            <H2 $top={22}>Shipments</H2>
            <Grid $full>
              <thead>
                <tr>
                  <th>Shipment</th>
                  <th>Of</th>
                  <th>When</th>
                  <th>By</th>
                  <th className="num">Picked</th>
                  <th className="num">Margin</th>
                </tr>
              </thead>
              <tbody>
                {customer.shipments.map((shipment) => (
                  <tr key={shipment.id}>
                    <td>
                      <Link to={`/stock/documents/${shipment.id}`}>{shipment.number}</Link>
                    </td>
                    <td>
                      <Link to={`/orders/${shipment.orderId}`}>{shipment.order}</Link>
                    </td>
                    <td>
                      <When at={shipment.at} />
                    </td>
                    <td>{[shipment.carrier, shipment.tracking].filter(Boolean).join(' ')}</td>
                    <td className="num">{format.money(shipment.sold)}</td>
                    <td className="num">{marginWords(shipment.sold, shipment.cost, format)}</td>
                  </tr>
                ))}
              </tbody>
            </Grid>
          </>
        )}
        <ProblemBox error={archive.error} />
        <Row $top={16}>
          <Push />
          <Button
            look="ghost"
            busy={archive.isPending}
            onPress={() =>
              archive.mutate({
                params: { id: customer.id },
                body: { archived: !customer.archived, version: customer.version },
              })
            }
          >
            {customer.archived ? 'Bring back into use' : 'Archive'}
          </Button>
        </Row>
      </Sheet>
      <Margin aria-label="Customer details">
        <h2>Earnings</h2>
        <EarnedFigures of={customer.earned} />
        {customer.usual.length > 0 && <H2 $top={18}>Usual items</H2>}
        {customer.usual.map((row) => (
          <KeyValue key={row.itemId}>
            <Cell>
              <Tile code={row.code} size={22} />
              <Link to={`/stock/items/${row.itemId}`}>{row.name}</Link>
            </Cell>
            <Faint>
              {format.quantity(row.quantity, row.unit, 3)} in {count(row.orders, 'order')}
            </Faint>
          </KeyValue>
        ))}
        {customer.shipments.length > 0 && <CameBack of={{ customerId: customer.id }} called={customer.name} />}
        <H2 $top={18}>Delivery address</H2>
        <Lines>{customer.delivery || customer.billing || <Muted>No address entered.</Muted>}</Lines>
        {Number(customer.discount) > 0 && (
          <KeyValue>
            <span>Discount</span>
            <b>{format.percent(customer.discount)}</b>
          </KeyValue>
        )}
        {customer.transportDays !== null && (
          <KeyValue>
            <span>Delivery days</span>
            <b>{count(customer.transportDays, 'day')}</b>
          </KeyValue>
        )}
        {customer.returnDays !== null && (
          <KeyValue>
            <span>Return window</span>
            <b>{count(customer.returnDays, 'day')}</b>
          </KeyValue>
        )}
        <OwnFacts fields={customer.fields} />
        {customer.note && <Para $top={8}>{customer.note}</Para>}
      </Margin>
    </SheetAndMargin>
  );
}
