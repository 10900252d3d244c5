import type { BuildRow } from '@yosegi/contract';
import { LinkButton } from '../ui/Button.tsx';
import { Page } from '../ui/layout.ts';
import { EmptyState } from '../ui/States.tsx';
import { Lead } from '../ui/text.ts';
import { isAsked } from './held.ts';
import { JobLane } from './JobLane.tsx';
import { StartButton } from './StartButton.tsx';

/** The bench as it is: what stands on it and how far, what can follow, and what waits for parts. */
export function Bench({ rows }: { rows: readonly BuildRow[] }) {
  const onBench = rows.filter((row) => row.state === 'on-bench');
  const planned = rows.filter((row) => row.state === 'planned' && !isAsked(row));
  const ready = planned.filter((row) => row.waiting.length === 0);
  const waiting = planned.filter((row) => row.waiting.length > 0);
  return (
    <Page>
      {rows.length === 0 ? (
        <EmptyState isPage title="No open builds" action={<LinkButton to="/cover">See what you can make</LinkButton>}>
          A build turns parts into a product. Plan one here, from its bill of materials or from Cover. Its parts are
          promised from then on.
        </EmptyState>
      ) : (
        <>
          <h1>{conclusion(onBench.length, ready.length, waiting.length)}</h1>
          <Lead>{lateWords(rows.filter((row) => row.late).length)}</Lead>
        </>
      )}
      <JobLane title="On the bench" under="earliest due first" edge="indigo" builds={onBench}>
        {(build) =>
          build.pickedLines < build.pickLines ? (
            <LinkButton to={`/pick/${build.id}`}>Pick its parts</LinkButton>
          ) : build.held.length > 0 ? (
            <LinkButton to={`/build/${build.id}`}>See what’s on hold</LinkButton>
          ) : (
            <LinkButton to={`/build/${build.id}/finish`}>Finish</LinkButton>
          )
        }
      </JobLane>
      <JobLane title="Ready to start" under="every part is free" edge="moss" builds={ready}>
        {(build) => <StartButton build={build} />}
      </JobLane>
      <JobLane title="Short of parts" under="earliest due first" edge="coming" builds={waiting}>
        {(build) =>
          Number(build.canStart) > 0 ? (
            <StartButton build={build} />
          ) : (
            <LinkButton to={`/build/${build.id}`}>See what’s missing</LinkButton>
          )
        }
      </JobLane>
    </Page>
  );
}

function conclusion(onBench: number, ready: number, waiting: number): string {
  const parts = [
    onBench > 0 ? `${onBench} on the bench` : 'Nothing on the bench',
    ready > 0 && `${ready} can start`,
    waiting > 0 && `${waiting} short of parts`,
  ].filter(Boolean);
  return `${parts.join(', ')}.`;
}

function lateWords(late: number): string {
  if (late === 0) return 'None is late.';
  return late === 1 ? '1 is late.' : `${late} are late.`;
}
