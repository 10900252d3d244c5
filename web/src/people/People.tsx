import { type Worker, WorkerInput } from '@yosegi/contract';
import { initialsOf } from '@yosegi/core/people';
import { useState } from 'react';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { useNotify } from '../ui/Notice.ts';
import { SaveProblem } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Tick } from '../ui/Tick.tsx';
import { useRecordForm } from '../ui/useRecordForm.ts';

const Line = styled.form`
  display: grid; grid-template-columns: minmax(0, 2fr) 74px minmax(0, 1.3fr) 112px 62px; gap: 8px; align-items: center; padding: 4px 0;
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr) 74px; padding: 10px 0; border-bottom: 1px solid var(--line-soft); }
`;
const Whole = styled.div`grid-column: 1 / -1; &:empty { display: none; }`;

/** Everyone who works here: what they are called, what they may do, and whether they may sign in. */
export function People() {
  const workers = useQuestion('workers', {});
  const [added, setAdded] = useState(0);
  return (
    <Answer of={workers}>
      {(rows) => (
        <>
          {rows.map((worker) => (
            <WorkerForm key={worker.id} worker={worker} />
          ))}
          <WorkerForm key={`new ${added}`} worker={null} onAdded={() => setAdded(added + 1)} />
        </>
      )}
    </Answer>
  );
}

const readWorker = (worker: Worker | null) => ({
  name: worker?.name ?? '',
  initials: worker?.initials ?? '',
  role: worker?.role ?? ('bench' as const),
  active: worker?.active ?? true,
});
type Typed = ReturnType<typeof readWorker>;
const SHOWN = ['name', 'initials', 'role', 'active'];
const bodyOf = (typed: Typed) => ({ ...typed, initials: typed.initials.trim() || initialsOf(typed.name) });

function WorkerForm({ worker, onAdded }: { worker: Worker | null; onAdded?: () => void }) {
  const notify = useNotify();
  const done = (saved: Worker) => {
    notify({ text: `${saved.name} saved.` });
    onAdded?.();
  };
  const saved = (one: Worker) => form.saved(one);
  const create = useCommand('createWorker', done, saved);
  const update = useCommand('updateWorker', done, saved);
  const command = worker ? update : create;
  const form = useRecordForm({
    record: worker,
    read: readWorker,
    bodyOf,
    schema: WorkerInput,
    keptAs: worker ? `worker.${worker.id}` : 'worker',
    name: worker ? worker.name : 'the new person',
    shownAt: SHOWN,
    command,
  });
  const who = worker?.name ?? 'a new person';
  return (
    <Line
      onSubmit={form.submit((body) =>
        worker
          ? update.mutate({ params: { id: worker.id }, body: { ...body, version: form.version } })
          : create.mutate({ body }),
      )}
    >
      <Field label={`Name of ${who}`} hideLabel placeholder="Add person" {...form.field('name')} />
      <Field
        label={`Initials of ${who}`}
        hideLabel
        placeholder={initialsOf(form.typed.name) || 'AB'}
        {...form.field('initials')}
      />
      <Choice
        label={`What ${who} may do`}
        hideLabel
        {...form.field('role')}
        options={[
          ['owner', 'owner: everything'],
          ['bench', 'builder: builds, picks and counts'],
        ]}
      />
      {worker ? (
        <Tick isOn={form.typed.active} onChange={(active) => form.set({ active })}>
          active
        </Tick>
      ) : (
        <span />
      )}
      <Button
        type="submit"
        isDisabled={!form.dirty}
        busy={command.isPending}
        aria-label={`${worker ? 'Save' : 'Add'} ${who}`}
      >
        {worker ? 'Save' : 'Add'}
      </Button>
      <Whole>
        {form.at('active')}
        <SaveProblem
          command={command}
          over={form}
          theirs={`${worker?.name}, ${worker?.initials}, ${worker?.role}`}
          shownAt={SHOWN}
        />
      </Whole>
    </Line>
  );
}
