import type { Item } from '@yosegi/contract';
import { useParams, useSearchParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice, Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Sheet, Strip, StripHead, StripList, Three } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem } from '../ui/StripItem.tsx';
import { Late } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { ItemForm } from './ItemForm.tsx';
import { ItemSheet } from './ItemSheet.tsx';

/** Items, found as you type, with what is on hand, promised and free of each. */
export function ItemsPage() {
  const { id } = useParams();
  const [search] = useSearchParams();
  const [q, setQ] = useAddress('q');
  const [show, setShow] = useAddress('show', 'all');
  const pages = usePages('items', { q: q || undefined, show, limit: 200 });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const suffix = search.size > 0 && !search.has('new') && !search.has('edit') ? `?${search}` : '';
  return (
    <Three $margin={false}>
      <Strip>
        <StripHead>
          <Field label="Find an item" hideLabel placeholder="Find an item" value={q} onChange={setQ} />
          <Choice
            label="Which items"
            hideLabel
            value={show}
            onChange={setShow}
            options={[
              ['all', 'All items'],
              ['in-stock', 'In stock'],
              ['overdrawn', 'Promised beyond what is there'],
            ]}
          />
          <LinkButton to="/stock/items?new=1">New item</LinkButton>
        </StripHead>
        <StripList aria-label="Items">
          <Answer of={pages}>
            {() => (
              <>
                {rows.map((row) => (
                  <StripItem
                    key={row.id}
                    to={`/stock/items/${row.id}${suffix}`}
                    code={row.code}
                    title={row.name}
                    under={row.code}
                    side={<Free item={row} />}
                  />
                ))}
                {rows.length === 0 && (
                  <EmptyState title="No item is called like that">Try a part of its code or name.</EmptyState>
                )}
                {pages.hasNextPage && (
                  <Button look="ghost" busy={pages.isFetchingNextPage} onPress={() => void pages.fetchNextPage()}>
                    Show more
                  </Button>
                )}
              </>
            )}
          </Answer>
        </StripList>
      </Strip>
      {search.has('new') ? (
        <Sheet>
          <ItemForm item={null} />
        </Sheet>
      ) : id ? (
        <OneItem key={id} id={Number(id)} />
      ) : (
        <Sheet>
          <EmptyState
            title={rows.length ? 'Choose an item on the left' : 'Add your first item'}
            action={<LinkButton to="/stock/items?new=1">New item</LinkButton>}
          >
            Items are what you buy and what you make. Each keeps its own stock, cost and history.
          </EmptyState>
        </Sheet>
      )}
    </Three>
  );
}

function Free({ item }: { item: Item }) {
  const format = useFormat();
  const text = format.quantity(item.free, item.unit, Math.min(item.decimals, 1));
  return Number(item.free) < 0 ? <Late title="free">{text}</Late> : <b title="free">{text}</b>;
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
