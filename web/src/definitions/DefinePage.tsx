import type { DefinitionRow, Purpose } from '@yosegi/contract';
import { factsOf } from '@yosegi/contract/problems';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { problemOf, useCommand, usePages, useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Endless } from '../ui/Endless.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Sheet, Strip, StripHead, Three } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Radios } from '../ui/Radios.tsx';
import { Answer } from '../ui/States.tsx';
import { StripItem } from '../ui/StripItem.tsx';
import { Faint, Lead } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { purposeName } from './behaviour.ts';
import { DefinitionSheet } from './DefinitionSheet.tsx';
import { ProductsTable } from './ProductsTable.tsx';
import { revisionsOf } from './productWords.ts';

/** Bills of materials: the list, one of them, and what it is made of. */
export function DefinePage() {
  const { id } = useParams();
  return id === undefined ? <ProductsTable /> : <OneBeside id={id} />;
}

/** One of them beside the list, or a new one. */
function OneBeside({ id }: { id: string }) {
  const [q, setQ] = useAddress('q');
  const pages = usePages('definitions', { q: q || undefined, limit: 100 });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <Three $margin={false}>
      <Strip>
        <StripHead>
          <Field label="Find a product" hideLabel placeholder="Find a product" value={q} onChange={setQ} />
          <LinkButton to="/define">All products</LinkButton>
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
      {id === 'new' ? <NewDefinition /> : <Definition key={id} id={Number(id)} />}
    </Three>
  );
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

function Definition({ id }: { id: number }) {
  const definition = useQuestion('definition', { params: { id } });
  return <Answer of={definition}>{(data) => <DefinitionSheet definition={data} />}</Answer>;
}

const Begin = styled.div`display: grid; gap: 14px; max-width: 520px; margin-top: 18px;`;
const asks = { build: 'What is made?', rework: 'What is reworked?', record: 'What is recorded?' } as const;

/** A new definition starts with the product it makes. */
function NewDefinition() {
  const go = useNavigate();
  const [purpose, setPurpose] = useState<Purpose>('build');
  const create = useCommand('createDefinition', ({ definitionId }) => void go(`/define/${definitionId}`));
  const existing = factsOf(problemOf(create.error), 'definition-exists')?.id;
  return (
    <Sheet>
      <h1>New bill of materials</h1>
      <Lead>Say what it makes; its parts, work and charges come next, and its cost follows while you type them.</Lead>
      <Begin>
        <Radios
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
          placeholder="The product’s code or name, or a new one"
          autoFocus
          canAdd
          newIs="made"
          onPick={(item) =>
            purpose === 'build' && item.definitionId !== null
              ? void go(`/define/${item.definitionId}`)
              : create.mutate({ body: { itemId: item.id, purpose } })
          }
        />
        <Faint>A name that is new becomes a new product, made here, with a code proposed from its name.</Faint>
        <ProblemBox
          error={create.error}
          ways={
            typeof existing === 'number' && <LinkButton to={`/define/${existing}`}>Open the one there is</LinkButton>
          }
        />
      </Begin>
    </Sheet>
  );
}
