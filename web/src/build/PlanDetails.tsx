import type { BuildDetail } from '@yosegi/contract';
import { useState } from 'react';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice, Field, TextArea } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Form, KeyValue } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { shelfOptions } from '../ui/shelves.ts';

/** Quantity, due day, output bin and remark: to change while planned, to read afterwards. */
export function PlanDetails({ build }: { build: BuildDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const stores = useQuestion('stores', {});
  const [typed, setTyped] = useState({
    quantity: build.quantity,
    due: build.due ?? '',
    outputBinId: String(build.outputBinId),
    remark: build.remark,
  });
  const change = useCommand('updateBuild', (after) => notify({ text: `${after.number} is changed.` }));
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
  const dirty =
    typed.quantity !== build.quantity ||
    typed.due !== (build.due ?? '') ||
    typed.outputBinId !== String(build.outputBinId) ||
    typed.remark !== build.remark;
  return (
    <Form
      $columns={1}
      onSubmit={(event) => {
        event.preventDefault();
        const { quantity, due, outputBinId, remark } = typed;
        change.mutate({
          params: { id: build.id },
          body: { quantity, due: due || null, outputBinId: Number(outputBinId), remark, version: build.version },
        });
      }}
    >
      <Field
        label="Quantity"
        numeric
        value={typed.quantity}
        suffix={build.unit}
        onChange={(quantity) => setTyped({ ...typed, quantity })}
        error={problemAt(change.error, 'quantity')}
      />
      <Field
        label="Due day"
        type="date"
        value={typed.due}
        onChange={(due) => setTyped({ ...typed, due })}
        error={problemAt(change.error, 'due')}
      />
      <Choice
        label="Goes to bin"
        value={typed.outputBinId}
        onChange={(outputBinId) => setTyped({ ...typed, outputBinId })}
        options={shelfOptions(stores.data ?? [])}
      />
      <TextArea
        label="Remark"
        value={typed.remark}
        onChange={(remark) => setTyped({ ...typed, remark })}
        error={problemAt(change.error, 'remark')}
      />
      <ProblemBox error={change.error} shownAt={['quantity', 'due', 'remark']} />
      <Button type="submit" isDisabled={!dirty} busy={change.isPending}>
        Keep the changes
      </Button>
    </Form>
  );
}
