import { api } from '@yosegi/contract';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { useRecordForm } from '../ui/useRecordForm.ts';
import { Inline } from './NewStore.tsx';

/** What an hour of work costs, by the kind of work. */
export function Rates({ maySetUp }: { maySetUp: boolean }) {
  const format = useFormat();
  const rates = useQuestion('rates', {});
  return (
    <Answer of={rates}>
      {(rows) => (
        <>
          {rows.map((rate) => (
            <KeyValue key={rate.id}>
              <span>{rate.name}</span>
              <b>{format.money(rate.perHour)} an hour</b>
            </KeyValue>
          ))}
          {maySetUp && <NewRate />}
        </>
      )}
    </Answer>
  );
}

const SHOWN = ['name', 'perHour'];

function NewRate() {
  const create = useCommand(
    'createRate',
    () => form.takeTheirs(),
    () => form.saved({ version: 0 }),
  );
  const form = useRecordForm({
    record: null,
    read: () => ({ name: '', perHour: '' }),
    bodyOf: ({ name, perHour }) => ({ name, perHour: perHour.trim() }),
    schema: api.createRate.body,
    keptAs: 'rate.new',
    name: 'the new labour rate',
    shownAt: SHOWN,
    command: create,
  });
  return (
    <Inline onSubmit={form.submit((body) => create.mutate({ body }))}>
      <Field label="New rate" {...form.field('name')} />
      <Field label="Per hour" numeric {...form.field('perHour')} />
      <Button type="submit" isDisabled={!form.dirty} busy={create.isPending}>
        Add
      </Button>
      <ProblemBox error={create.error} shownAt={SHOWN} />
    </Inline>
  );
}
