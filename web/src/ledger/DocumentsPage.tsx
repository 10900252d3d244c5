import { documentKinds } from '@yosegi/contract';
import { Link, useParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { Grid, Scroll } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer } from '../ui/States.tsx';
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
      <KindHead title="Documents" lead="Everything that was posted, the newest first." />
      <Answer of={pages}>
        {(data) => (
          <>
            <Grid>
              <thead>
                <tr>
                  <th>Number</th>
                  <th>Kind</th>
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
