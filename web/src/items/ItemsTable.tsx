import type { ItemSort } from '@yosegi/contract';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type KeyboardEvent, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { usePages, useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Endless } from '../ui/Endless.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { SavedFilters } from '../ui/SavedFilters.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Muted, Push, Row, VisuallyHidden } from '../ui/text.ts';
import { useAddress, useSearchChange } from '../ui/useAddress.ts';
import { type ItemColumn, itemColumns, usualColumns } from './itemColumns.tsx';

const Page = styled.section`display: flex; flex-direction: column; min-height: 0; height: 100%; background: var(--sheet);`;
const Top = styled.div`padding: 16px 22px 10px; display: grid; gap: 10px; border-bottom: 1px solid var(--line-soft);`;
const Line = styled.div<{ $columns: string }>`
  display: grid; grid-template-columns: 34px minmax(200px, 1fr) ${({ $columns }) => $columns}; gap: 10px; align-items: center; padding: 0 22px; min-width: max-content;
`;
const HeadLine = styled(Line)`
  position: sticky; top: 0; z-index: 2; background: var(--sheet); border-bottom: 1px solid var(--line); height: 34px; font-size: 12px; color: var(--ink-2);
  > span[data-numeric] { text-align: right; }
  button { border: 0; background: none; padding: 4px 0; color: inherit; cursor: pointer; display: inline-flex; gap: 3px; align-items: center; font-weight: 500; }
  [data-sorted] button { color: var(--ink); font-weight: 700; }
`;
const BodyLine = styled(Line)`
  height: 44px; border-bottom: 1px solid var(--line-soft); line-height: 1.15;
  > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; } > span[data-numeric] { text-align: right; }
  a { color: var(--ink); text-decoration: none; font-weight: 600; } &:hover { background: var(--paper); }
  &:focus-within { background: var(--coming-wash); box-shadow: inset 4px 0 var(--honey); } a:focus-visible { outline: none; }
`;
const Chooser = styled.fieldset`
  border: 1px solid var(--line); border-radius: 3px; display: flex; gap: 4px 16px; flex-wrap: wrap; padding: 8px 12px; margin: 0;
`;

/** All items at once: found as you type, sorted, with the columns one wants, under filters one can keep. */
export function ItemsTable() {
  const format = useFormat();
  const [search] = useSearchParams();
  const change = useSearchChange();
  const [q, setQ] = useAddress('q');
  const [show, setShow] = useAddress('show', 'all');
  const [source, setSource] = useAddress('source');
  const [supplierId, setSupplier] = useAddress('supplier');
  const [cols, setCols] = useAddress('cols', usualColumns.join('.'));
  const [choosing, setChoosing] = useState(false);
  const suppliers = useQuestion('suppliers', {}).data ?? [];
  const counts = useQuestion('itemCounts', {}).data;
  const sort = (search.get('sort') ?? 'code') as ItemSort;
  const down = search.get('down') === '1';
  const pages = usePages('items', {
    q: q || undefined,
    show,
    source: source || undefined,
    supplierId: supplierId || undefined,
    sort,
    down,
    limit: 100,
  });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const keys = cols.split('.');
  const columns = itemColumns.filter((column) => keys.includes(column.key));
  const widths = columns.map((column) => column.width).join(' ');
  const sortBy = (key: ItemSort, otherwiseDown: boolean) => {
    const nextDown = key === sort ? !down : otherwiseDown;
    change({ sort: key === 'code' ? null : key, down: nextDown ? '1' : null });
  };
  const suffix = search.size > 0 ? `?${search}` : '';
  return (
    <Page>
      <Top>
        <Row $wrap>
          <h1>
            {counts === undefined
              ? 'Items'
              : counts.all === 0
                ? 'No items yet.'
                : `${count(counts.all, 'item')}${counts.low > 0 ? `, ${counts.low} at or below ${counts.low === 1 ? 'its' : 'their'} reorder point` : ''}.`}
          </h1>
          <Push />
          <LinkButton to="/stock/in-out">Import or export</LinkButton>
          <LinkButton look="go" to="/stock/items?new=1">
            New item
          </LinkButton>
        </Row>
        <Row $wrap $gap={8}>
          <div style={{ width: 230 }}>
            <Field label="Find an item" hideLabel placeholder="Code, name or barcode" value={q} onChange={setQ} />
          </div>
          <div style={{ width: 190 }}>
            <Choice
              label="Which items"
              hideLabel
              value={show}
              onChange={setShow}
              options={[
                ['all', 'All items'],
                ['in-stock', 'In stock'],
                ['low', 'At or below reorder point'],
                ['overdrawn', 'Promised beyond what is there'],
                ['archived', `Archived${counts?.archived ? ` · ${counts.archived}` : ''}`],
              ]}
            />
          </div>
          <div style={{ width: 150 }}>
            <Choice
              label="How they come"
              hideLabel
              value={source}
              onChange={setSource}
              options={[
                ['', 'bought or made'],
                ['bought', 'bought'],
                ['made', 'made here'],
                ['both', 'both'],
              ]}
            />
          </div>
          {suppliers.length > 0 && (
            <div style={{ width: 170 }}>
              <Choice
                label="Supplier"
                hideLabel
                value={supplierId}
                onChange={setSupplier}
                options={[['', 'any supplier'], ...suppliers.map((one) => [String(one.id), one.name] as const)]}
              />
            </div>
          )}
          <Button look="ghost" aria-expanded={choosing} onPress={() => setChoosing(!choosing)}>
            Columns
          </Button>
          <SavedFilters list="items" />
        </Row>
        {choosing && (
          <Chooser>
            <VisuallyHidden as="legend">Columns</VisuallyHidden>
            {itemColumns.map((column) => (
              <Tick
                key={column.key}
                isOn={keys.includes(column.key)}
                onChange={(isOn) => {
                  const next = itemColumns.filter(({ key }) => (key === column.key ? isOn : keys.includes(key)));
                  setCols(next.map(({ key }) => key).join('.'));
                }}
              >
                {column.title}
              </Tick>
            ))}
          </Chooser>
        )}
      </Top>
      <Answer of={pages}>
        {() =>
          rows.length === 0 ? (
            <EmptyState
              title={counts?.all === 0 ? 'Add your first item' : 'No item is like that'}
              action={
                counts?.all === 0 && (
                  <Row>
                    <LinkButton to="/stock/items?new=1">New item</LinkButton>
                    <LinkButton to="/stock/in-out">Import a file of items</LinkButton>
                  </Row>
                )
              }
            >
              {counts?.all === 0
                ? 'Items are what you buy and what you make. Each keeps its own stock, cost and history.'
                : 'Try a part of its code or name, or another filter.'}
            </EmptyState>
          ) : (
            // biome-ignore lint/a11y/noStaticElementInteractions: arrows move among the links of the rows
            <div style={{ display: 'contents' }} onKeyDown={byArrows}>
              <Endless
                rows={rows}
                pages={pages}
                rowHeight={44}
                headHeight={34}
                keyOf={(item) => item.id}
                label="Items"
                head={<Head columns={columns} widths={widths} sort={sort} down={down} sortBy={sortBy} />}
              >
                {(item) => (
                  <BodyLine $columns={widths} data-item-row>
                    <Tile code={item.code} size={30} />
                    <span>
                      <Link to={`/stock/items/${item.id}${suffix}`}>{item.name}</Link>
                      <br />
                      <Faint>{item.code}</Faint>
                    </span>
                    {columns.map((column) => (
                      <span key={column.key} {...(column.numeric ? { 'data-numeric': true } : {})}>
                        {column.show(item, format)}
                      </span>
                    ))}
                  </BodyLine>
                )}
              </Endless>
            </div>
          )
        }
      </Answer>
      {pages.isFetchingNextPage && <Muted style={{ padding: '4px 22px' }}>More…</Muted>}
    </Page>
  );
}

