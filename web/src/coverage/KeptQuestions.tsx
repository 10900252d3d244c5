import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { Menu } from '../ui/Menu.tsx';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';

const Keep = styled.form`display: flex; gap: 6px; align-items: center; flex-basis: 100%;`;

/** Questions under a name, for everybody: opened, kept, forgotten. */
export function KeptQuestions({ isEmpty }: { isEmpty: boolean }) {
  const [search] = useSearchParams();
  const go = useNavigate();
  const notify = useNotify();
  const mayKeep = useCan('plan');
  const [name, setName] = useState<string | null>(null);
  const questions = useQuestion('coverQuestions', {}).data ?? [];
  const keep = useCommand('keepQuestion', (kept) => {
    setName(null);
    notify({ text: `“${kept.name}” is saved for everyone.` });
  });
  const forget = useCommand('forgetQuestion');
  const here = search.toString();
  const current = questions.find(({ address }) => address === here);
  const deeds = [
    ...questions.map((question) => ({
      id: String(question.id),
      name: question.name,
      hint: `saved by ${question.by}`,
      to: `/cover?${question.address}`,
    })),
    ...(mayKeep && !isEmpty && !current ? [{ id: 'keep', name: 'Save this question…', act: () => setName('') }] : []),
    ...(mayKeep && current
      ? [
          {
            id: 'forget',
            name: `Forget “${current.name}”`,
            act: () => forget.mutate({ params: { id: current.id } }, { onSuccess: () => void go('/cover') }),
          },
        ]
      : []),
  ];
  if (deeds.length === 0) return null;
  return (
    <>
      <Menu label={current ? current.name : 'Questions'} look="ghost" deeds={deeds} />
      {name !== null && (
        <Keep
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) keep.mutate({ body: { name: name.trim(), address: here } });
          }}
        >
          <Field
            label="Name of the question"
            hideLabel
            placeholder="Name"
            value={name}
            onChange={setName}
            autoFocus
            onKeyDown={(event) => event.key === 'Escape' && setName(null)}
          />
          <Button type="submit" busy={keep.isPending} isDisabled={name.trim() === ''}>
            Save
          </Button>
        </Keep>
      )}
      <ProblemBox error={keep.error ?? forget.error} />
    </>
  );
}
