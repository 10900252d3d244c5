import type { DefinitionRow, Purpose } from '@yosegi/contract';
import { factsOf } from '@yosegi/contract/problems';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { problemOf, useCommand, usePages, useQuestion } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Endless } from '../ui/Endless.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Sheet, Strip, StripHead, Three } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripItem } from '../ui/StripItem.tsx';
import { useAddress } from '../ui/useAddress.ts';
import { purposeName } from './behaviour.ts';
import { DefinitionSheet } from './DefinitionSheet.tsx';

/** Bills of materials: the list, one of them, and what it is made of. */
export function DefinePage() {
  const { id } = useParams();
  const [q, setQ] = useAddress('q');
  const pages = usePages('definitions', { q: q || undefined, limit: 100 });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <Three $margin={false}>
      <Strip>
        <StripHead>
          <Field label="Find a product" hideLabel placeholder="Find a product" value={q} onChange={setQ} />
          <NewDefinition />
          <ToPutRight />
        </StripHead>
        <Answer of={pages}>
          {() => (
            <Endless
              rows={rows}
              pages={pages}
              rowHeight={50}
              keyOf={(row) => row.id}
              label="Bills of materials"
              role="navigation"
            >
              {(row) => <OneRow row={row} />}
            </Endless>
          )}
        </Answer>
      </Strip>
      {id ? (
        <Definition key={id} id={Number(id)} />
      ) : (
        <Sheet>
          <EmptyState title={rows.length ? 'Choose a product on the left' : 'Define your first product'}>
            A bill of materials says what goes into one product: parts, minutes of work, charges. Its cost, its margin
            and how many you can make now follow while you type. Start one with “New bill of materials”.
          </EmptyState>
        </Sheet>
      )}
    </Three>
  );
}

function ToPutRight() {
  const faults = useQuestion('definitionFaults', {}).data ?? [];
  if (faults.length === 0) return null;
  return <LinkButton to="/define/faults">{count(faults.length, 'definition')} to put right</LinkButton>;
}

function OneRow({ row }: { row: DefinitionRow }) {
  const format = useFormat();
  return (
    <StripItem
      to={`/define/${row.id}`}
      code={row.code}
      title={row.name}
      under={[row.code, row.purpose !== 'build' && purposeName(row.purpose), revisionsOf(row)]
        .filter(Boolean)
        .join(' · ')}
      side={
        row.canMakeNow !== null && (
          <b title={row.made === 'ahead' ? 'can be made now' : 'can be packed now'}>{format.number(row.canMakeNow)}</b>
        )
      }
    />
  );
}

function revisionsOf({ inUse, draft }: DefinitionRow): string {
  if (inUse === null) return draft === null ? 'retired' : `draft ${draft}`;
  return draft === null ? `rev ${inUse}` : `rev ${inUse} · draft ${draft}`;
}

function Definition({ id }: { id: number }) {
  const definition = useQuestion('definition', { params: { id } });
  return <Answer of={definition}>{(data) => <DefinitionSheet definition={data} />}</Answer>;
}

const asks = { build: 'What is made?', rework: 'What is reworked?', record: 'What is recorded?' } as const;

function NewDefinition() {
  const go = useNavigate();
  const [open, setOpen] = useState(false);
  const [purpose, setPurpose] = useState<Purpose>('build');
  const create = useCommand('createDefinition', ({ definitionId }) => {
    setOpen(false);
    void go(`/define/${definitionId}`);
  });
  const existing = factsOf(problemOf(create.error), 'definition-exists')?.id;
  if (!open) return <Button onPress={() => setOpen(true)}>New bill of materials</Button>;
  return (
    <>
      <Choice
        label="What is it for?"
        value={purpose}
        onChange={(value) => setPurpose(value as Purpose)}
        options={[
          ['build', 'to build, or to pack as a kit'],
          ['rework', 'to rework a used one'],
          ['record', 'for the record only'],
        ]}
      />
      <ItemPicker
        label={asks[purpose]}
        placeholder="The product's code or name, or a new one"
        autoFocus
        canAdd
        onPick={(item) =>
          purpose === 'build' && item.definitionId !== null
            ? void go(`/define/${item.definitionId}`)
            : create.mutate({ body: { itemId: item.id, purpose } })
        }
        onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
      />
      <ProblemBox
        error={create.error}
        ways={typeof existing === 'number' && <LinkButton to={`/define/${existing}`}>Open the one there is</LinkButton>}
      />
    </>
  );
}
