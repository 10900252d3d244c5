import { useState } from 'react';
import styled from 'styled-components';
import { problemAt, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';

export const Inline = styled.form`display: grid; grid-template-columns: 1fr 1fr auto; gap: 8px; align-items: end; margin-top: 10px;`;

/** A store that is added; its bins follow on its sheet. */
export function NewStore() {
  const notify = useNotify();
  const [code, setCode] = useState('');
  const [name, setName] = useState('');
  const create = useCommand('createStore', (store) => {
    notify({ text: `${store.name} is added. Give it bins.` });
    setCode('');
    setName('');
  });
  return (
    <Inline
      onSubmit={(event) => {
        event.preventDefault();
        create.mutate({ body: { code, name } });
      }}
    >
      <Field label="Code" value={code} onChange={setCode} error={problemAt(create.error, 'code')} />
      <Field label="Name" value={name} onChange={setName} error={problemAt(create.error, 'name')} />
      <Button type="submit" isDisabled={code.trim() === '' || name.trim() === ''} busy={create.isPending}>
        Add
      </Button>
      <ProblemBox error={create.error} shownAt={['code', 'name']} />
    </Inline>
  );
}
