import type { Supplier, SupplierDetail } from '@yosegi/contract';
import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count, useFormat } from '../ui/format.ts';
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
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem } from '../ui/StripItem.tsx';
import { H1, H2, Para } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Lines, Muted, Push, Row } from '../ui/text.ts';
import { isKept } from '../ui/typed.ts';
import { SupplierForm } from './SupplierForm.tsx';
import { keptWords, learntWords } from './words.tsx';

const FILE: readonly FileColumn<Supplier>[] = [
  { title: 'Code', text: ({ code }) => code },
  { title: 'Name', text: ({ name }) => name },
  { title: 'Email', text: ({ email }) => email },
  { title: 'Items', text: ({ items }) => String(items), isAmount: true },
];

/** Who sells us things: the list, and one of them with its prices and how it keeps its promises. */
export function SuppliersPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  const q = useSought();
  const suppliers = useQuestion('suppliers', {});
  const fits = ({ code, name }: Supplier) => `${code} ${name}`.toLowerCase().includes(q.trim().toLowerCase());
  return (
    <Three $margin={false}>
      <Strip {...(id ? {} : { 'data-alone': true })}>
        <StripHead>
          <Finder label="Find a supplier" placeholder="Find a supplier" />
          <Row>
            <LinkButton to="/buying/suppliers?new=1">Add a supplier</LinkButton>
            <Push />
            <Export name="Suppliers" columns={FILE} rows={() => (suppliers.data ?? []).filter(fits)} />
          </Row>
        </StripHead>
        <StripList aria-label="Suppliers">
          <Answer of={suppliers}>
            {(rows) =>
              rows
                .filter(fits)
                .map((row) => (
                  <StripItem
                    key={row.id}
                    to={`/buying/suppliers/${row.id}`}
                    code={row.code}
                    title={row.name}
                    under={`${row.code} · ${count(row.items, 'item')}`}
                  />
                ))
            }
          </Answer>
        </StripList>
      </Strip>
      {id ? (
        <One key={id} id={Number(id)} />
      ) : search.has('new') ? (
        <Sheet>
          <H1 $bottom={12}>A new supplier</H1>
          <SupplierForm supplier={null} />
        </Sheet>
      ) : (
        <Sheet>
          <EmptyState
            isPage
            title={suppliers.data?.length ? count(suppliers.data.length, 'supplier') : 'Who sells you things?'}
            action={<LinkButton to="/buying/suppliers?new=1">Add a supplier</LinkButton>}
          >
            Prices, packs and lead times are on each item. Import many at once under{' '}
            <Link to="/stock/in-out">In and out</Link>. Actual lead times appear here.
          </EmptyState>
        </Sheet>
      )}
    </Three>
  );
}

function One({ id }: { id: number }) {
  const supplier = useQuestion('supplier', { params: { id } });
  return <Answer of={supplier}>{(data) => <SupplierSheet supplier={data} />}</Answer>;
}

function SupplierSheet({ supplier }: { supplier: SupplierDetail }) {
  const format = useFormat();
  const [editing, setEditing] = useState(() => isKept(`supplier.${supplier.id}`));
  const { learnt } = supplier;
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={supplier.code} size={52} />
          <div>
            <h1>{supplier.name}</h1>
            <Lead>
              {supplier.code}
              {supplier.email && ` · ${supplier.email}`}
            </Lead>
          </div>
          <Push />
          <Row>
            <LinkButton look="go" to={`/buying/orders?new=1&for=${supplier.id}`}>
              New order
            </LinkButton>
            <Button onPress={() => setEditing(!editing)}>Change</Button>
          </Row>
        </SheetHead>
        {editing && <SupplierForm key={supplier.id} supplier={supplier} onDone={() => setEditing(false)} />}
        <Para $top={6} $bottom={12}>
          {learnt === null ? (
            <Muted>No deliveries from them yet, so no actual lead times.</Muted>
          ) : (
            <>
              Usually delivers in <b>{count(learnt.usual, 'day')}</b>
              {learnt.slow > learnt.usual && `, up to ${learnt.slow} when slow`}
              {keptWords(learnt) && `; ${keptWords(learnt)}`}.{' '}
              {supplier.learnLeads
                ? 'New orders are expected by the actual lead time where it is longer.'
                : 'New orders are expected by the stated lead time.'}
            </>
          )}
        </Para>
        {supplier.offers.length === 0 ? (
          <Muted>None of your items yet. Enter their prices on each item.</Muted>
        ) : (
          <Grid $full>
            <thead>
              <tr>
                <th>Item</th>
                <th>Their code</th>
                <th className="num">Price</th>
                <th className="num">Pack</th>
                <th className="num">Minimum</th>
                <th className="num">Stated</th>
                <th>Actual</th>
              </tr>
            </thead>
            <tbody>
              {supplier.offers.map((offer) => {
                const slower = offer.lead?.from === 'learnt' && offer.leadDays !== null;
                return (
                  <tr key={offer.itemId}>
                    <td>
                      <Cell>
                        <Tile code={offer.itemCode} size={24} />
                        <span>
                          <Link to={`/stock/items/${offer.itemId}`}>{offer.name}</Link> <Faint>{offer.itemCode}</Faint>
                        </span>
                      </Cell>
                    </td>
                    <td>{offer.code}</td>
                    <td className="num">{format.unitCost(offer.price)}</td>
                    <td className="num">
                      {Number(offer.pack) === 1 ? '' : format.quantity(offer.pack, offer.unit, 3)}
                    </td>
                    <td className="num">
                      {Number(offer.minimum) === 0 ? '' : format.quantity(offer.minimum, offer.unit, 3)}
                    </td>
                    <td className="num">{offer.leadDays === null ? '–' : count(offer.leadDays, 'day')}</td>
                    <td className="one-line">
                      {slower ? <Late>{learntWords(offer.learnt)}</Late> : <Faint>{learntWords(offer.learnt)}</Faint>}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </Grid>
        )}
      </Sheet>
      <Margin aria-label="Supplier details">
        <h2>On order</h2>
        <KeyValue>
          <Link to={`/buying/orders?supplier=${supplier.id}`}>{count(supplier.openOrders, 'open order')}</Link>
          <b>{format.money(supplier.openWorth)}</b>
        </KeyValue>
        <H2 $top={18}>Address</H2>
        <Lines>{supplier.address || <Muted>No address. Orders print without one.</Muted>}</Lines>
      </Margin>
    </SheetAndMargin>
  );
}
