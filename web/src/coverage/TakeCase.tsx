import type { Change } from '@yosegi/core/coverage';
import { useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { Foot } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Muted, Push } from '../ui/text.ts';
import type { Names } from './useNames.ts';

interface Props {
  readonly changes: readonly Change[];
  readonly names: Names;
  readonly onTaken: () => void;
}

/** Turns a case into what it consists of: the days of orders that suppliers bring. */
export function TakeCase({ changes, onTaken }: Props) {
  const notify = useNotify();
  const mayTake = useCan('buy');
  const days = changes.flatMap((one) =>
    one.what === 'day' && one.kind === 'purchase' && one.on ? [{ lineId: one.id, on: one.on }] : [],
  );
  const rest = changes.length - days.length;
  const back = useCommand('expectOn');
  const take = useCommand('expectOn', ({ before }) => {
    notify({
      text: `${count(before.length, 'delivery', 'deliveries')} expected on another day.`,
      undo: () => back.mutate({ body: { lines: before } }),
    });
    onTaken();
  });
  return (
    <div>
      <ProblemBox error={take.error} />
      <Foot>
        <Muted>
          {changes.length === 0
            ? 'Drag what comes to another day, or say what is otherwise.'
            : days.length === 0
              ? 'This case has nothing that could be taken over: a count or a purchase says it for good.'
              : `Taking it expects ${count(days.length, 'delivery', 'deliveries')} on the day of this case${rest > 0 ? '; the rest of it stays a case' : ''}.`}
        </Muted>
        <Push />
        {changes.some(({ what }) => what === 'missing') && <LinkButton to="/stock/counts">Count it</LinkButton>}
        <Button
          look="go"
          isDisabled={!mayTake || days.length === 0}
          busy={take.isPending}
          onPress={() => take.mutate({ body: { lines: days } })}
        >
          Take it
        </Button>
      </Foot>
    </div>
  );
}
