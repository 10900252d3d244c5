import type { BuildDetail } from '@yosegi/contract';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Form, KeyValue } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { SaveProblem } from '../ui/Problem.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { TextArea } from '../ui/TextArea.tsx';
import { useTypedOver } from '../ui/useTypedOver.ts';

const readBuild = (build: BuildDetail | null) => ({
  quantity: build?.quantity ?? '',
  due: build?.due ?? '',
  outputBinId: String(build?.outputBinId ?? ''),
  remark: build?.remark ?? '',
});

/** Quantity, due day, output bin and remark: to change while planned, to read afterwards. */
export function PlanDetails({ build }: { build: BuildDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const stores = useQuestion('stores', {});
  const over = useTypedOver(build, readBuild);
  const { typed } = over;
  const change = useCommand('updateBuild', (after) => {
    notify({ text: `${after.number} is changed.` });
    over.saved(after);
  });
  if (build.state !== 'planned') {
    return (
      <>
        <KeyValue>
          <span>Finished</span>
          <b>
            {format.number(build.finished)} of {format.number(build.quantity)}
          </b>
        </KeyValue>
        <KeyValue>
          <span>Goes to bin</span>
          <b>{build.outputBin}</b>
        </KeyValue>
        {build.remark && <p style={{ marginTop: 8 }}>{build.remark}</p>}
      </>
    );
  }
  return (
    <Form
      $columns={1}
      onSubmit={(event) => {
        event.preventDefault();
        const { quantity, due, outputBinId, remark } = typed;
        change.mutate({
          params: { id: build.id },
          body: { quantity, due: due || null, outputBinId: Number(outputBinId), remark, version: over.version },
        });
      }}
    >
      <Field
        label="Quantity"
        numeric
        value={typed.quantity}
        suffix={build.unit}
        onChange={(quantity) => over.set({ quantity })}
        error={problemAt(change.error, 'quantity')}
      />
      <DayField
        label="Due day"
        value={typed.due}
        onChange={(due) => over.set({ due })}
        error={problemAt(change.error, 'due')}
      />
      <Choice
        label="Goes to bin"
        value={typed.outputBinId}
        onChange={(outputBinId) => over.set({ outputBinId })}
        options={shelfOptions(stores.data ?? [])}
      />
      <TextArea
        label="Remark"
        value={typed.remark}
        onChange={(remark) => over.set({ remark })}
        error={problemAt(change.error, 'remark')}
      />
      <SaveProblem
        command={change}
        over={over}
        theirs={[
          format.quantity(build.quantity, build.unit),
          build.due && format.day(build.due),
          build.outputBin,
          build.remark,
        ]
          .filter(Boolean)
          .join(', ')}
        shownAt={['quantity', 'due', 'remark']}
      />
      <Button type="submit" isDisabled={!over.dirty} busy={change.isPending}>
        Keep the changes
      </Button>
    </Form>
  );
}
