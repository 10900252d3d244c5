import { api } from '@yosegi/contract';
import styled from 'styled-components';
import { useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { useRecordForm } from '../ui/useRecordForm.ts';

export const Inline = styled.form`display: grid; grid-template-columns: 1fr 1fr auto; gap: 8px; align-items: end; margin-top: 10px;`;

const SHOWN = ['code', 'name'];

/** A store that is added; its bins follow on its sheet. */
export function NewStore() {
  const notify = useNotify();
  const create = useCommand(
    'createStore',
    (store) => {
      notify({ text: `${store.name} added. Add its bins next.` });
      form.takeTheirs();
    },
    () => form.saved({ version: 0 }),
  );
  const form = useRecordForm({
    record: null,
    read: () => ({ code: '', name: '' }),
    bodyOf: (typed) => typed,
    schema: api.createStore.body,
    keptAs: 'store.new',
    name: 'the new store',
    shownAt: SHOWN,
    command: create,
  });
  return (
    <Inline onSubmit={form.submit((body) => create.mutate({ body }))}>
      <Field label="Code" {...form.field('code')} />
      <Field label="Name" {...form.field('name')} />
      <Button type="submit" isDisabled={!form.dirty} busy={create.isPending}>
        Add
      </Button>
      <ProblemBox error={create.error} shownAt={SHOWN} />
    </Inline>
  );
}
