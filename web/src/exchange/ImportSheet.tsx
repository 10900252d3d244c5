import type { Fate, ImportJob, ImportRow } from '@yosegi/contract';
import { FIELD_PREFIX, fileKinds } from '@yosegi/core/exchange';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { ask, problemOf, useCommand, usePages } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Endless } from '../ui/Endless.tsx';
import { count } from '../ui/format.ts';
import { AnswerPane, Ask, AskAnswer, Foot } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Faint, Late, Lead, Muted, Row } from '../ui/text.ts';
import { useJob } from './useJob.ts';

const Pane = styled(AnswerPane)`padding: 24px; gap: 12px;`;
const Going = styled.div`padding: 24px; display: grid; gap: 12px; > button { justify-self: start; }`;
const Head = styled.div`padding: 18px 24px 10px; display: grid; gap: 10px;`;
const Outcome = styled.b<{ $colour: string }>`color: var(--${({ $colour }) => $colour});`;
const Columns = styled.div`display: grid; gap: 8px; margin-top: 12px;`;
const Bar = styled.div`forced-color-adjust: none; height: 8px; border-radius: 4px; background: var(--line-soft); overflow: hidden; max-width: 460px; i { display: block; height: 100%; background: var(--honey); }`;
const Line = styled.div`
  display: grid; grid-template-columns: 64px 92px minmax(160px, 0.9fr) minmax(0, 1.6fr); gap: 10px; align-items: center; padding: 4px 24px; min-height: 46px;
  border-bottom: 1px solid var(--line-soft); background: var(--sheet); line-height: 1.2;
  > span { overflow-wrap: anywhere; }
`;
const fates: Record<Fate, { sign: string; word: string; colour: string }> = {
  refused: { sign: '✕', word: 'refused', colour: 'short-ink' },
  new: { sign: '+', word: 'new', colour: 'ok-ink' },
  changed: { sign: '≠', word: 'changed', colour: 'coming-ink' },
  same: { sign: '=', word: 'the same', colour: 'ink-3' },
};
const order: readonly Fate[] = ['refused', 'new', 'changed', 'same'];
const doneAt = {
  items: '/stock/items',
  prices: '/stock/suppliers',
  stock: '/stock/documents',
  definitions: '/define',
  customers: '/orders/customers',
  orders: '/orders',
};

/** One file on its way in: how it was understood, what would become of each row, and then all of it or nothing. */
export function ImportSheet({ id, onClose }: { id: string; onClose: () => void }) {
  const { job, error, reload } = useJob(id);
  // It goes on until the server has heard.
  const cancel = useCommand('cancelImport', onClose);
  const stop = () => {
    if (!cancel.isPending) cancel.mutate({ params: { id }, body: {} });
  };
  if (error)
    return (
      <Pane>
        <ProblemBox error={error} ways={<Button onPress={onClose}>Choose a file again</Button>} />
      </Pane>
    );
  if (!job) return <Pane aria-busy />;
  if (job.state === 'failed' || job.state === 'cancelled')
    return (
      <Pane>
        <h1>{job.state === 'failed' ? `${job.file} can’t be imported.` : 'Stopped; nothing was imported.'}</h1>
        {job.problem && <Late role="alert">{job.problem}</Late>}
        <div>
          <Button look="go" onPress={onClose}>
            Choose another file
          </Button>
        </div>
      </Pane>
    );
  return (
    <AskAnswer>
      <Ask>
        <h2>{job.file}</h2>
        <Lead>{job.format || 'Reading…'}</Lead>
        {job.titles.length > 0 && <Matching key={job.matching.join()} job={job} onMatched={reload} />}
      </Ask>
      <AnswerPane>
        <ProblemBox error={cancel.error} ways={<Button onPress={stop}>Try to stop again</Button>} />
        {job.state === 'reading' ? (
          <Progress job={job} says="Reading" onStop={stop} />
        ) : job.state === 'applying' ? (
          <Progress job={job} says="Importing" onStop={stop} />
        ) : (
          <Judged job={job} onClose={onClose} onStop={stop} />
        )}
      </AnswerPane>
    </AskAnswer>
  );
}

function Progress({ job, says, onStop }: { job: ImportJob; says: string; onStop: () => void }) {
  const percent = job.total > 0 ? Math.round((100 * job.done) / job.total) : 0;
  return (
    <Going>
      <div role="status">
        <h1>
          {says} {job.total > 0 ? `${job.done} of ${job.total}` : '…'}
        </h1>
      </div>
      <Bar role="progressbar" aria-label={says} aria-valuenow={percent}>
        <i style={{ width: `${percent}%` }} />
      </Bar>
      <Button onPress={onStop}>Stop; nothing is imported</Button>
    </Going>
  );
}

