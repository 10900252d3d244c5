import { api, type BuildDetail } from '@yosegi/contract';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Form, KeyValue } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { SaveProblem } from '../ui/Problem.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Para } from '../ui/space.ts';
import { TextArea } from '../ui/TextArea.tsx';
import { useRecordForm } from '../ui/useRecordForm.ts';

const readBuild = (build: BuildDetail | null) => ({
  quantity: build?.quantity ?? '',
  due: build?.due ?? '',
  outputBinId: String(build?.outputBinId ?? ''),
  remark: build?.remark ?? '',
});

type Typed = ReturnType<typeof readBuild>;
const ASKED = api.updateBuild.body.omit({ version: true });
const SHOWN = ['quantity', 'due', 'outputBinId', 'remark'];

const bodyOf = ({ quantity, due, outputBinId, remark }: Typed) => ({
  quantity,
  due: due || null,
  outputBinId: Number(outputBinId),
  remark,
});

/** Quantity, due day, output bin and remark: to change while planned, to read afterwards. */
export function PlanDetails({ build }: { build: BuildDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const stores = useQuestion('stores', {});
  const change = useCommand(
    'updateBuild',
    (after) => notify({ text: `${after.number} changed.` }),
    (after) => form.saved(after),
  );
  const form = useRecordForm({
    record: build,
    read: readBuild,
    bodyOf,
    schema: ASKED,
    keptAs: `build.${build.id}`,
    name: build.number,
    shownAt: SHOWN,
    command: change,
  });
  if (build.state !== 'planned') {
    return (
      <>
        <KeyValue>
          <span>Finished</span>
          <b>
            {format.number(build.finished)} of {format.number(build.quantity)}
            {Number(build.rejected) > 0 && `, ${format.number(build.rejected)} rejected`}
          </b>
        </KeyValue>
        <KeyValue>
          <span>Finished goods bin</span>
          <b>{build.outputBin}</b>
        </KeyValue>
        {build.remark && <Para $top={8}>{build.remark}</Para>}
      </>
    );
  }
  return (
    <Form
      $columns={1}
      onSubmit={form.submit((body) =>
        change.mutate({ params: { id: build.id }, body: { ...body, version: form.version } }),
      )}
    >
      <Field label="Quantity" numeric suffix={build.unit} {...form.field('quantity')} />
      <DayField label="Due day" {...form.field('due')} />
      <Choice label="Finished goods bin" {...form.field('outputBinId')} options={shelfOptions(stores.data ?? [])} />
      <TextArea label="Remark" {...form.field('remark')} />
      <SaveProblem
        command={change}
        over={form}
        theirs={[
          format.quantity(build.quantity, build.unit),
          build.due && format.day(build.due),
          build.outputBin,
          build.remark,
        ]
          .filter(Boolean)
          .join(', ')}
        shownAt={SHOWN}
      />
      <Button type="submit" isDisabled={!form.dirty} busy={change.isPending}>
        Save
      </Button>
    </Form>
  );
}
