import { api, type Behaviour, type Definition } from '@yosegi/contract';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { problemOf, useCommand } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Radios } from '../ui/Radios.tsx';
import { H2, Part } from '../ui/space.ts';
import { Tick } from '../ui/Tick.tsx';
import { Late, Lead, Row } from '../ui/text.ts';
import { useRecordForm } from '../ui/useRecordForm.ts';
import { sentencesOf } from './behaviour.ts';
import type { Draft } from './draft.ts';

const Switches = styled.div`display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 14px; margin: 14px 0; @media (max-width: 900px) { grid-template-columns: 1fr; }`;
const Group = styled.fieldset`
  border: 1px solid var(--line); border-radius: 3px; padding: 8px 12px 10px; margin: 0; background: var(--sheet); min-width: 0;
  legend { font: 600 15px var(--display); padding: 0 5px; }
`;
const Happens = styled.dl`
  display: grid; grid-template-columns: 122px minmax(0, 1fr); gap: 0; margin: 0; border-top: 1px solid var(--line);
  dt, dd { padding: 9px 4px; border-bottom: 1px solid var(--line-soft); margin: 0; } dt { font: 600 15px var(--display); }
`;

const SHOWN = ['made', 'onOrder', 'discount', 'benchDays'];

/** The three switches of a kit and its price, and what they make happen with this very kit. */
export function BehaviourView({
  definition,
  draft,
  canMake,
}: {
  definition: Definition;
  draft: Draft;
  canMake: string | null;
}) {
  const format = useFormat();
  const notify = useNotify();
  const save = useCommand(
    'setBehaviour',
    () => notify({ text: `${definition.item.name} will work like this from now on.` }),
    (saved) => form.saved(saved),
  );
  const form = useRecordForm({
    record: definition,
    read: (record) => {
      const { benchDays, ...rest } = (record ?? definition).behaviour;
      return { ...rest, benchDays: benchDays === null ? '' : String(benchDays) };
    },
    bodyOf: ({ discount, benchDays, ...typed }) => ({
      ...typed,
      discount: discount.trim() || '0',
      benchDays: benchDays.trim() === '' ? null : Number(benchDays),
    }),
    // What else it is saved with is not typed.
    schema: api.setBehaviour.body.omit({ version: true }),
    keptAs: `behaviour.${definition.id}`,
    name: `how ${definition.item.name} works`,
    shownAt: SHOWN,
    command: save,
  });
  const { typed, dirty } = form;
  const set = (part: Partial<typeof typed>) => {
    save.reset();
    form.set(part);
  };
  const sentences = sentencesOf(definition, { ...typed, benchDays: null }, draft, canMake, format);
  const problem = problemOf(save.error);
  const { at } = form;
  return (
    <>
      {definition.purpose === 'build' && (
        <>
          <Switches>
            <Switch
              title="Stocking"
              value={typed.made}
              onChange={(made) => set({ made: made as Behaviour['made'] })}
              options={[
                ['ahead', 'Made ahead, into stock'],
                ['packed-per-order', 'Packed per order, never stocked'],
              ]}
              error={at('made')}
            />
            <Switch
              title="On paperwork"
              value={typed.paperwork}
              onChange={(paperwork) => set({ paperwork: paperwork as Behaviour['paperwork'] })}
              options={[
                ['one-line', 'One line only'],
                ['contents', 'Kit and contents'],
              ]}
            />
            <Switch
              title="Changes on orders"
              value={typed.onOrder === 'swaps' ? `swaps-${typed.swapFor}` : typed.onOrder}
              onChange={(value) =>
                set(
                  value.startsWith('swaps-')
                    ? { onOrder: 'swaps', swapFor: value === 'swaps-anything' ? 'anything' : 'listed' }
                    : { onOrder: value as Behaviour['onOrder'] },
                )
              }
              options={[
                ['locked', 'Nothing'],
                ['quantities', 'How many of each part'],
                ['swaps-listed', 'Parts, for their alternates'],
                ['swaps-anything', 'Parts, for any item'],
              ]}
              error={at('onOrder')}
            />
          </Switches>
          <Row $gap={14} $wrap $bottom={14}>
            <Switch
              title="Price"
              value={typed.price}
              onChange={(price) => set({ price: price as Behaviour['price'] })}
              options={[
                ['own', 'Its own price'],
                ['parts', 'The sum of its parts, less a discount'],
              ]}
            >
              {typed.price === 'parts' && (
                <Part $width={130}>
                  <Field
                    label="Discount"
                    numeric
                    suffix="%"
                    value={typed.discount}
                    onChange={(discount) => set({ discount })}
                    error={at('discount')}
                  />
                </Part>
              )}
            </Switch>
            {typed.made === 'ahead' && (
              <Part $width={190}>
                <Field
                  label="Days on the bench, at least"
                  numeric
                  placeholder="labour time"
                  value={typed.benchDays}
                  onChange={(benchDays) => set({ benchDays })}
                  error={at('benchDays') && 'Enter 1 to 400 working days, or leave it empty.'}
                />
              </Part>
            )}
            {typed.made === 'ahead' && (
              <Tick isOn={typed.tasksFirst} onChange={(tasksFirst) => set({ tasksFirst })}>
                Finished only once its tasks are done
              </Tick>
            )}
            <Button
              look="go"
              busy={save.isPending}
              isDisabled={!dirty}
              onPress={() =>
                form.submit((body) =>
                  save.mutate({ params: { id: definition.id }, body: { ...body, version: form.version } }),
                )()
              }
            >
              Save how it behaves
            </Button>
            {dirty && !problem && <Lead>Not saved yet; below is what it would do.</Lead>}
          </Row>
          {problem && (
            <ProblemBox
              error={save.error}
              ways={
                <>
                  {problem.code === 'stale-save' && (
                    <>
                      <Button
                        onPress={() => {
                          form.keepMine();
                          save.reset();
                        }}
                      >
                        Save mine over theirs
                      </Button>
                      <Button
                        onPress={() => {
                          form.takeTheirs();
                          save.reset();
                        }}
                      >
                        Use theirs
                      </Button>
                    </>
                  )}
                  {problem.field === 'made' && (
                    <Button onPress={() => set({ made: 'ahead' })}>Leave it made ahead</Button>
                  )}
                  {problem.code === 'kit-has-stock' && (
                    <LinkButton to={`/take-apart/stock?item=${definition.item.id}`}>Take its stock apart</LinkButton>
                  )}
                  {problem.code === 'kit-is-part' && (
                    <LinkButton to={`/define/${definition.id}?view=used`}>Where used</LinkButton>
                  )}
                  {problem.code === 'kit-no-alternates' && (
                    <>
                      <Button onPress={() => set({ swapFor: 'anything' })}>Allow any item</Button>
                      <LinkButton to={`/define/${definition.id}`}>List alternates</LinkButton>
                    </>
                  )}
                </>
              }
            />
          )}
        </>
      )}
      <H2 $top={10} $bottom={6}>
        What happens with {definition.item.name}
      </H2>
      <Happens aria-live="polite">
        <dt>On the order</dt>
        <dd>{sentences.order}</dd>
        <dt>On the pick list</dt>
        <dd>{sentences.pickList}</dd>
        <dt>On the shelf</dt>
        <dd>{sentences.shelf}</dd>
        <dt>On the paperwork</dt>
        <dd>{sentences.paperwork}</dd>
      </Happens>
    </>
  );
}

function Switch({
  title,
  value,
  onChange,
  options,
  error,
  children,
}: {
  title: string;
  value: string;
  onChange: (value: string) => void;
  options: readonly (readonly [string, string])[];
  error?: string | undefined;
  children?: ReactNode;
}) {
  return (
    <Group {...(error ? { style: { borderColor: 'var(--short)' } } : {})}>
      <legend>{title}</legend>
      <Radios label={title} hideLabel value={value} onChange={onChange} options={options} />
      {children}
      {error && <Late>Not possible yet; see below.</Late>}
    </Group>
  );
}
