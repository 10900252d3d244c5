import type { PurchaseOrder, PurchaseOrderRow } from '@yosegi/contract';
import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Grid, Sheet, Strip, StripHead, StripList, Three } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem, StripSection } from '../ui/StripItem.tsx';
import { Late, Lead, Muted } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { DraftOrder } from './DraftOrder.tsx';
import { OrderSheet } from './OrderSheet.tsx';
import { OrderChip, stateNames } from './words.tsx';

/** Purchase orders: the list, and one of them from its draft to its last delivery. */
export function OrdersPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  const [q, setQ] = useAddress('q');
  const [show, setShow] = useAddress('show', 'open');
  const pages = usePages('purchases', {
    show,
    q: q || undefined,
    supplierId: search.get('supplier') ?? undefined,
    limit: 100,
  });
  const kept = new URLSearchParams(search);
  kept.delete('new');
  const suffix = kept.size > 0 ? `?${kept}` : '';
  return (
    <Three $margin={false}>
      <Strip {...(id ? {} : { 'data-alone': true })}>
        <StripHead>
          <Field label="Find an order" hideLabel placeholder="Number, supplier, item, note" value={q} onChange={setQ} />
          <Choice
            label="Which orders"
            hideLabel
            value={show}
            onChange={setShow}
            options={[
              ['open', 'Drafts and open orders'],
              ['late', 'Late'],
              ['back-order', 'Back orders'],
              ['draft', 'Drafts'],
              ['over', 'Closed and cancelled'],
              ['all', 'All'],
            ]}
          />
          <LinkButton to="/buying/orders?new=1">New order</LinkButton>
        </StripHead>
        <StripList aria-label="Purchase orders">
          <Answer of={pages}>
            {(data) => {
              const rows = data.pages.flatMap((page) => page.rows);
              const rest = rows.filter((row) => !row.late && !row.announced && row.state !== 'draft');
              return (
                <>
                  <Group title="Late" rows={rows.filter((row) => row.late && !row.announced)} suffix={suffix} />
                  <Group title="On its way" rows={rows.filter((row) => row.announced)} suffix={suffix} />
                  <Group title="Drafts" rows={rows.filter((row) => row.state === 'draft')} suffix={suffix} />
                  <Group
                    title={show === 'over' || show === 'all' ? 'The rest' : 'Awaited'}
                    rows={rest}
                    suffix={suffix}
                  />
                  <More of={pages}>Show older</More>
                </>
              );
            }}
          </Answer>
        </StripList>
      </Strip>
      {id ? (
        <One key={id} id={Number(id)} />
      ) : search.has('new') ? (
        <DraftOrder key="new" order={null} supplierId={Number(search.get('for')) || null} />
      ) : (
        <Sheet>
          <Answer of={pages}>{(data) => <Overview rows={data.pages.flatMap((page) => page.rows)} />}</Answer>
        </Sheet>
      )}
    </Three>
  );
}

/** What is to be seen to first, and what comes next. */
function Overview({ rows }: { rows: readonly PurchaseOrderRow[] }) {
  const format = useFormat();
  if (rows.length === 0)
    return (
      <EmptyState
        isPage
        title="No order is like that"
        action={<LinkButton to="/buying">See what has to be bought</LinkButton>}
      >
        An order begins as a draft, from the buy list or from an empty sheet. Once it is sent, what it brings counts as
        coming everywhere.
      </EmptyState>
    );
  const of = (n: number, one: string, many: string) => (n === 0 ? [] : [n === 1 ? `1 ${one}` : `${n} ${many}`]);
  const news = [
    ...of(rows.filter((row) => row.late && !row.announced).length, 'order is late', 'orders are late'),
    ...of(rows.filter((row) => row.announced).length, 'delivery is on its way', 'deliveries are on their way'),
    ...of(rows.filter((row) => row.state === 'draft').length, 'draft is not sent', 'drafts are not sent'),
  ];
  const byDay = [...rows].sort((a, b) => (a.expectedOn ?? '9999').localeCompare(b.expectedOn ?? '9999'));
  return (
    <>
      <h1>{news.length > 0 ? `${news.join(', ')}.` : `${count(rows.length, 'order')}, nothing late.`}</h1>
      <Lead>In the order in which they should come.</Lead>
      <Grid $top={14}>
        <thead>
          <tr>
            <th>Due</th>
            <th>Order</th>
            <th>Supplier</th>
            <th>Stands</th>
            <th className="num">Lines</th>
            <th className="num">Worth</th>
          </tr>
        </thead>
        <tbody>
          {byDay.map((row) => (
            <tr key={row.id}>
              <td>
                {row.expectedOn === null ? (
                  <Muted>{row.state === 'draft' ? 'not sent' : '–'}</Muted>
                ) : row.late ? (
                  <Late>{format.day(row.expectedOn)}</Late>
                ) : (
                  format.day(row.expectedOn)
                )}
              </td>
              <td>
                <Link to={`/buying/orders/${row.id}`}>{row.number}</Link>
              </td>
              <td>{row.supplier}</td>
              <td>{row.announced ? <Chip $tone="coming">delivery announced</Chip> : <OrderChip order={row} />}</td>
              <td className="num">{row.lines}</td>
              <td className="num">{format.money(row.worth)}</td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </>
  );
}

function Group({ title, rows, suffix }: { title: string; rows: readonly PurchaseOrderRow[]; suffix: string }) {
  const format = useFormat();
  return (
    <StripSection title={title} rows={rows}>
      {(row) => (
        <StripItem
          key={row.id}
          to={`/buying/orders/${row.id}${suffix}`}
          code={row.supplierCode}
          title={row.supplier}
          under={
            <>
              {row.number} · {stateNames[row.state]}
              {row.expectedOn && (
                <> · {row.late ? <Late>due {format.day(row.expectedOn)}</Late> : `due ${format.day(row.expectedOn)}`}</>
              )}
            </>
          }
        />
      )}
    </StripSection>
  );
}

function One({ id }: { id: number }) {
  const order = useQuestion('purchase', { params: { id } });
  const [begun, setBegun] = useState(0);
  return (
    <Answer of={order}>
      {(data: PurchaseOrder) =>
        data.state === 'draft' ? (
          <DraftOrder key={begun} order={data} supplierId={data.supplierId} onReload={() => setBegun(begun + 1)} />
        ) : (
          <OrderSheet order={data} />
        )
      }
    </Answer>
  );
}
