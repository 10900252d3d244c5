import type { ReorderRow } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Export, type FileColumn } from '../ui/Export.tsx';
import { count, type Format, useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Cell, Foot, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Muted, Push } from '../ui/text.ts';

/** When to order again: what use and deliveries propose, beside what is set, accepted one by one or all. */
export function ReorderPage() {
  const proposals = useQuestion('reorderProposals', {});
  return <Answer of={proposals}>{({ rows, since }) => <Proposals rows={rows} since={since} />}</Answer>;
}

const isOther = ({ point, proposed }: ReorderRow) =>
  proposed !== null && readForText(proposed) !== readForText(point ?? '0');
const isTooLow = (row: ReorderRow) =>
  row.proposed !== null && readForText(row.point ?? '0') < readForText(row.proposed);

function Proposals({ rows, since }: { rows: readonly ReorderRow[]; since: string }) {
  const format = useFormat();
  const notify = useNotify();
  const maySet = useCan('define');
  const back = useCommand('setReorderPoints');
  const set = useCommand('setReorderPoints', ({ before }) =>
    notify({
      text: `${count(before.length, 'reorder point')} set.`,
      undo: () => back.mutate({ body: { points: before } }),
    }),
  );
  const accept = (some: readonly ReorderRow[]) =>
    set.mutate({
      body: { points: some.map(({ itemId, proposed, version }) => ({ itemId, point: proposed, version })) },
    });
  const others = rows.filter(isOther);
  const low = rows.filter(isTooLow).length;
  // What would run out first, the rest by code as it came.
  const inOrder = [...rows.filter(isTooLow), ...rows.filter((row) => !isTooLow(row))];
  if (rows.length === 0)
    return (
      <EmptyState isPage title="Nothing has been used yet">
        Suggestions appear here once builds and orders have used what you buy.
      </EmptyState>
    );
  return (
    <AnswerPane>
      <AnswerBody>
        <div>
          <h1>
            {low === 0
              ? 'Every reorder point covers a slow delivery.'
              : `${count(low, 'item')} would run out during a slow delivery.`}
          </h1>
          <Lead>
            Proposed is the most that was used in as many days as a slow delivery takes, since {format.longerDay(since)}
            .
          </Lead>
        </div>
        <Grid $full>
          <thead>
            <tr>
              <th>Item</th>
              <th className="num">Used per week</th>
              <th>Slow delivery</th>
              <th className="num">Current</th>
              <th className="num">Proposed</th>
              <th aria-label="Use" />
            </tr>
          </thead>
          <tbody>
            {inOrder.map((row) => (
              <Proposal
                key={row.itemId}
                row={row}
                format={format}
                accept={maySet && isOther(row) && !set.isPending ? () => accept([row]) : null}
              />
            ))}
          </tbody>
        </Grid>
      </AnswerBody>
      <ProblemBox error={set.error ?? back.error} />
      <Foot>
        <Muted>
          {others.length === 0
            ? 'All set as suggested.'
            : `${count(others.length, 'proposal')} different from the current ones`}
        </Muted>
        <Push />
        <Export name="Reorder points" columns={FILE} rows={() => inOrder} />
        <Button
          look="go"
          isDisabled={!maySet || others.length === 0}
          busy={set.isPending}
          onPress={() => accept(others.slice(0, MOST))}
        >
          Use {count(Math.min(others.length, MOST), 'proposal')}
        </Button>
      </Foot>
    </AnswerPane>
  );
}

/** The most that are taken at once. */
const MOST = 500;

const FILE: readonly FileColumn<ReorderRow>[] = [
  { title: 'Item', text: ({ name }) => name },
  { title: 'Code', text: ({ code }) => code },
  { title: 'Unit', text: ({ unit }) => unit },
  { title: 'Used per week', text: ({ perWeek }) => perWeek, isAmount: true },
  { title: 'Supplier', text: ({ supplier }) => supplier ?? '' },
  { title: 'Slow delivery, days', text: ({ days }) => (days === null ? '' : String(days)), isAmount: true },
  { title: 'Reorder point', text: ({ point }) => point ?? '', isAmount: true },
  { title: 'Proposed', text: ({ proposed }) => proposed ?? '', isAmount: true },
];

function Proposal({ row, format, accept }: { row: ReorderRow; format: Format; accept: (() => void) | null }) {
  const amount = (text: string) => format.quantity(text, row.unit, row.decimals);
  return (
    <tr>
      <td>
        <Cell>
          <Tile code={row.code} size={26} />
          <span>
            <Link to={`/stock/items/${row.itemId}`}>{row.name}</Link>
            <br />
            <Faint>{row.code}</Faint>
          </span>
        </Cell>
      </td>
      <td className="num">
        {format.number(row.perWeek, 0, 2)}
        {row.unit === 'each' ? '' : ` ${row.unit}`}
      </td>
      <td>
        {row.days === null ? (
          <Late>{row.supplier === null ? 'no supplier' : 'no lead time known'}</Late>
        ) : (
          <>
            {count(row.days, 'day')}{' '}
            <Faint>
              {row.supplier}
              {row.learnt === null
                ? ', as stated'
                : `, actual from ${count(row.learnt.deliveries, 'delivery', 'deliveries')}${
                    row.learnt.deliveries > 1 ? `, half within ${row.learnt.usual}` : ''
                  }`}
            </Faint>
          </>
        )}
      </td>
      <td className="num">{row.point === null ? '–' : amount(row.point)}</td>
      <td className="num">
        {row.proposed === null ? (
          '–'
        ) : (
          <>
            {isTooLow(row) ? <Late>{amount(row.proposed)}</Late> : <b>{amount(row.proposed)}</b>}
            <br />
            <Faint>from {format.day(row.from ?? '')}</Faint>
          </>
        )}
      </td>
      <td className="num">
        {accept && (
          <Button look="ghost" aria-label={`Use for ${row.name}`} onPress={accept}>
            Use
          </Button>
        )}
      </td>
    </tr>
  );
}
