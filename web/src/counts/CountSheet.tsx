import type { CountDetail } from '@yosegi/contract';
import { formatDecimal, readForText, sumForText } from '@yosegi/core/number';
import { Link } from 'react-router';
import { problemOf, useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Refusal } from '../lines/Refusal.tsx';
import { AskFirst } from '../ui/AskFirst.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { count, useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane, Foot } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Faint, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { BlindSheet } from './BlindSheet.tsx';
import { CountDifferences } from './CountDifferences.tsx';

/** One count: the blind sheet while it is open, then what differed. */
export function CountSheet({ id }: { id: number }) {
  const data = useQuestion('count', { params: { id } });
  return <Answer of={data}>{(detail) => <Sheet detail={detail} />}</Answer>;
}

function Sheet({ detail }: { detail: CountDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const mayApprove = useCan('approve-count');
  const [view, setView] = useAddress('view');
  const open = detail.state === 'open';
  const differences = view === 'differences' || !open;
  const approve = useCommand('approveCount', (done) =>
    notify({
      text: done.documentId === null ? `${done.number}: everything matched.` : `${done.number} approved.`,
      ...(done.documentId === null ? {} : { documentId: done.documentId }),
    }),
  );
  const cancel = useCommand('cancelCount', () => notify({ text: `${detail.number} cancelled. Nothing was posted.` }));
  const off = detail.sheet.filter(
    (line) => (line.difference ?? '0') !== '0' || line.missing.length + line.found.length > 0,
  );
  const total = sumForText(off.map((line) => readForText(line.value ?? '0')));
  const command = { params: { id: detail.id }, body: { version: detail.version } };
  const left = detail.lines - detail.counted;
  const canApprove = open && mayApprove && detail.counted > 0 && !approve.isPending;
  const approveNow = () =>
    approve.mutate(command, {
      // The worth is asked for where what was found is shown.
      onError: (error) => problemOf(error)?.code === 'cost-unknown' && setView('differences'),
    });
  // Not over the sheet, where the line one types in is not counted yet.
  useShortcut('Enter', () => differences && canApprove && approveNow(), { ctrl: true });
  return (
    <AnswerPane>
      <AnswerBody>
        <Row $wrap>
          <div>
            <h1>
              {!open
                ? `${detail.number} is ${detail.state}.`
                : differences
                  ? off.length === 0
                    ? 'No differences so far.'
                    : `${count(off.length, 'line')} differ${off.length === 1 ? 's' : ''}, ${
                        off.some((line) => line.needsCost)
                          ? 'and found stock has no cost yet.'
                          : `${format.money(formatDecimal(total < 0n ? -total : total))} ${total < 0n ? 'less' : 'more'} than in the books.`
                      }`
                  : left === 0
                    ? 'Everything is counted.'
                    : `${count(left, 'line')} to count.`}
            </h1>
            <Lead>
              {detail.number} · {detail.scope}
              {detail.documentId !== null && (
                <>
                  {' · '}
                  <Link to={`/stock/documents/${detail.documentId}`}>document</Link>
                </>
              )}
            </Lead>
          </div>
          <Push />
          {open && (
            <>
              <Button look={differences ? 'ghost' : 'plain'} aria-pressed={!differences} onPress={() => setView('')}>
                Sheet
              </Button>
              <Button
                look={differences ? 'plain' : 'ghost'}
                aria-pressed={differences}
                onPress={() => setView('differences')}
              >
                Differences
              </Button>
              <LinkButton look="ghost" to={`/print/count/${detail.id}`}>
                Print
              </LinkButton>
            </>
          )}
        </Row>
        {differences ? (
          <CountDifferences detail={detail} open={open} refused={approve.error} />
        ) : (
          <BlindSheet detail={detail} />
        )}
        <Refusal error={approve.error}>
          {problemOf(approve.error)?.code === 'stock-short' && (
            <Faint>What was missing has been used since. Count again.</Faint>
          )}
        </Refusal>
        <ProblemBox error={cancel.error} />
      </AnswerBody>
      {open && (
        <Foot>
          <Button
            look="go"
            busy={approve.isPending}
            isDisabled={!mayApprove || detail.counted === 0}
            onPress={approveNow}
          >
            Approve {count(detail.counted, 'line')}
          </Button>
          {detail.counted === 0 ? (
            <Button look="ghost" busy={cancel.isPending} onPress={() => cancel.mutate(command)}>
              Cancel the count
            </Button>
          ) : (
            <AskFirst
              label="Cancel the count…"
              look="ghost"
              title={`Cancel ${detail.number}?`}
              action="Cancel the count"
              keep="Keep the count"
              busy={cancel.isPending}
              onDo={() => cancel.mutate(command)}
            >
              {count(detail.counted, 'counted line')} would be thrown away. Nothing is posted.
            </AskFirst>
          )}
          <Muted>
            {!mayApprove
              ? 'An owner approves it.'
              : left > 0
                ? `${count(left, 'line')} not counted ${left === 1 ? 'stays' : 'stay'} as ${left === 1 ? 'it is' : 'they are'}.`
                : 'Posted as one document, which you can undo.'}
          </Muted>
        </Foot>
      )}
    </AnswerPane>
  );
}
