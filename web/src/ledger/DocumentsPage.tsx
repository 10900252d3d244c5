import { type DocumentRow, documentKinds } from '@yosegi/contract';
import { Link, useParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { Chip } from '../ui/Chip.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid, Scroll } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint } from '../ui/text.ts';
import { When } from '../ui/When.tsx';
import { DocumentSheet } from './DocumentSheet.tsx';
import { KindHead, useKind } from './KindHead.tsx';

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

function List() {
  const format = useFormat();
  const kind = useKind();
  const pages = usePages('documents', { kind: kind || undefined, limit: 60 });
  return (
    <Scroll style={{ padding: '18px 24px 60px' }}>
      <KindHead title="What was posted" lead="The newest first. Each can be undone by a counter-document." />
      <Answer of={pages}>
        {(data) => (
          <>
            <Grid>
              <thead>
                <tr>
                  <th>Number</th>
                  <th>Kind</th>
                  <th>About</th>
                  <th>For, from or to</th>
                  <th>When</th>
                  <th>Who</th>
                  <th>Remark</th>
                  <th className="num">Into stock</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {data.pages
                  .flatMap((page) => page.rows)
                  .map((row) => (
                    <tr key={row.id}>
                      <td>
                        <Link to={`/stock/documents/${row.id}`}>{row.number}</Link>
                      </td>
                      <td>{documentKinds[row.kind].name}</td>
                      <td>
                        <About row={row} />
                      </td>
                      <td>
                        <Whom row={row} />
                      </td>
                      <td>
                        <When at={row.at} />
                      </td>
                      <td>{row.person}</td>
                      <td>{row.remark}</td>
                      <td className="num">{format.money(row.value)}</td>
                      <td>{row.undone && <Chip $tone="held">undone</Chip>}</td>
                    </tr>
                  ))}
              </tbody>
            </Grid>
            <More of={pages}>Show older</More>
          </>
        )}
      </Answer>
    </Scroll>
  );
}

/** What a document was mostly about. */
function About({ row: { item, others } }: { row: DocumentRow }) {
  const format = useFormat();
  if (!item) return <Faint>values only</Faint>;
  return (
    <Cell>
      <Tile code={item.code} size={24} />
      <span>
        {Number(item.quantity) === 0
          ? 'the value of '
          : `${format.quantity(item.quantity, item.unit)} ${item.unit === 'each' ? '' : 'of '}`}
        <Link to={`/stock/items/${item.id}`}>{item.name}</Link>
        {others > 0 && <Faint> and {count(others, 'other item')}</Faint>}
      </span>
    </Cell>
  );
}

/** What it was posted for, and who brought or got it. */
function Whom({ row }: { row: DocumentRow }) {
  if (!row.for) return <>{row.party}</>;
  const to = row.for.kind === 'build' ? `/build/${row.for.id}` : `/orders/${row.for.id}`;
  return (
    <>
      <Link to={to}>{row.for.number}</Link> {row.party}
    </>
  );
}
