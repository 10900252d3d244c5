import type { Job, JobRow } from '@yosegi/contract';
import { formatDecimal, readForText } from '@yosegi/core/number';
import { Link, useParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import {
  BigNumber,
  Grid,
  KeyValue,
  Margin,
  Sheet,
  SheetAndMargin,
  Strip,
  StripHead,
  StripList,
  Three,
} from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem } from '../ui/StripItem.tsx';
import { H2, Section } from '../ui/space.ts';
import { Faint, Lead, Muted, Push, Row } from '../ui/text.ts';
import { dayOf } from '../ui/today.ts';
import { jobPath } from './paths.ts';

const LineChart = later(() => import('../ui/LineChart.tsx'), 'LineChart');

const FILE: readonly FileColumn<JobRow>[] = [
  { title: 'Job', text: ({ tag }) => tag },
  { title: 'Records', text: ({ records }) => String(records), isAmount: true },
  { title: 'Cost', text: ({ cost }) => cost, isAmount: true },
  { title: 'Income', text: ({ income }) => income, isAmount: true },
  { title: 'Margin', text: ({ margin }) => margin, isAmount: true },
];

/** Jobs: what is booked together under a tag, what it cost and what it brought. */
export function JobsPage() {
  const { tag } = useParams();
  const jobs = useQuestion('jobs', {});
  const format = useFormat();
  return (
    <Three $margin={false}>
      <Strip {...(tag ? {} : { 'data-alone': true })}>
        <StripHead>
          <Row>
            <h2>Jobs</h2>
            <Push />
            <Export name="Jobs" columns={FILE} rows={() => jobs.data ?? []} />
            <LinkButton look="ghost" to="/orders">
              Orders
            </LinkButton>
          </Row>
        </StripHead>
        <StripList aria-label="Jobs">
          <Answer of={jobs}>
            {(rows) =>
              rows.map((row) => (
                <StripItem
                  key={row.tag}
                  to={jobPath(row.tag)}
                  code={row.tag}
                  title={row.tag}
                  under={`${format.money(row.income, 0)} in, ${format.money(row.cost, 0)} out`}
                />
              ))
            }
          </Answer>
        </StripList>
      </Strip>
      {tag ? (
        <One key={tag} tag={tag} />
      ) : (
        <Sheet>
          <EmptyState
            isPage
            title={jobs.data?.length ? 'Which job?' : 'No job yet'}
            action={<LinkButton to="/build">Builds</LinkButton>}
          >
            A job tag is a word you give to orders, builds and other records. See here what each job cost and earned.
          </EmptyState>
        </Sheet>
      )}
    </Three>
  );
}

function One({ tag }: { tag: string }) {
  const job = useQuestion('job', { query: { tag } });
  return (
    <Answer of={job}>
      {(data) =>
        data.records.length === 0 ? (
          <Sheet>
            <EmptyState isPage title={`Nothing tagged ${tag}`} action={<LinkButton to="/orders/jobs">Jobs</LinkButton>}>
              Give a tag to an order, a build or any other record, and see its costs and income here.
            </EmptyState>
          </Sheet>
        ) : (
          <JobSheet job={data} />
        )
      }
    </Answer>
  );
}

const pages: Record<Job['records'][number]['kind'], (id: number) => string> = {
  order: (id) => `/orders/${id}`,
  build: (id) => `/build/${id}`,
  repair: (id) => `/build/repairs/${id}`,
  purchase: (id) => `/buying/orders/${id}`,
  document: (id) => `/stock/documents/${id}`,
};

