import { type ReactNode, useState } from 'react';
import { isAmong, problemOf } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { OverrideForm } from '../ui/OverrideForm.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Shortages } from './Shortages.tsx';

interface Props {
  readonly error: unknown;
  /** The fields that say beside themselves what is wrong with them. */
  readonly shownAt?: readonly string[];
  /** More ways out, beside going below zero. */
  readonly ways?: ReactNode;
  /** Posts it all the same, for a reason; only an owner is offered it. */
  readonly over?: { readonly action: string; readonly busy: boolean; readonly post: (reason: string) => void };
  /** Refusals an owner may go over; what is not there by default. */
  readonly overable?: readonly string[];
  readonly children?: ReactNode;
}

/** Why a posting was refused, bin by bin where stock is short, and the ways out. */
export function Refusal({ error, shownAt = [], ways, over, overable = ['stock-short'], children }: Props) {
  const mayOverride = useCan('override');
  const [isAsked, setAsked] = useState(false);
  const problem = problemOf(error);
  // It went through, or something else is typed.
  if (isAsked && !problem && !over?.busy) setAsked(false);
  const offered = over !== undefined && mayOverride && problem !== null && overable.includes(problem.code);
  const askButton = offered && !isAsked && <Button onPress={() => setAsked(true)}>{over.action}…</Button>;
  return (
    <>
      <ProblemBox
        error={error}
        shownAt={shownAt}
        ways={
          (ways || askButton) && (
            <>
              {ways}
              {askButton}
            </>
          )
        }
      >
        <Shortages problem={problem} />
        {children}
      </ProblemBox>
      {isAmong(problem?.field, shownAt) && askButton && <div>{askButton}</div>}
      {isAsked && over && (offered || over.busy) && (
        <OverrideForm action={over.action} busy={over.busy} onOverride={over.post} />
      )}
    </>
  );
}
