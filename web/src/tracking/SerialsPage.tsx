import type { UnitRow } from '@yosegi/contract';
import { unitStates } from '@yosegi/core/tracking';
import { usePages, useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Chip, type Tone } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { type ListColumn, ListPage, ListTop, LongList, Narrow } from '../ui/LongList.tsx';
import { SavedFilters } from '../ui/SavedFilters.tsx';
import { EmptyState } from '../ui/States.tsx';
import { Faint, Lead } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { When } from '../ui/When.tsx';

type State = UnitRow['state'];

export const toneOf = (state: State): Tone =>
  state === 'in stock'
    ? 'ok'
    : state === 'in work' || state === 'in a parcel'
      ? 'coming'
      : state === 'customer’s'
        ? 'held'
        : state === 'scrapped'
          ? 'short'
          : 'held';

/** Where it is, without what the state beside it says. */
export const placeOf = ({ where, state }: Pick<UnitRow, 'where' | 'state'>) =>
  state === 'never ours' ? '' : where.replace(/^is (in stock: )?/, '');

/** What each row begins with, in a file. */
const LEAD = [
  { key: 'serial', title: 'Serial', text: ({ serial }: UnitRow) => serial },
  { key: 'name', title: 'Item', text: ({ name }: UnitRow) => name },
];
const leadOf = ({ id, code, serial, name }: UnitRow) => ({
  to: `/stock/serials/${id}`,
  code,
  title: serial,
  under: name,
});

const columns: readonly ListColumn<UnitRow>[] = [
  {
    key: 'state',
    title: 'Status',
    width: 120,
    usual: true,
    text: ({ state }) => state,
    show: ({ state, held }) => (
      <>
        <Chip $tone={toneOf(state)}>{state}</Chip>
        {held && <Faint> held: {held}</Faint>}
      </>
    ),
  },
  {
    key: 'since',
    title: 'Since',
    width: 110,
    usual: true,
    text: ({ since }) => since ?? '',
    show: ({ since }) => since && <When at={since} />,
  },
  { key: 'where', title: 'Where', width: 240, usual: true, text: placeOf, show: placeOf },
  {
    key: 'cost',
    title: 'Cost so far',
    width: 110,
    numeric: true,
    usual: true,
    text: ({ cost }) => cost ?? '',
    show: ({ cost }, format) => (cost === null ? '–' : format.money(cost)),
  },
  {
    key: 'customer',
    title: 'Sold to',
    width: 170,
    usual: true,
    text: ({ customer }) => customer ?? '',
    show: ({ customer }) => customer,
  },
  {
    key: 'profit',
    title: 'Profit',
    width: 100,
    numeric: true,
    usual: true,
    text: ({ profit }) => profit ?? '',
    show: ({ profit }, format) => (profit === null ? '–' : format.money(profit)),
  },
  {
    key: 'warranty',
    title: 'Warranty until',
    width: 130,
    usual: false,
    text: ({ warrantyUntil }) => warrantyUntil ?? '',
    show: ({ warrantyUntil }, format) => warrantyUntil && format.day(warrantyUntil),
  },
];

/** Units that are known by serial number: which are ours, which are at work, which are sold, and what each brought. */
export function SerialsPage() {
  const [state, setState] = useAddress('state');
  const [itemId] = useAddress('item');
  const q = useSought();
  const item = Number(itemId) || undefined;
  const counts = useQuestion('unitCounts', { query: { itemId: item } as never }).data ?? [];
  const pages = usePages('serialUnits', {
    q: q || undefined,
    itemId: item,
    state: (state || undefined) as State | undefined,
    limit: 100,
  });
  return (
    <ListPage>
      <ListTop>
        <div>
          <h1>{conclusion(counts)}</h1>
          <Lead>Each piece has its own cost, from receipt to sale.</Lead>
        </div>
      </ListTop>
      <LongList
        list="units"
        label="Pieces"
        pages={pages}
        keyOf={({ id }) => id}
        columns={columns}
        leadColumns={LEAD}
        lead={leadOf}
        empty={
          <EmptyState title="No pieces match">
            Each piece of an item tracked by serial number appears here, with its place and cost.
          </EmptyState>
        }
      >
        <Narrow $width={230}>
          <Finder label="Find" placeholder="Serial or item" />
        </Narrow>
        <Narrow $width={200}>
          <Choice
            label="Which pieces"
            hideLabel
            value={state}
            onChange={setState}
            options={[
              ['', 'All pieces'],
              ...unitStates.map((one): [string, string] => [one, `${one} · ${countOf(counts, one)}`]),
            ]}
          />
        </Narrow>
        <SavedFilters list="units" />
        <LinkButton look="ghost" to="/stock/lots">
          Lots
        </LinkButton>
      </LongList>
    </ListPage>
  );
}

type Counts = readonly { readonly state: State; readonly count: number }[];
const countOf = (counts: Counts, state: State) => counts.find((one) => one.state === state)?.count ?? 0;

function conclusion(counts: Counts): string {
  const parts = (
    [
      ['in stock', 'in stock'],
      ['in work', 'at work'],
      ['customer’s', 'customers’ goods, here for repair'],
      ['sold', 'sold'],
    ] as const
  ).flatMap(([state, words]) => {
    const n = countOf(counts, state);
    return n === 0 ? [] : [`${n} ${words}`];
  });
  return parts.length === 0 ? 'No piece has a serial number yet.' : `${parts.join(', ')}, by serial number.`;
}
