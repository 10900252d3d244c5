import type { Task } from '@yosegi/contract';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { type TypedScreen, useTyped } from '../ui/useTypedScreen.ts';

/** Who does a task, and by when, right where it is shown. */
export function WhoForm({ task, screen, onDone }: { task: Task; screen: TypedScreen; onDone: () => void }) {
  const people = useQuestion('people', {}).data ?? [];
  const [personId, setPersonId] = useTyped(screen, 'personId', String(task.personId ?? ''));
  const [due, setDue] = useTyped(screen, 'due', task.ownDue ?? '');
  const change = useCommand('changeTasks', onDone);
  const at = (name: string) => problemAt(change.error, `change.${name}`);
  return (
    <>
      <Row $gap={6} $end $wrap $top={4}>
        <Part $width={200}>
          <Choice
            label="Person"
            value={personId}
            onChange={setPersonId}
            options={[['', 'unassigned'], ...people.map(({ id, name }): [string, string] => [String(id), name])]}
            error={at('personId')}
          />
        </Part>
        <Part $width={160}>
          <DayField label="Due, if not with the build" value={due} onChange={setDue} error={at('due')} />
        </Part>
        <Button
          busy={change.isPending}
          onPress={() =>
            change.mutate({
              body: {
                tasks: [{ id: task.id, version: task.version }],
                change: { personId: Number(personId) || null, due: due || null },
              },
            })
          }
        >
          Save
        </Button>
        <Button look="ghost" onPress={onDone}>
          Cancel
        </Button>
      </Row>
      <ProblemBox error={change.error} shownAt={['change.personId', 'change.due']} />
    </>
  );
}
