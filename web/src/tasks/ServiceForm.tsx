import type { Task } from '@yosegi/contract';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { type TypedScreen, useTyped } from '../ui/useTypedScreen.ts';

/** Who does a service elsewhere, when it comes back, and what it costs. */
export function ServiceForm({ task, screen, onDone }: { task: Task; screen: TypedScreen; onDone: () => void }) {
  const suppliers = useQuestion('suppliers', {}).data ?? [];
  const [supplierId, setSupplierId] = useTyped(screen, 'supplierId', String(task.supplierId ?? ''));
  const [expectedOn, setExpectedOn] = useTyped(screen, 'expectedOn', task.expectedOn ?? '');
  const [price, setPrice] = useTyped(screen, 'price', task.price ?? '');
  const change = useCommand('changeTasks', onDone);
  const at = (name: string) => problemAt(change.error, `change.${name}`);
  const keep = () =>
    change.mutate({
      body: {
        tasks: [{ id: task.id, version: task.version }],
        change: {
          supplierId: Number(supplierId) || null,
          expectedOn: expectedOn || null,
          price: price.trim() === '' ? null : price.trim(),
        },
      },
    });
  return (
    <>
      <Row $gap={6} $end $wrap $top={4}>
        <Part $width={220}>
          <Choice
            label="Person"
            value={supplierId}
            onChange={setSupplierId}
            options={[['', 'unassigned'], ...suppliers.map(({ id, name }): [string, string] => [String(id), name])]}
            error={at('supplierId')}
          />
        </Part>
        <Part $width={160}>
          <DayField label="Back by" value={expectedOn} onChange={setExpectedOn} error={at('expectedOn')} />
        </Part>
        <Part $width={140}>
          <Field
            label="Cost"
            numeric
            placeholder={task.planned}
            value={price}
            onChange={setPrice}
            error={at('price')}
          />
        </Part>
        <Button busy={change.isPending} onPress={keep}>
          Save
        </Button>
        <Button look="ghost" onPress={onDone}>
          Cancel
        </Button>
      </Row>
      <ProblemBox error={change.error} shownAt={['change.supplierId', 'change.expectedOn', 'change.price']} />
    </>
  );
}
