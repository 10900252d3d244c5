import { useNavigate } from 'react-router';
import { problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { Answer } from '../ui/States.tsx';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import type { PickJob } from './job.ts';
import { Bottom, Card, Page, Says, Top, What } from './phoneLook.ts';

/** One build or order on a phone: picked on a run of its own, or on the one that serves it already. */
export function StartRun({ job }: { job: PickJob }) {
  const navigate = useNavigate();
  const plan = useQuestion('pickPlan', {});
  const make = useCommand('makeRun', ({ id }) => void navigate(`/pick/runs/${id}`, { replace: true }));
  const problem = problemOf(make.error);
  const left = job.lines.length;
  return (
    <Page>
      <Top>
        <div>
          <h1>
            {job.kind === 'build' ? 'Build' : 'Order'} {job.number}
          </h1>
          <small>
            {job.picked} of {count(job.of, 'line')} picked
          </small>
        </div>
        <LinkButton look="ghost" to="/pick">
          All
        </LinkButton>
      </Top>
      <Card>
        <h2>{left === 0 ? 'Everything is picked.' : `${count(left, 'line')} to pick.`}</h2>
        <What>
          <Tile code={job.tile} size={56} />
          <b>{job.what}</b>
        </What>
        {left === 0 && (
          <Says as="p" $left>
            All of {job.number} is {job.place}.
          </Says>
        )}
        {problem && <Says role="alert">{problem.detail}</Says>}
        <Part $grow />
        {left === 0 ? (
          <LinkButton look="go" to={job.next.to}>
            {job.next.says}
          </LinkButton>
        ) : (
          <Answer of={plan}>
            {({ runs }) => {
              const run = runs.find(({ goals }) => goals.some(({ kind, id }) => kind === job.kind && id === job.id));
              return run ? (
                <LinkButton look="go" to={`/pick/runs/${run.id}`}>
                  Go on with {run.number}
                </LinkButton>
              ) : (
                <Button
                  look="go"
                  busy={make.isPending}
                  onPress={() => make.mutate({ body: { goals: [{ kind: job.kind, id: job.id }] } })}
                >
                  Start picking
                </Button>
              );
            }}
          </Answer>
        )}
      </Card>
      <Bottom />
    </Page>
  );
}
