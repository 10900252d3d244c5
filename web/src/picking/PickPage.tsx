import type { GoalRow } from '@yosegi/contract';
import { useParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { standingWords } from '../orders/index.ts';
import { LinkButton } from '../ui/Button.tsx';
import { later } from '../ui/later.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { useNarrow } from '../ui/useNarrow.ts';
import { jobOfBuild, jobOfOrder, type PickJob } from './job.ts';
import { PickPlan } from './PickPlan.tsx';
import { StartRun } from './StartRun.tsx';

const PickTable = later(() => import('./PickTable.tsx'), 'PickTable');

/** What is to be picked, and picking it: a table at the desk, a run on a phone. */
export function PickPage() {
  const { id } = useParams();
  return id ? <PickBuild id={Number(id)} /> : <PickPlan />;
}

/** The same for an order, into its parcel. */
export function PickOrderPage() {
  const { id } = useParams();
  return <PickOrder id={Number(id)} />;
}

const WAY = <LinkButton to="/pick">See what to pick</LinkButton>;

function Picking({ job }: { job: PickJob }) {
  const isPhone = useNarrow(700);
  const stores = useQuestion('stores', {});
  if (isPhone) return <StartRun job={job} />;
  return <Answer of={stores}>{(places) => <PickTable job={job} stores={places} />}</Answer>;
}

function PickBuild({ id }: { id: GoalRow['id'] }) {
  const build = useQuestion('build', { params: { id } });
  return (
    <Answer of={build} way={WAY}>
      {(data) =>
        data.state === 'on-bench' ? (
          <Picking job={jobOfBuild(data)} />
        ) : (
          <EmptyState
            isPage
            title={`${data.number} is not on the bench`}
            action={<LinkButton to={`/build/${id}`}>Open {data.number}</LinkButton>}
          >
            Parts are picked for a build on the bench; this one is {data.state}.
          </EmptyState>
        )
      }
    </Answer>
  );
}

function PickOrder({ id }: { id: GoalRow['id'] }) {
  const order = useQuestion('order', { params: { id } });
  return (
    <Answer of={order} way={WAY}>
      {(data) =>
        data.standing === 'open' || data.standing === 'partly-shipped' ? (
          <Picking job={jobOfOrder(data)} />
        ) : (
          <EmptyState
            isPage
            title={`Nothing to pick for ${data.number}`}
            action={<LinkButton to={`/orders/${id}`}>Open {data.number}</LinkButton>}
          >
            Goods are picked for a confirmed order; this one is {standingWords[data.standing]}.
          </EmptyState>
        )
      }
    </Answer>
  );
}
