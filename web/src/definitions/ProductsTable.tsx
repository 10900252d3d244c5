import type { ProductRow, ProductSort } from '@yosegi/contract';
import { Link, useNavigate } from 'react-router';
import { usePages } from '../api/client.ts';
import { Block } from '../ui/Block.tsx';
import { LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count, type Format } from '../ui/format.ts';
import { type ListColumn, ListPage, ListTop, LongList, Narrow } from '../ui/LongList.tsx';
import type { Deed } from '../ui/Menu.tsx';
import { SavedFilters } from '../ui/SavedFilters.tsx';
import { EmptyState } from '../ui/States.tsx';
import { Faint, Late, Lead, Push, Row } from '../ui/text.ts';
import { useSorting } from '../ui/useSorting.ts';
import { purposeName } from './behaviour.ts';
import { faultWords, revisionsOf } from './productWords.ts';

const LEAD = [
  { key: 'name', title: 'Name', sort: 'name', text: ({ name }: ProductRow) => name },
  { key: 'code', title: 'Code', sort: 'code', text: ({ code }: ProductRow) => code },
];

const percent = (text: string, format: Format) => format.percent(text, 1, 1);

const leadOf = ({ id, code, name, purpose }: ProductRow) => ({
  to: `/define/${id}`,
  code,
  title: name,
  under: purpose === 'build' ? code : `${code} · ${purposeName(purpose)}`,
});

const columns: readonly ListColumn<ProductRow>[] = [
  {
    key: 'worry',
    title: 'What needs attention',
    width: 210,
    sort: 'worry',
    usual: true,
    text: (row) => row.faults.map((fault) => faultWords[fault]).join(', '),
    show: ({ faults, id }) => {
      const [first, ...more] = faults;
      if (!first) return null;
      return (
        <Link to={`/define/${id}`} tabIndex={-1}>
          <Chip $tone={first === 'below-cost' ? 'short' : 'coming'}>{faultWords[first]}</Chip>
          {more.length > 0 && <Faint> +{more.length}</Faint>}
        </Link>
      );
    },
  },
  {
    key: 'block',
    title: 'Made of',
    width: 120,
    usual: true,
    text: ({ pieces }) => pieces.map(({ name }) => name).join(', '),
    show: ({ pieces }) => (
      <Block
        small
        pieces={pieces.map(({ code, name, cost }, index) => ({
          key: `${index}`,
          label: name,
          code,
          cost: Number(cost),
        }))}
      />
    ),
  },
  {
    key: 'unitCost',
    title: 'Costs',
    width: 88,
    numeric: true,
    sort: 'unitCost',
    usual: true,
    text: ({ unitCost }) => unitCost ?? '',
    show: ({ unitCost, isAtLeast }, format) =>
      unitCost === null ? '–' : `${isAtLeast ? 'at least ' : ''}${format.unitCost(unitCost)}`,
  },
  {
    key: 'sellPrice',
    title: 'Sells at',
    width: 88,
    numeric: true,
    sort: 'sellPrice',
    usual: true,
    text: ({ sellPrice }) => sellPrice ?? '',
    show: ({ sellPrice }, format) => (sellPrice === null ? '–' : format.money(sellPrice)),
  },
  {
    key: 'margin',
    title: 'Margin',
    width: 82,
    numeric: true,
    sort: 'margin',
    usual: true,
    text: ({ margin }) => margin ?? '',
    show: ({ margin }, format) => {
      if (margin === null) return '–';
      return margin.startsWith('-') ? <Late>{percent(margin, format)}</Late> : percent(margin, format);
    },
  },
  {
    key: 'canMakeNow',
    title: 'Can make now',
    width: 104,
    numeric: true,
    sort: 'canMakeNow',
    usual: true,
    text: ({ canMakeNow }) => canMakeNow ?? '',
    show: ({ canMakeNow, unit }, format) => {
      if (canMakeNow === null) return '';
      return canMakeNow === '0' ? <Late>none</Late> : <b>{format.quantity(canMakeNow, unit)}</b>;
    },
  },
  { key: 'revision', title: 'Revision', width: 110, usual: true, text: revisionsOf, show: revisionsOf },
  {
    key: 'purpose',
    title: 'Purpose',
    width: 120,
    text: ({ purpose }) => purposeName(purpose),
    show: ({ purpose }) => purposeName(purpose),
  },
];

/** Every product with what it costs, earns and could be made now, the worrying first. */
export function ProductsTable() {
  const go = useNavigate();
  const q = useSought();
  const { sort, down, sorting } = useSorting<ProductSort>('worry');
  const pages = usePages('products', { q: q || undefined, sort, down, limit: 100 });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const worrying = rows.filter(({ faults }) => faults.length > 0).length;
  const out = rows.filter(({ canMakeNow, faults }) => canMakeNow === '0' && faults.length === 0).length;
  const deeds = (chosen: readonly ProductRow[]): readonly Deed[] => {
    const buildable = chosen.filter(({ purpose, inUse }) => purpose === 'build' && inUse !== null);
    return [
      {
        id: 'cover',
        name: 'Is there enough for 10 of each?',
        isDisabled: buildable.length === 0,
        act: () => void go(`/cover?want=${buildable.map(({ itemId }) => `${itemId}x10`).join(',')}`),
      },
    ];
  };
  return (
    <ListPage>
      <ListTop>
        <Row $wrap>
          <div>
            <h1>{conclusion(rows.length, pages.hasNextPage, worrying, out)}</h1>
            <Lead>What each product costs and earns at today’s costs, and how many the free parts allow.</Lead>
          </div>
          <Push />
          {worrying > 0 && <LinkButton to="/define/faults">What to fix</LinkButton>}
          <LinkButton to="/define/replace">Replace a part</LinkButton>
          <LinkButton look="go" to="/define/new">
            New bill of materials
          </LinkButton>
        </Row>
      </ListTop>
      <LongList
        list="products"
        label="Products"
        pages={pages}
        keyOf={({ id }) => id}
        columns={columns}
        leadColumns={LEAD}
        lead={leadOf}
        sorting={sorting}
        deeds={deeds}
        empty={
          q ? (
            <EmptyState title="No product has that name">Try a part of its code or name.</EmptyState>
          ) : (
            <EmptyState
              title="Define your first product"
              action={<LinkButton to="/define/new">New bill of materials</LinkButton>}
            >
              A bill of materials lists what goes into one product: parts, minutes of work, charges. Cost, margin and
              how many you can make now follow as you enter them.
            </EmptyState>
          )
        }
      >
        <Narrow $width={230}>
          <Finder label="Find a product" placeholder="Find a product" />
        </Narrow>
        <SavedFilters list="products" />
      </LongList>
    </ListPage>
  );
}

function conclusion(all: number, more: boolean, worrying: number, out: number): string {
  if (all === 0) return 'Products';
  const found = `${count(all, 'product')}${more ? ' and more' : ''}`;
  const parts = [worrying > 0 && `${worrying} to fix`, out > 0 && `${out} that cannot be made now`].filter(Boolean);
  return parts.length > 0 ? `${found}, ${parts.join(', ')}.` : `${found}, all in order.`;
}
