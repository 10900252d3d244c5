import type { PurchaseOrder, PurchaseOrderRow } from '@yosegi/contract';
import { useParams, useSearchParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { Strip, StripHead, StripList, Three } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
import { StripItem, StripSection } from '../ui/StripItem.tsx';
import { Late } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { OrderSheet } from './OrderSheet.tsx';
import { OrdersTable } from './OrdersTable.tsx';
import { stateNames, WhichOrders } from './words.tsx';

const DraftOrder = later(() => import('./DraftOrder.tsx'), 'DraftOrder');

/** Purchase orders: all of them, or one from its draft to its last delivery beside the others. */
export function OrdersPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  return id === undefined && !search.has('new') ? <OrdersTable /> : <OneBeside id={id} />;
}

function OneBeside({ id }: { id: string | undefined }) {
  const [search] = useSearchParams();
  const q = useSought();
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
      <Strip>
        <StripHead>
          <Finder label="Find an order" placeholder="Number, supplier, item, note" />
          <WhichOrders value={show} onChange={setShow} />
          <LinkButton to="/buying/orders">All orders</LinkButton>
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
                    title={show === 'over' || show === 'all' ? 'The rest' : 'Expected'}
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
      ) : (
        <DraftOrder key="new" order={null} supplierId={Number(search.get('for')) || null} />
      )}
    </Three>
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
  return (
    <Answer of={order}>
      {(data: PurchaseOrder) =>
        data.state === 'draft' ? <DraftOrder order={data} supplierId={data.supplierId} /> : <OrderSheet order={data} />
      }
    </Answer>
  );
}
