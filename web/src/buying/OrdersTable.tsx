import type { PurchaseOrderRow, PurchaseSort } from '@yosegi/contract';
import { useSearchParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count } from '../ui/format.ts';
import { type ListColumn, ListPage, ListTop, LongList, Narrow } from '../ui/LongList.tsx';
import { SavedFilters } from '../ui/SavedFilters.tsx';
import { EmptyState } from '../ui/States.tsx';
import { Faint, Late, Lead, Push, Row } from '../ui/text.ts';
import { dayOf } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useEach } from '../ui/useEach.ts';
import { useSorting } from '../ui/useSorting.ts';
import { OrderChip, stateNames, WhichOrders } from './words.tsx';

/** What each row begins with, in a file. */
const LEAD = [
  { key: 'number', title: 'Order', sort: 'made', text: ({ number }: PurchaseOrderRow) => number },
  { key: 'supplier', title: 'Supplier', sort: 'supplier', text: ({ supplier }: PurchaseOrderRow) => supplier },
];

const columns: readonly ListColumn<PurchaseOrderRow>[] = [
  {
    key: 'due',
    title: 'Due',
    width: 120,
    usual: true,
    sort: 'due',
    text: ({ expectedOn }) => expectedOn ?? '',
    show: ({ expectedOn, late }, format) => {
      if (expectedOn === null) return <Faint>–</Faint>;
      return late ? <Late>{format.day(expectedOn)}</Late> : format.day(expectedOn);
    },
  },
  {
    key: 'state',
    title: 'Status',
    width: 190,
    usual: true,
    text: ({ state, late, announced }) =>
      [stateNames[state], late && 'late', announced && 'delivery announced'].filter(Boolean).join(', '),
    show: (row) => (row.announced ? <Chip $tone="coming">delivery announced</Chip> : <OrderChip order={row} />),
  },
  {
    key: 'lines',
    title: 'Lines',
    width: 70,
    numeric: true,
    usual: true,
    text: ({ lines }) => String(lines),
    show: ({ lines }) => lines,
  },
  {
    key: 'worth',
    title: 'Value',
    width: 110,
    numeric: true,
    usual: true,
    sort: 'worth',
    text: ({ worth }) => worth,
    show: ({ worth }, format) => format.money(worth),
  },
  {
    key: 'made',
    title: 'Drafted',
    width: 120,
    text: ({ madeAt }) => dayOf(madeAt),
    show: ({ madeAt }, format) => format.day(dayOf(madeAt)),
  },
];

const leadOf = ({ id, number, supplier, supplierCode }: PurchaseOrderRow) => ({
  to: `/buying/orders/${id}`,
  code: supplierCode,
  title: number,
  under: supplier,
});

/** Purchase orders, those that should come first on top. */
export function OrdersTable() {
  const [search] = useSearchParams();
  const q = useSought();
  const [show, setShow] = useAddress('show', 'open');
  const counts = useQuestion('purchaseCounts', {}).data;
  const { sort, down, sorting } = useSorting<PurchaseSort>('due');
  const supplierId = search.get('supplier') ?? undefined;
  const pages = usePages('purchases', { show, q: q || undefined, supplierId, sort, down, limit: 100 });
  const mayBuy = useCan('buy');
  const cancel = useEach('cancelPurchase', 'draft', 'cancelled');
  return (
    <ListPage>
      <ListTop>
        <Row $wrap>
          <div>
            <h1>{counts ? conclusion(counts) : 'Purchase orders'}</h1>
            <Lead>Earliest expected first.</Lead>
          </div>
          <Push />
          <LinkButton look="go" to="/buying/orders?new=1">
            New order
          </LinkButton>
        </Row>
      </ListTop>
      <LongList
        list="purchases"
        label="Purchase orders"
        pages={pages}
        keyOf={({ id }) => id}
        columns={columns}
        leadColumns={LEAD}
        lead={leadOf}
        keepsAddress
        sorting={sorting}
        deeds={(chosen) => [
          {
            id: 'cancel',
            name: 'Cancel drafts',
            isDisabled: cancel.busy || !mayBuy || chosen.some(({ state }) => state !== 'draft'),
            act: () =>
              void cancel.run(
                chosen.map(({ id, number, version }) => ({
                  name: number,
                  input: { params: { id }, body: { version } },
                })),
              ),
          },
        ]}
        empty={
          <EmptyState
            title={counts?.open === 0 && show === 'open' && q === '' ? 'Nothing is on order' : 'No orders match'}
            action={<LinkButton to="/buying">Open the buy list</LinkButton>}
          >
            Start a purchase order from the buy list or from scratch. Once sent, its items count as coming.
          </EmptyState>
        }
      >
        <Narrow $width={230}>
          <Finder label="Find an order" placeholder="Number, supplier, item, note" />
        </Narrow>
        <Narrow $width={210}>
          <WhichOrders value={show} onChange={setShow} />
        </Narrow>
        <SavedFilters list="purchases" />
      </LongList>
    </ListPage>
  );
}

interface Counts {
  readonly open: number;
  readonly drafts: number;
  readonly late: number;
  readonly announced: number;
}

function conclusion({ open, drafts, late, announced }: Counts): string {
  const news = [
    late > 0 && `${count(late, 'order')} ${late === 1 ? 'is' : 'are'} late`,
    announced > 0 && `${count(announced, 'delivery', 'deliveries')} ${announced === 1 ? 'is' : 'are'} on the way`,
    drafts > 0 && `${count(drafts, 'draft')} ${drafts === 1 ? 'has' : 'have'} not been sent`,
  ].filter(Boolean);
  if (news.length > 0) return `${news.join(', ')}.`;
  return open === 0 ? 'Nothing is on order.' : `${count(open, 'order')}, none late.`;
}
