import type { Item } from '@yosegi/contract';
import { useParams, useSearchParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Endless } from '../ui/Endless.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { Sheet, Strip, StripHead, Three } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem } from '../ui/StripItem.tsx';
import { Late, VisuallyHidden } from '../ui/text.ts';
import { ItemSheet } from './ItemSheet.tsx';
import { ItemsTable } from './ItemsTable.tsx';

const ItemForm = later(() => import('./ItemForm.tsx'), 'ItemForm');

/** Items: all of them in a table, or one of them beside the list it was found in. */
export function ItemsPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  if (!id && !search.has('new')) return <ItemsTable />;
  return (
    <Three $margin={false}>
      <ItemStrip />
      {search.has('new') ? (
        <Sheet>
          <ItemForm item={null} />
        </Sheet>
      ) : (
        <OneItem key={id} id={Number(id)} />
      )}
    </Three>
  );
}

/** The list as it was filtered, narrow enough to stand beside an item. */
function ItemStrip() {
  const [search] = useSearchParams();
  const q = useSought();
  const { show, source, sort, down, supplier } = Object.fromEntries(search);
  const pages = usePages('items', {
    q: q || undefined,
    show,
    source,
    sort,
    down: down === '1',
    supplierId: supplier,
    limit: 100,
  });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const kept = new URLSearchParams(search);
  kept.delete('new');
  kept.delete('edit');
  const suffix = kept.size > 0 ? `?${kept}` : '';
  return (
    <Strip>
      <StripHead>
        <Finder label="Find an item" placeholder="Find an item" />
        <LinkButton to={`/stock/items${suffix}`}>Full list</LinkButton>
      </StripHead>
      <Answer of={pages}>
        {() =>
          rows.length === 0 ? (
            <EmptyState title="No item has that name or code">Try a part of its code or name.</EmptyState>
          ) : (
            <Endless rows={rows} pages={pages} rowHeight={50} keyOf={(row) => row.id} label="Items" role="navigation">
              {(row) => (
                <StripItem
                  to={`/stock/items/${row.id}${suffix}`}
                  code={row.code}
                  title={row.name}
                  under={row.code}
                  side={<Free item={row} />}
                />
              )}
            </Endless>
          )
        }
      </Answer>
    </Strip>
  );
}

function Free({ item }: { item: Item }) {
  const format = useFormat();
  const text = format.quantity(item.free, item.unit, Math.min(item.decimals, 1));
  const Shown = Number(item.free) < 0 ? Late : 'b';
  return (
    <Shown>
      {text} <VisuallyHidden>free</VisuallyHidden>
    </Shown>
  );
}

function OneItem({ id }: { id: number }) {
  const item = useQuestion('item', { params: { id } });
  const [search] = useSearchParams();
  return (
    <Answer of={item}>
      {(data) =>
        search.has('edit') ? (
          <Sheet>
            <ItemForm item={data} />
          </Sheet>
        ) : (
          <ItemSheet item={data} />
        )
      }
    </Answer>
  );
}
