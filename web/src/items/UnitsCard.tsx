import type { Unit } from '@yosegi/contract';
import { useState } from 'react';
import styled from 'styled-components';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { KeyValue } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.tsx';
import { SaveProblem } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Faint, Muted, Row } from '../ui/text.ts';
import { useTypedOver } from '../ui/useTypedOver.ts';

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

function UnitForm({ unit, onDone }: { unit: Unit | null; onDone?: () => void }) {
  const notify = useNotify();
  const over = useTypedOver(unit, readUnit);
  const { code, name, decimals, related } = over.typed;
  const done = (saved: Unit) => {
    notify({ text: `${saved.name} is saved.` });
    over.saved(saved);
    onDone?.();
  };
  const create = useCommand('createUnit', done);
  const update = useCommand('updateUnit', done);
  const command = unit ? update : create;
  const problem = problemOf(command.error);
  const at = (field: string) => problemAt(command.error, field);
  const dirty = !unit || over.dirty;
  const submit = () => {
    const body = {
      code: code.trim(),
      name: name.trim(),
      decimals: Number(decimals),
      related: related
        .split(';')
        .filter((part) => part.trim() !== '')
        .map((part) => {
          const [measure = '', one = ''] = part.split('=').map((text) => text.trim());
          return { name: measure, one: one || '0' };
        }),
    };
    if (unit) update.mutate({ params: { id: unit.id }, body: { ...body, version: over.version } });
    else create.mutate({ body });
  };
  const named = unit?.code ?? 'new unit';
  return (
    <Line
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <Field
        label={`Code of ${named}`}
        hideLabel
        placeholder="kg"
        value={code}
        onChange={(next) => over.set({ code: next })}
        error={at('code')}
      />
      <Field
        label={`Name of ${named}`}
        hideLabel
        placeholder="kilogram"
        value={name}
        onChange={(next) => over.set({ name: next })}
        error={at('name')}
      />
      <Choice
        label={`Decimals of ${named}`}
        hideLabel
        value={decimals}
        onChange={(next) => over.set({ decimals: next })}
        options={[0, 1, 2, 3, 4].map((n) => [String(n), n === 1 ? '1 decimal' : `${n} decimals`] as const)}
        error={at('decimals')}
      />
      <Whole>
        <Field
          label={`What may be typed instead of ${named}`}
          hideLabel
          placeholder="also typed as: g = 0.001"
          value={related}
          onChange={(next) => over.set({ related: next })}
          error={problem?.field?.startsWith('related') ? problem.detail : undefined}
        />
        <SaveProblem
          command={command}
          over={over}
          theirs={`${unit?.code}, ${unit?.name}, ${unit?.decimals} decimals`}
          shownAt={['code', 'name', 'decimals', 'related', 'related.*.name', 'related.*.one']}
        />
        {dirty && (
          <Row style={{ marginTop: 6 }}>
            <Button type="submit" busy={command.isPending} isDisabled={!code.trim() || !name.trim()}>
              {unit ? `Save ${unit.code}` : 'Add the unit'}
            </Button>
            <Faint>Write “g = 0.001; oz = 0.0283”: one of it in the stock unit.</Faint>
          </Row>
        )}
      </Whole>
    </Line>
  );
}
