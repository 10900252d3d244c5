import type { Item, ItemSort } from '@yosegi/contract';
import { usePages, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count } from '../ui/format.ts';
import { ListPage, ListTop, LongList, Narrow } from '../ui/LongList.tsx';
import type { Deed } from '../ui/Menu.tsx';
import { SavedFilters } from '../ui/SavedFilters.tsx';
import { EmptyState } from '../ui/States.tsx';
import { Push, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useEach } from '../ui/useEach.ts';
import { useSorting } from '../ui/useSorting.ts';
import { itemColumns } from './itemColumns.tsx';

/** What each row begins with, in a file. */
const LEAD = [
  { key: 'name', title: 'Name', sort: 'name', text: ({ name }: Item) => name },
  { key: 'code', title: 'Code', sort: 'code', text: ({ code }: Item) => code },
];

const leadOf = ({ id, code, name }: Item) => ({ to: `/stock/items/${id}`, code, title: name, under: code });

/** All items at once: found as you type, sorted, with the columns one wants, under filters one can keep. */
export function ItemsTable() {
  const q = useSought();
  const [show, setShow] = useAddress('show', 'all');
  const [source, setSource] = useAddress('source');
  const [supplierId, setSupplier] = useAddress('supplier');
  const suppliers = useQuestion('suppliers', {}).data ?? [];
  const counts = useQuestion('itemCounts', {}).data;
  const { sort, down, sorting } = useSorting<ItemSort>('code');
  const pages = usePages('items', {
    q: q || undefined,
    show,
    source: source || undefined,
    supplierId: supplierId || undefined,
    sort,
    down,
    limit: 100,
  });
  const mayDefine = useCan('define');
  const archive = useEach('archiveItem', 'item', show === 'archived' ? 'back in use' : 'archived');
  const label = useEach('createLabelJob', 'label', 'at the label printer');
  const deedsOf = (chosen: readonly Item[]): readonly Deed[] => [
    {
      id: 'labels',
      name: 'Print labels',
      isDisabled: label.busy,
      act: () =>
        void label.run(chosen.map(({ id, name }) => ({ name, input: { body: { of: { itemId: id, copies: 1 } } } }))),
    },
    {
      id: 'archive',
      name: show === 'archived' ? 'Bring back' : 'Archive',
      isDisabled: archive.busy || !mayDefine,
      act: () =>
        void archive.run(
          chosen.map(({ id, name, version }) => ({
            name,
            input: { params: { id }, body: { archived: show !== 'archived', version } },
          })),
        ),
    },
  ];
  const filters = (
    <>
      <Narrow $width={200}>
        <Finder label="Find an item" placeholder="Code, name or barcode" />
      </Narrow>
      <Narrow $width={170}>
        <Choice
          label="Which items"
          hideLabel
          value={show}
          onChange={setShow}
          options={[
            ['all', 'All items'],
            ['in-stock', 'In stock'],
            ['low', 'At or below the reorder point'],
            ['overdrawn', 'More promised than you have'],
            ['archived', `Archived${counts?.archived ? ` · ${counts.archived}` : ''}`],
          ]}
        />
      </Narrow>
      <Narrow $width={158}>
        <Choice
          label="Bought or made"
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
      </Narrow>
      {suppliers.length > 0 && (
        <Narrow $width={170}>
          <Choice
            label="Supplier"
            hideLabel
            value={supplierId}
            onChange={setSupplier}
            options={[['', 'any supplier'], ...suppliers.map((one) => [String(one.id), one.name] as const)]}
          />
        </Narrow>
      )}
      <SavedFilters list="items" />
    </>
  );
  return (
    <ListPage>
      <ListTop>
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
      </ListTop>
      <LongList
        list="items"
        label="Items"
        pages={pages}
        keyOf={(item) => item.id}
        columns={itemColumns}
        leadColumns={LEAD}
        lead={leadOf}
        keepsAddress
        sorting={sorting}
        deeds={deedsOf}
        empty={
          <EmptyState
            title={counts?.all === 0 ? 'Add your first item' : 'No item matches'}
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
        }
      >
        {filters}
      </LongList>
    </ListPage>
  );
}
