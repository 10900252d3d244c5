import type { RunDetail } from '@yosegi/contract';
import { useNavigate } from 'react-router';
import { problemOf, useCommand } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { Part } from '../ui/space.ts';
import { Missing } from './Missing.tsx';
import { Card, Says } from './phoneLook.ts';
import { walkedWords } from './words.ts';

/** No stop is left for this person: all is picked, or others are at the rest. */
export function RunOver({ run, left, isWaiting }: { run: RunDetail; left: number; isWaiting: boolean }) {
  const end = useEndRun(run);
  const others = [...new Set(run.claims.map(({ person }) => person))].join(' and ');
  const problem = problemOf(end.error);
  return (
    <Card>
      <h2>
        {left > 0
          ? `${others || 'Someone'} ${run.claims.length > 1 ? 'are' : 'is'} picking the rest.`
          : run.missing.length > 0
            ? 'Everything available is picked.'
            : 'Everything is picked.'}
      </h2>
      <Says as="p" $left>
        {count(run.walked.stops, 'stop')} and {count(run.walked.lines, 'line')}
        {walkedWords(run.walked)}. {left > 0 && 'A stop left for ten minutes comes back to you.'}
      </Says>
      <Missing run={run} />
      {run.goals
        .filter(({ over }) => over === null)
        .map((goal) => (
          <LinkButton
            key={`${goal.kind}:${goal.id}`}
            to={goal.kind === 'build' ? `/build/${goal.id}/finish` : `/orders/${goal.id}?ship=1`}
          >
            {goal.kind === 'build' ? `Finish ${goal.number}` : `Ship ${goal.number}`}
          </LinkButton>
        ))}
      <Part $grow />
      {problem && <Says role="alert">{problem.detail}</Says>}
      <Button look="go" busy={end.isPending} isDisabled={isWaiting} onPress={end.go}>
        End the run
      </Button>
    </Card>
  );
}

/** Ends a run and goes back to what is to be picked. */
export function useEndRun(run: Pick<RunDetail, 'id' | 'number' | 'version'>) {
  const navigate = useNavigate();
  const notify = useNotify();
  const end = useCommand('endRun', () => {
    notify({ text: `${run.number} has ended.` });
    void navigate('/pick');
  });
  return {
    error: end.error,
    isPending: end.isPending,
    go: () => end.mutate({ params: { id: run.id }, body: { version: run.version } }),
  };
}
