import type { Movement } from '@yosegi/contract';
import { Link } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { SignedQuantity } from '../lines/SignedQuantity.tsx';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { type ListColumn, ListPage, ListTop, LongList, Narrow } from '../ui/LongList.tsx';
import { SavedFilters } from '../ui/SavedFilters.tsx';
import { Nothing } from '../ui/States.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Faint } from '../ui/text.ts';
import { useAddress, useSearchChange } from '../ui/useAddress.ts';
import { When } from '../ui/When.tsx';
import { KindHead, useKind } from './KindHead.tsx';

const LEAD = [
  { key: 'name', title: 'Item', text: ({ name }: Movement) => name },
  { key: 'code', title: 'Code', text: ({ code }: Movement) => code },
];

const leadOf = ({ itemId, code, name }: Movement) => ({ to: `/stock/items/${itemId}`, code, title: name, under: code });

const columns: readonly ListColumn<Movement>[] = [
  { key: 'at', title: 'When', width: 110, usual: true, text: ({ at }) => at, show: ({ at }) => <When at={at} /> },
  {
    key: 'document',
    title: 'Document',
    width: 170,
    usual: true,
    text: ({ document }) => document,
    show: ({ documentId, document, kind }) => (
      <>
        <Link to={`/stock/documents/${documentId}`}>{document}</Link> <Faint>{kind.replace('-', ' ')}</Faint>
      </>
    ),
  },
  {
    key: 'bin',
    title: 'Bin',
    width: 190,
    usual: true,
    text: ({ bin, build }) => [bin, build].filter(Boolean).join(' for '),
    show: ({ bin, build }) => (
      <>
        {bin}
        {build && <Faint> for {build}</Faint>}
      </>
    ),
  },
  {
    key: 'piece',
    title: 'Lot or serial',
    width: 120,
    usual: true,
    text: ({ lot, serial }) => lot ?? serial ?? '',
    show: ({ lot, serial }) => lot ?? serial,
  },
  {
    key: 'quantity',
    title: 'Quantity',
    width: 110,
    numeric: true,
    usual: true,
    text: ({ quantity }) => quantity,
    show: ({ quantity, unit }) => <SignedQuantity quantity={quantity} unit={unit} decimals={3} />,
  },
  {
    key: 'value',
    title: 'Value',
    width: 96,
    numeric: true,
    usual: true,
    text: ({ value }) => value,
    show: ({ value }, format) => format.money(value),
  },
  { key: 'person', title: 'Who', width: 110, usual: true, text: ({ person }) => person, show: ({ person }) => person },
];

/** Everything that ever moved, by text, kind, bin, person and days. */
export function MovementsPage() {
  const kind = useKind();
  const change = useSearchChange();
  const q = useSought();
  const [binId, setBin] = useAddress('bin');
  const [personId, setPerson] = useAddress('person');
  const [from, setFrom] = useAddress('from');
  const [to, setTo] = useAddress('to');
  const people = useQuestion('people', {}).data ?? [];
  const shelves = shelfOptions(useQuestion('stores', {}).data ?? []);
  const narrowed = [q, binId, personId, from, to].some((one) => one !== '');
  const clear = () => change({ q: null, bin: null, person: null, from: null, to: null });
  const pages = usePages('movements', {
    kind: kind || undefined,
    q: q || undefined,
    binId: binId || undefined,
    personId: personId || undefined,
    from: from || undefined,
    to: to || undefined,
    limit: 100,
  });
  return (
    <ListPage>
      <ListTop>
        <KindHead
          title="All movements"
          lead="The newest first. Nothing here is ever changed; a mistake is undone by a counter-document."
        />
      </ListTop>
      <LongList
        list="movements"
        label="Movements"
        pages={pages}
        keyOf={({ id }) => id}
        columns={columns}
        leadColumns={LEAD}
        lead={leadOf}
        empty={<Nothing>{narrowed || kind ? 'No movements match.' : 'Nothing has moved yet.'}</Nothing>}
      >
        <Narrow $width={230}>
          <Finder label="Text" placeholder="Item, document or remark" hideLabel={false} />
        </Narrow>
        <Narrow $width={170}>
          <Choice label="Bin" value={binId} onChange={setBin} options={[['', 'every bin'], ...shelves]} />
        </Narrow>
        <Narrow $width={140}>
          <Choice
            label="Who"
            value={personId}
            onChange={setPerson}
            options={[['', 'everyone'], ...people.map((person) => [String(person.id), person.name] as const)]}
          />
        </Narrow>
        <Narrow $width={150}>
          <DayField label="From" value={from} onChange={setFrom} />
        </Narrow>
        <Narrow $width={150}>
          <DayField label="To" value={to} onChange={setTo} />
        </Narrow>
        {narrowed && (
          <Button look="ghost" onPress={clear}>
            Clear filters
          </Button>
        )}
        <SavedFilters list="movements" />
      </LongList>
    </ListPage>
  );
}
