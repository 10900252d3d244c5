import { useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Section } from '../ui/space.ts';
import { Faint, Push, Row } from '../ui/text.ts';
import { When } from '../ui/When.tsx';

/** That an order or a build goes before all others or waits for them, who said so and why; nothing where it is in turn. */
export function TurnOf({ kind, id }: { kind: 'order' | 'build'; id: number }) {
  const notify = useNotify();
  const mayTake = useCan('plan');
  const set = useQuestion('priorities', {}).data?.find((one) => one.kind === kind && one.id === id);
  const back = useCommand('setPriorities');
  const clear = useCommand('setPriorities', ({ before }) =>
    notify({ text: 'Parts are allocated in turn again.', undo: () => back.mutate({ body: { lines: before } }) }),
  );
  if (!set) return back.error ? <ProblemBox error={back.error} /> : null;
  return (
    <Section $top={16} aria-label="When it gets its parts">
      <ProblemBox error={clear.error ?? back.error} />
      <Row $gap={10} $wrap>
        <span>
          <b>{set.rank === -1 ? 'Gets its parts before all others.' : 'Gets its parts after all others.'}</b>{' '}
          {set.reason}{' '}
          <Faint>
            {set.by}, <When at={set.at} />
          </Faint>
        </span>
        <Push />
        <Button
          isDisabled={!mayTake}
          busy={clear.isPending}
          onPress={() => clear.mutate({ body: { lines: [{ kind, id, was: set.rank, rank: null, reason: '' }] } })}
        >
          Allocate in turn again
        </Button>
      </Row>
    </Section>
  );
}