interface HeadProps {
  readonly columns: readonly ItemColumn[];
  readonly widths: string;
  readonly sort: ItemSort;
  readonly down: boolean;
  readonly sortBy: (key: ItemSort, otherwiseDown: boolean) => void;
}

function Head({ columns, widths, sort, down, sortBy }: HeadProps) {
  const arrow = down ? <ArrowDown size={12} aria-hidden /> : <ArrowUp size={12} aria-hidden />;
  const sorter = (key: ItemSort, title: string, numeric: boolean) => (
    <button
      type="button"
      onClick={() => sortBy(key, numeric)}
      aria-label={`Sort by ${title}${sort === key ? `, now ${down ? 'falling' : 'rising'}` : ''}`}
    >
      {title}
      {sort === key && arrow}
    </button>
  );
  const sorted = (key: ItemSort | undefined) => (key !== undefined && key === sort ? { 'data-sorted': true } : {});
  return (
    <HeadLine $columns={widths}>
      <span />
      <span style={{ display: 'flex', gap: 14 }}>
        <span {...sorted('name')}>{sorter('name', 'Name', false)}</span>
        <span {...sorted('code')}>{sorter('code', 'Code', false)}</span>
      </span>
      {columns.map((column) => (
        <span key={column.key} {...(column.numeric ? { 'data-numeric': true } : {})} {...sorted(column.sort)}>
          {column.sort ? sorter(column.sort, column.title, column.numeric ?? false) : column.title}
        </span>
      ))}
    </HeadLine>
  );
}

/** Up and down go from row to row; Enter follows the link that has the focus. */
function byArrows(event: KeyboardEvent<HTMLElement>): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  const link = (event.target as HTMLElement).closest('[data-item-row]')?.querySelector('a');
  if (step === 0 || !link) return;
  const links = [...event.currentTarget.querySelectorAll<HTMLAnchorElement>('[data-item-row] a')];
  // Drawn rows are not in order of the document while scrolling; their tops are.
  links.sort((a, b) => a.getBoundingClientRect().top - b.getBoundingClientRect().top);
  const next = links[links.indexOf(link) + step];
  if (!next) return;
  event.preventDefault();
  next.focus();
}
