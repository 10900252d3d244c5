import { type DocumentRow, documentKinds } from '@yosegi/contract';
import { Link, useParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { Chip } from '../ui/Chip.tsx';
import { count, type Format } from '../ui/format.ts';
import { type ListColumn, ListPage, ListTop, LongList } from '../ui/LongList.tsx';
import { Scroll } from '../ui/layout.ts';
import { Answer, Nothing } from '../ui/States.tsx';
import { When } from '../ui/When.tsx';
import { DocumentSheet } from './DocumentSheet.tsx';
import { KindHead, useKind } from './KindHead.tsx';
import { forPath } from './kinds.ts';

/** Documents: the list, or one with its movements. */
export function DocumentsPage() {
  const { id } = useParams();
  return id ? <One id={Number(id)} /> : <List />;
}

function One({ id }: { id: number }) {
  const document = useQuestion('document', { params: { id } });
  return (
    <Scroll>
      <Answer of={document}>{(data) => <DocumentSheet document={data} />}</Answer>
    </Scroll>
  );
}

const LEAD = [
  { key: 'number', title: 'Document', text: ({ number }: DocumentRow) => number },
  { key: 'about', title: 'About', text: (row: DocumentRow) => aboutText(row) },
];

const columns: readonly ListColumn<DocumentRow>[] = [
  {
    key: 'kind',
    title: 'Kind',
    width: 120,
    usual: true,
    text: ({ kind }) => documentKinds[kind].name,
    show: ({ kind }) => documentKinds[kind].name,
  },
  {
    key: 'whom',
    title: 'For, from or to',
    width: 190,
    usual: true,
    text: (row) => [row.for?.number, row.party].filter(Boolean).join(' '),
    show: (row) => <Whom row={row} />,
  },
  { key: 'at', title: 'When', width: 100, usual: true, text: ({ at }) => at, show: ({ at }) => <When at={at} /> },
  { key: 'person', title: 'Who', width: 90, usual: true, text: ({ person }) => person, show: ({ person }) => person },
  {
    key: 'remark',
    title: 'Remark',
    width: 210,
    usual: true,
    text: ({ remark }) => remark,
    show: ({ remark }) => remark,
  },
  {
    key: 'value',
    title: 'Into stock',
    width: 96,
    numeric: true,
    usual: true,
    text: ({ value }) => value,
    show: ({ value }, format) => format.money(value),
  },
  {
    key: 'undone',
    title: 'Undone',
    width: 70,
    usual: true,
    text: ({ undone }) => (undone ? 'undone' : ''),
    show: ({ undone }) => undone && <Chip $tone="held">undone</Chip>,
  },
];

function List() {
  const kind = useKind();
  const pages = usePages('documents', { kind: kind || undefined, limit: 100 });
  return (
    <ListPage>
      <ListTop>
        <KindHead title="Documents" lead="The newest first. Each can be undone." />
      </ListTop>
      <LongList
        list="documents"
        label="Documents"
        pages={pages}
        keyOf={({ id }) => id}
        columns={columns}
        leadColumns={LEAD}
        lead={leadOf}
        empty={<Nothing>Nothing of this kind has been posted yet.</Nothing>}
      />
    </ListPage>
  );
}

/** A document by its number, and what it was mostly about. */
const leadOf = ({ id, number, item, others }: DocumentRow, format: Format) => ({
  to: `/stock/documents/${id}`,
  code: item?.code ?? null,
  title: number,
  under: `${item ? `${amountOf(item, format)}${item.name}` : 'values only'}${others > 0 ? ` and ${count(others, 'other item')}` : ''}`,
});

type About = NonNullable<DocumentRow['item']>;

function amountOf({ quantity, unit }: About, format: Format): string {
  if (Number(quantity) === 0) return 'the value of ';
  return `${format.quantity(quantity, unit)} ${unit === 'each' ? '' : 'of '}`;
}

const aboutText = ({ item, others }: DocumentRow) =>
  item ? `${item.quantity} ${item.unit} ${item.name}${others > 0 ? ` +${others}` : ''}` : '';

/** What it was posted for, and who brought or got it. */
function Whom({ row }: { row: DocumentRow }) {
  if (!row.for) return <>{row.party}</>;
  const to = `${forPath[row.for.kind]}/${row.for.id}`;
  return (
    <>
      <Link to={to}>{row.for.number}</Link> {row.party}
    </>
  );
}
