import type { CoverItem, Supplier } from '@yosegi/contract';
import type { Change } from '@yosegi/core/coverage';
import { useState } from 'react';
import { useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { useFormat } from '../ui/format.ts';
import { H2, Part } from '../ui/space.ts';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import { Look, partsOf, takenOf } from './ApplyCase.tsx';
import { CaseEditor } from './CaseEditor.tsx';
import { caseText, withChange } from './cases.ts';
import { useNames } from './useNames.ts';

interface Props {
  readonly changes: readonly Change[];
  readonly answer: CoverAnswer | null;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly onChange: (text: string | null) => void;
}

const NONE: readonly Supplier[] = [];

/** What is otherwise in a case of a question, part by part. */
export function WhatIf({ changes, answer, items, onChange }: Props) {
  const suppliers = useQuestion('suppliers', {}).data ?? NONE;
  const format = useFormat();
  const [isTaking, setTaking] = useState(false);
  const taken = partsOf(changes, answer?.deliveries ?? []);
  const [mayPlan, mayBuy] = [useCan('plan'), useCan('buy')];
  const mayTake = (mayBuy || taken.deliveries.length === 0) && (mayPlan || taken.builds.length === 0);
  const [chosen, choose] = useState<number | null>(null);
  const parts = answer?.components.map(({ itemId }) => itemId) ?? [];
  const partId = chosen !== null && parts.includes(chosen) ? chosen : (parts[0] ?? null);
  const names = useNames(partId, null, changes);
  const part = partId === null ? undefined : items.get(partId);
  if (!part) return null;
  const arrivals = answer?.components.find(({ itemId }) => itemId === partId)?.arrivals ?? [];
  const set = (next: readonly Change[]) => onChange(next.length === 0 ? null : caseText(next));
  return (
    <Part $top={14}>
      <H2 $bottom={6}>What if…</H2>
      <Choice
        label="Which part"
        value={String(partId)}
        onChange={(id) => choose(Number(id))}
        options={parts.map((id) => [String(id), items.get(id)?.name ?? '…'] as const)}
      />
      <CaseEditor
        item={part}
        items={items}
        changes={changes}
        names={names}
        suppliers={suppliers}
        offers={{
          coming: arrivals.flatMap(({ kind, id }) => (id > 0 ? [{ kind, id }] : [])),
          takers: [],
          alternates: [],
          isMade: part.definitionId !== null,
        }}
        onChange={(change) => set(withChange(changes, change))}
        onTakeBack={(index) => set(changes.toSpliced(index, 1))}
      />
      {takenOf(taken) > 0 && (
        <Button look="ghost" isDisabled={!mayTake} onPress={() => setTaking(true)}>
          Apply…
        </Button>
      )}
      {isTaking && (
        <Look
          parts={taken}
          known={{ names, items, suppliers, format }}
          onTaken={set}
          onClose={() => setTaking(false)}
        />
      )}
    </Part>
  );
}
