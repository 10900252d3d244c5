import { type Unit, UnitInput } from '@yosegi/contract';
import { useState } from 'react';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { KeyValue } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { SaveProblem } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Faint, Muted, Row } from '../ui/text.ts';
import { useRecordForm } from '../ui/useRecordForm.ts';

const Line = styled.form`display: grid; grid-template-columns: 70px 1fr 96px; gap: 6px; align-items: start; padding: 8px 0; border-top: 1px solid var(--line-soft);`;
const Whole = styled.div`grid-column: 1 / -1;`;

/** Stock units, their decimals, and what may be typed instead of them. */
export function UnitsCard({ maySetUp }: { maySetUp: boolean }) {
  const units = useQuestion('units', {});
  const [adding, setAdding] = useState(false);
  return (
    <Answer of={units}>
      {(rows) => (
        <>
          {rows.map((unit) =>
            maySetUp ? (
              <UnitForm key={unit.id} unit={unit} />
            ) : (
              <KeyValue key={unit.id}>
                <span>
                  {unit.code} <Muted>{unit.name}</Muted>
                </span>
                <span>{unit.decimals} decimals</span>
              </KeyValue>
            ),
          )}
          {maySetUp &&
            (adding ? (
              <UnitForm unit={null} onDone={() => setAdding(false)} />
            ) : (
              <Button look="ghost" onPress={() => setAdding(true)}>
                + Unit
              </Button>
            ))}
        </>
      )}
    </Answer>
  );
}

const readUnit = (unit: Unit | null) => ({
  code: unit?.code ?? '',
  name: unit?.name ?? '',
  decimals: String(unit?.decimals ?? 0),
  related: (unit?.related ?? []).map((one) => `${one.name} = ${one.one}`).join('; '),
});

type Typed = ReturnType<typeof readUnit>;
const SHOWN = ['code', 'name', 'decimals', 'related', 'related.*.name', 'related.*.one'];

const bodyOf = ({ code, name, decimals, related }: Typed) => ({
  code,
  name,
  decimals: Number(decimals),
  related: related
    .split(';')
    .filter((part) => part.trim() !== '')
    .map((part) => {
      const [measure = '', one = ''] = part.split('=').map((text) => text.trim());
      return { name: measure, one: one || '0' };
    }),
});

function UnitForm({ unit, onDone }: { unit: Unit | null; onDone?: () => void }) {
  const notify = useNotify();
  const done = (saved: Unit) => {
    notify({ text: `${saved.name} saved.` });
    onDone?.();
  };
  const saved = (one: Unit) => form.saved(one);
  const create = useCommand('createUnit', done, saved);
  const update = useCommand('updateUnit', done, saved);
  const command = unit ? update : create;
  const form = useRecordForm({
    record: unit,
    read: readUnit,
    bodyOf,
    schema: UnitInput,
    keptAs: unit ? `unit.${unit.id}` : 'unit',
    name: unit ? `the unit ${unit.code}` : 'the new unit',
    shownAt: SHOWN,
    command,
  });
  const named = unit?.code ?? 'new unit';
  return (
    <Line
      onSubmit={form.submit((body) =>
        unit
          ? update.mutate({ params: { id: unit.id }, body: { ...body, version: form.version } })
          : create.mutate({ body }),
      )}
    >
      <Field label={`Code of ${named}`} hideLabel placeholder="kg" {...form.field('code')} />
      <Field label={`Name of ${named}`} hideLabel placeholder="kilogram" {...form.field('name')} />
      <Choice
        label={`Decimals of ${named}`}
        hideLabel
        {...form.field('decimals')}
        options={[0, 1, 2, 3, 4].map((n) => [String(n), n === 1 ? '1 decimal' : `${n} decimals`] as const)}
      />
      <Whole>
        <Field
          label={`What may be typed instead of ${named}`}
          hideLabel
          placeholder="also typed as: g = 0.001"
          {...form.field('related')}
        />
        <SaveProblem
          command={command}
          over={form}
          theirs={`${unit?.code}, ${unit?.name}, ${unit?.decimals} decimals`}
          shownAt={SHOWN}
        />
        {(form.dirty || !unit) && (
          <Row $top={6}>
            <Button type="submit" busy={command.isPending}>
              {unit ? `Save ${unit.code}` : 'Add unit'}
            </Button>
            <Faint>Enter “g = 0.001; oz = 0.0283”: how much one is in the stock unit.</Faint>
          </Row>
        )}
      </Whole>
    </Line>
  );
}
