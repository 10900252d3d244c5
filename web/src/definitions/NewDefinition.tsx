import type { Purpose } from '@yosegi/contract';
import { factsOf } from '@yosegi/contract/problems';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { problemOf, useCommand } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Sheet } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Radios } from '../ui/Radios.tsx';
import { Faint, Lead } from '../ui/text.ts';

const Begin = styled.div`display: grid; gap: 14px; max-width: 520px; margin-top: 18px;`;
const asks = { build: 'What is made?', rework: 'What is reworked?', record: 'What is recorded?' } as const;

/** A new definition starts with the product it makes. */
export function NewDefinition() {
  const go = useNavigate();
  const [purpose, setPurpose] = useState<Purpose>('build');
  const create = useCommand('createDefinition', ({ definitionId }) => void go(`/define/${definitionId}`));
  const existing = factsOf(problemOf(create.error), 'definition-exists')?.id;
  return (
    <Sheet>
      <h1>New bill of materials</h1>
      <Lead>Choose what it makes. Parts, work and charges come next, and the cost follows as you enter them.</Lead>
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
        <Faint>A new name becomes a new product that you make, with a code suggested from its name.</Faint>
        <ProblemBox
          error={create.error}
          ways={
            typeof existing === 'number' && <LinkButton to={`/define/${existing}`}>Open the existing one</LinkButton>
          }
        />
      </Begin>
    </Sheet>
  );
}