function JobSheet({ job }: { job: Job }) {
  const format = useFormat();
  return (
    <SheetAndMargin>
      <Sheet>
        <h1>{conclusion(job, (text) => format.money(text))}</h1>
        <Lead>Stock costs count once goods ship. Returns take off their cost, and refunds their income.</Lead>
        <Grid $full $top={14}>
          <thead>
            <tr>
              <th>Record</th>
              <th>For</th>
              <th>Status</th>
              <th className="num">Cost</th>
              <th className="num">Income</th>
              <th className="num">Margin</th>
            </tr>
          </thead>
          <tbody>
            {job.records.map((record) => (
              <tr key={`${record.kind}${record.id}`}>
                <td>
                  <Link to={pages[record.kind](record.id)}>{record.number}</Link>
                </td>
                <td>{record.about}</td>
                <td>{record.state}</td>
                <td className="num">{format.money(record.cost)}</td>
                <td className="num">{format.money(record.income)}</td>
                <td className="num">
                  <b>{format.money(record.margin)}</b>
                </td>
              </tr>
            ))}
            <tr>
              <td colSpan={3}>
                <b>Total</b>
              </td>
              <td className="num">
                <b>{format.money(job.cost)}</b>
              </td>
              <td className="num">
                <b>{format.money(job.income)}</b>
              </td>
              <td className="num">
                <b>{format.money(job.margin)}</b>
              </td>
            </tr>
          </tbody>
        </Grid>
        <OverTime job={job} />
      </Sheet>
      <Margin aria-label="Total">
        <h2>Margin</h2>
        <BigNumber $top={6}>{format.money(job.margin)}</BigNumber>
        <Muted>of {format.money(job.income)} that came in</Muted>
        <H2 $top={22}>Costs</H2>
        <KeyValue>
          Bought <b>{format.money(job.bought)}</b>
        </KeyValue>
        <KeyValue>
          Labour <b>{format.money(job.labour)}</b>
        </KeyValue>
        <KeyValue>
          Charges <b>{format.money(job.charges)}</b>
        </KeyValue>
        <Muted>Shipped and not returned, including earlier stock: {format.money(job.cost)}.</Muted>
      </Margin>
    </SheetAndMargin>
  );
}

/** What was posted, one after the other, and what is left after each. */
function OverTime({ job }: { job: Job }) {
  const format = useFormat();
  let left = 0n;
  const points = job.postings
    .filter(({ cost, income }) => cost !== '0' || income !== '0')
    .map((posting) => {
      left += readForText(posting.income) - readForText(posting.cost);
      return { ...posting, left: formatDecimal(left) };
    });
  if (points.length === 0) return <Muted>Nothing has shipped yet: no costs and no income.</Muted>;
  return (
    <Section $top={22}>
      <H2 $bottom={8}>Over time</H2>
      {points.length > 1 && (
        <LineChart
          label="Margin after each posting"
          points={points.map((point) => ({
            name: format.day(dayOf(point.at)),
            value: Number(point.left),
            text: format.money(point.left),
          }))}
        />
      )}
      <Grid $full>
        <thead>
          <tr>
            <th>When</th>
            <th>Posted</th>
            <th className="num">Cost</th>
            <th className="num">Income</th>
            <th className="num">Margin after</th>
          </tr>
        </thead>
        <tbody>
          {points.map((point, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: what was posted never moves
            <tr key={index}>
              <td className="one-line">{format.day(dayOf(point.at))}</td>
              <td>
                {point.documentId ? (
                  <Link to={`/stock/documents/${point.documentId}`}>{point.number}</Link>
                ) : (
                  point.number
                )}{' '}
                <Faint>
                  {point.kind.replaceAll('-', ' ')}
                  {point.of !== point.number && ` for ${point.of}`}
                </Faint>
              </td>
              <td className="num">{point.cost === '0' ? '–' : format.money(point.cost)}</td>
              <td className="num">{point.income === '0' ? '–' : format.money(point.income)}</td>
              <td className="num">{format.money(point.left)}</td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </Section>
  );
}

function conclusion({ tag, income, cost, margin }: Job, money: (text: string) => string): string {
  if (income === '0' && cost === '0') return `${tag}: no costs or income yet.`;
  if (income === '0') return `${tag} has cost ${money(cost)} and earned nothing yet.`;
  return margin.startsWith('-')
    ? `${tag} earned ${money(income)} and cost ${money(cost)}.`
    : `${tag} earned ${money(income)}, with a margin of ${money(margin)}.`;
}
