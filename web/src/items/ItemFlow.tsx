import type { ItemDetail } from '@yosegi/contract';
import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { EarnedFigures } from '../orders/index.ts';
import { count, useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { H2 } from '../ui/space.ts';
import { Faint, Late } from '../ui/text.ts';
import { PromisedRows } from './PromisedRows.tsx';

/** What is on order and being built, the first to come first. */
export function Coming({ item }: { item: ItemDetail }) {
  const format = useFormat();
  const rows = useQuestion('coming', { params: { id: item.id } }).data ?? [];
  if (rows.length === 0) return null;
  return (
    <>
      <H2 $top={22}>Coming</H2>
      {rows.map((row) => (
        <KeyValue key={`${row.source}.${row.id}`}>
          <span>
            <Link to={row.source === 'purchase' ? `/buying/orders/${row.id}` : `/build/${row.id}`}>{row.number}</Link>{' '}
            <Faint>
              {row.on === null ? 'no date yet' : row.late ? <Late>due {format.day(row.on)}</Late> : format.day(row.on)}{' '}
              · {row.from}
            </Faint>
          </span>
          <b>{format.quantity(row.quantity, item.unit, item.decimals)}</b>
        </KeyValue>
      ))}
    </>
  );
}

/** To whom it is promised, in the order they are served. */
export function Promised({ item }: { item: ItemDetail }) {
  const { data } = useQuestion('promisedTo', { params: { id: item.id } });
  if (!data || data.length === 0) return null;
  return (
    <>
      <H2 $top={22}>Promised to</H2>
      <PromisedRows rows={data} unit={item.unit} decimals={item.decimals} />
    </>
  );
}

/** What was sold of it, and what that left. */
export function Sales({ item }: { item: ItemDetail }) {
  const format = useFormat();
  const sales = useQuestion('itemSales', { params: { id: item.id } }).data;
  if (!sales || sales.orders === 0) return null;
  return (
    <>
      <H2 $top={22}>What it earned</H2>
      <EarnedFigures
        of={sales}
        shipped={`${format.quantity(sales.quantity, item.unit, item.decimals)} in ${count(sales.orders, 'order')}`}
      />
      {sales.customers.slice(0, 5).map((customer) => (
        <KeyValue key={customer.id}>
          <Link to={`/orders/customers/${customer.id}`}>{customer.name}</Link>
          <Faint>
            {format.quantity(customer.quantity, item.unit, item.decimals)} for {format.money(customer.sold)}
          </Faint>
        </KeyValue>
      ))}
    </>
  );
}