/** Which column of the file is which of ours. */
function Matching({ job, onMatched }: { job: ImportJob; onMatched: () => void }) {
  const [matching, setMatching] = useState(job.matching);
  const [sign, setSign] = useState<ImportJob['decimalSign'] | null>(null);
  const [error, setError] = useState<unknown>(null);
  const { columns, hasFields } = fileKinds[job.kind];
  const change = (next: (string | null)[], nextSign: ImportJob['decimalSign'] | null) => {
    setMatching(next);
    setSign(nextSign);
    setError(null);
    ask('matchColumns', { params: { id: job.id }, body: { matching: next, decimalSign: nextSign } }).then(
      onMatched,
      setError,
    );
  };
  return (
    <Columns>
      {job.missing.length > 0 && (
        <Late>
          No column is read as {job.missing.join(', ')}. Rows that are new need{' '}
          {job.missing.length === 1 ? 'it' : 'them'}.
        </Late>
      )}
      <ProblemBox error={error} />
      {job.titles.map((title, index) => (
        // Titles may be empty or there twice; columns keep their places.
        // biome-ignore lint/suspicious/noArrayIndexKey: see above
        <div key={`${index}.${title}`}>
          <Choice
            label={`“${title || `column ${index + 1}`}” is read as`}
            value={matching[index] ?? ''}
            onChange={(key) =>
              change(
                matching.map((one, at) => (at === index ? key || null : one)),
                sign,
              )
            }
            options={[
              ['', 'left out'],
              ...columns.map((column) => [column.key, column.title] as const),
              ...(hasFields && title
                ? [
                    [
                      FIELD_PREFIX + title.replace(/^field:\s*/i, ''),
                      `a custom field: ${title.replace(/^field:\s*/i, '')}`,
                    ] as const,
                  ]
                : []),
            ]}
          />
          <Faint>
            {job.sample
              .map((row) => row[index])
              .filter(Boolean)
              .slice(0, 3)
              .join(' · ') || 'empty'}
          </Faint>
        </div>
      ))}
      <Choice
        label="Amounts are written"
        value={sign ?? job.decimalSign}
        onChange={(value) => change([...matching], value as ImportJob['decimalSign'])}
        options={[
          ['point', 'with a decimal point: 1,234.50'],
          ['comma', 'with a decimal comma: 1.234,50'],
        ]}
      />
    </Columns>
  );
}

function Judged({ job, onClose, onStop }: { job: ImportJob; onClose: () => void; onStop: () => void }) {
  const notify = useNotify();
  const { counts } = job;
  const [fate, setFate] = useState<Fate | null>(counts.refused > 0 ? 'refused' : null);
  const apply = useCommand('applyImport', (done) => {
    notify({
      text: `${count(done.new, 'record')} added, ${done.changed} changed.`,
      ...(done.documentId === null ? {} : { documentId: done.documentId }),
    });
  });
  // What was refused before another check may be fine after it.
  useEffect(() => setFate(job.counts.refused > 0 ? 'refused' : null), [job.counts.refused]);
  const pages = usePages(
    'importRows',
    { fate: fate ?? undefined, limit: 200 },
    { params: { id: job.id }, step: job.step },
  );
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const todo = counts.new + counts.changed;
  const done = job.state === 'done';
  return (
    <>
      <Head>
        <h1>{conclusion(job)}</h1>
        {!done && (
          <Row $gap={6} $wrap role="group" aria-label="Show rows">
            <Button look={fate === null ? 'plain' : 'ghost'} aria-pressed={fate === null} onPress={() => setFate(null)}>
              All {counts.new + counts.changed + counts.same + counts.refused}
            </Button>
            {order.map((one) => (
              <Button
                key={one}
                look={fate === one ? 'plain' : 'ghost'}
                aria-pressed={fate === one}
                isDisabled={counts[one] === 0}
                onPress={() => setFate(one)}
              >
                <span aria-hidden>{fates[one].sign}</span> {counts[one]} {fates[one].word}
              </Button>
            ))}
          </Row>
        )}
        <ProblemBox error={apply.error} />
      </Head>
      {!done && (
        <Endless rows={rows} pages={pages} rowHeight={46} mayGrow keyOf={(row) => row.row} label="Rows of the file">
          {(row) => <Judgement row={row} />}
        </Endless>
      )}
      <Foot>
        {done ? (
          <>
            <LinkButton look="go" to={doneAt[job.kind]}>
              See the records
            </LinkButton>
            <Button onPress={onClose}>Choose another file</Button>
          </>
        ) : (
          <>
            <Button
              look="go"
              busy={apply.isPending}
              isDisabled={counts.refused > 0 || (todo === 0 && problemOf(apply.error) === null)}
              onPress={() => apply.mutate({ params: { id: job.id }, body: {} })}
            >
              Import {count(todo, 'row')}
            </Button>
            <Button look="ghost" onPress={onStop}>
              Cancel; nothing is imported
            </Button>
            {counts.refused > 0 && (
              <Muted>
                Nothing is imported until every row is accepted. Correct the refused rows in the file, or match its
                columns differently.
              </Muted>
            )}
          </>
        )}
      </Foot>
    </>
  );
}

function conclusion({ state, counts }: ImportJob): string {
  if (state === 'done')
    return `Import finished: ${count(counts.new, 'row')} new, ${counts.changed} changed, ${counts.same} the same as before.`;
  if (counts.refused > 0) return `${count(counts.refused, 'row')} can’t be imported.`;
  if (counts.new + counts.changed === 0) return 'The file holds nothing new; nothing would change.';
  return `${counts.new} new, ${counts.changed} changed, ${counts.same} the same. Nothing is refused.`;
}

function Judgement({ row }: { row: ImportRow }) {
  const { sign, word, colour } = fates[row.fate];
  const said = row.faults.map(({ column, reason }) => (column ? `${column}: ${reason}` : reason)).join(' ');
  return (
    <Line>
      <Faint>row {row.row}</Faint>
      <Outcome $colour={colour}>
        <span aria-hidden>{sign}</span> {word}
      </Outcome>
      <span>{row.subject}</span>
      <span>
        {row.fate === 'refused'
          ? said || 'Another row of the same product is refused.'
          : row.changes.length > 0 && `changes ${row.changes.join(', ')}`}
      </span>
    </Line>
  );
}
