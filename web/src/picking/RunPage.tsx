import type { RunDetail } from '@yosegi/contract';
import { useParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { usePerson } from '../api/person.ts';
import { LinkButton } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { useNarrow } from '../ui/useNarrow.ts';
import { usePickQueue } from './pickQueue.ts';
import { walkedWords } from './words.ts';

const RunPhone = later(() => import('./RunPhone.tsx'), 'RunPhone');
const RunTable = later(() => import('./RunTable.tsx'), 'RunTable');

/** One run: a table at the desk, one thing at a time on a phone. */
export function RunPage() {
  const { id } = useParams();
  const run = useQuestion('pickRun', { params: { id: Number(id) } });
  const isPhone = useNarrow(700);
  return (
    <Answer of={run} way={<LinkButton to="/pick">See what to pick</LinkButton>}>
      {(data) => <Walking key={data.id} run={data} isPhone={isPhone} />}
    </Answer>
  );
}

function Walking({ run, isPhone }: { run: RunDetail; isPhone: boolean }) {
  const person = usePerson();
  const queue = usePickQueue(person?.id ?? 0);
  const stores = useQuestion('stores', {});
  const own = queue.entries.filter(({ runId }) => runId === run.id);
  if (run.endedAt !== null && own.length === 0) {
    const { stops, lines } = run.walked;
    return (
      <EmptyState
        isPage
        title={`${run.number} has ended`}
        action={<LinkButton to="/pick">See what to pick</LinkButton>}
      >
        {stops === 0
          ? 'Nothing was picked on this run.'
          : `${count(stops, 'stop')} and ${count(lines, 'line')} were picked${walkedWords(run.walked)}.`}
      </EmptyState>
    );
  }
  return (
    <Answer of={stores}>
      {(places) => {
        const props = {
          run,
          stores: places,
          queue: own,
          isCutOff: queue.cutOff,
          isFull: queue.isFull && own.length > 0,
        };
        return isPhone ? <RunPhone {...props} /> : <RunTable {...props} />;
      }}
    </Answer>
  );
}
