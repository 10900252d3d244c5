import type { ReturnRow } from '@yosegi/contract';
import { returnStates } from '@yosegi/core/returns';
import { Link, useParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { everyRow } from '../api/list.ts';
import { Chip } from '../ui/Chip.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Grid, Page } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { dayOf } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';
import { ReturnSheet } from './ReturnSheet.tsx';
import { stateTone, stateWords, waitedWords } from './words.ts';

/** What is owed for what came back, for whoever keeps the accounts. */
const FILE: readonly FileColumn<ReturnRow>[] = [
  { title: 'Return', text: ({ number }) => number },
  { title: 'Customer', text: ({ customer }) => customer },
  { title: 'Items', text: ({ what }) => what },
  { title: 'Reason', text: ({ reasons }) => reasons },
  { title: 'Status', text: ({ state }) => stateWords[state] },
  { title: 'Returned on', text: ({ arrivedAt }) => (arrivedAt === null ? '' : dayOf(arrivedAt)) },
  { title: 'Value', text: ({ value }) => value, isAmount: true },
  { title: 'Refund', text: ({ owed }) => owed, isAmount: true },
];

/** Every return, or one of them. */
export function ReturnsPage() {
  const { id } = useParams();
  return id ? <One key={id} id={Number(id)} /> : <List />;
}

function One({ id }: { id: number }) {
  const one = useQuestion('return', { params: { id } });
  return <Answer of={one}>{(data) => <ReturnSheet of={data} />}</Answer>;
}

function List() {
  const format = useFormat();
  const q = useSought();
  const [state, setState] = useAddress('state');
  const pages = usePages('returns', { q: q || undefined, state: state || undefined, limit: 100 });
  return (
    <Page>
      <Answer of={pages}>
        {(data) => {
          const rows = data.pages.flatMap((page) => page.rows);
          return (
            <>
              <h1>{listWords(rows, pages.hasNextPage)}</h1>
              <Lead>Refunds follow the price paid and the condition. Pass them to your accounts.</Lead>
              <Row $top={12} $bottom={12} $gap={12} $wrap>
                <Part $width={260}>
                  <Finder label="Find a return" placeholder="Number, customer, order, product" />
                </Part>
                <Part $width={180}>
                  <Choice
                    label="Which returns"
                    hideLabel
                    value={state}
                    onChange={setState}
                    options={[
                      ['', 'All returns'],
                      ...returnStates.map((one): [string, string] => [one, stateWords[one]]),
                    ]}
                  />
                </Part>
                <Export name="Returns" columns={FILE} rows={() => everyRow(pages)} />
              </Row>
              {rows.length === 0 ? (
                <EmptyState title="No returns match" action={<Link to="/take-apart">Take back goods</Link>}>
                  Search returns by number, customer, order or product.
                </EmptyState>
              ) : (
                <Grid $full>
                  <thead>
                    <tr>
                      <th>Return</th>
                      <th>Items</th>
                      <th>Reason</th>
                      <th>Status</th>
                      <th className="num">Value</th>
                      <th className="num">Refund</th>
                    </tr>
                  </thead>
                  <tbody>
                    {rows.map((row) => (
                      <tr key={row.id}>
                        <td>
                          <Link to={`/take-apart/returns/${row.id}`}>{row.number}</Link> · {row.customer}
                          <br />
                          <Faint>{format.day(dayOf(row.arrivedAt ?? row.madeAt))}</Faint>
                        </td>
                        <td>
                          <Cell>
                            <Tile code={row.code} size={28} />
                            <span>{row.what}</span>
                          </Cell>
                        </td>
                        <td>{row.reasons}</td>
                        <td>
                          <Chip $tone={stateTone(row.state)}>{stateWords[row.state]}</Chip>{' '}
                          {row.state === 'waiting' && <Faint>{waitedWords(row)}</Faint>}
                        </td>
                        <td className="num">{format.money(row.value)}</td>
                        <td className="num">{format.money(row.owed)}</td>
                      </tr>
                    ))}
                  </tbody>
                </Grid>
              )}
              <More of={pages} />
            </>
          );
        }}
      </Answer>
    </Page>
  );
}

function listWords(rows: readonly ReturnRow[], isMore: boolean): string {
  if (rows.length === 0) return 'No returns match.';
  const waiting = rows.filter((row) => row.state === 'waiting').length;
  return `${count(rows.length, 'return')}${isMore ? ' and more' : ''}${waiting > 0 ? `, ${waiting} to deal with` : ''}.`;
}
