import styled from 'styled-components';
import { queryClient, useCommand, useQuestion } from '../api/client.ts';
import { goOn } from '../api/signedOut.ts';
import { Button } from '../ui/Button.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Lead } from '../ui/text.ts';
import { Logo } from './Logo.tsx';

const Page = styled.main<{
  $again: boolean;
}>`min-height: ${({ $again }) => ($again ? 'auto' : '100dvh')}; display: grid; place-content: center; gap: 18px; justify-items: center; padding: 24px;`;
const People = styled.div`display: flex; gap: 12px; flex-wrap: wrap; justify-content: center;`;
const Choice = styled(
  Button,
)`padding: 16px 22px; flex-direction: column; min-width: 150px; small { color: var(--ink-2); font-weight: 400; }`;

interface Props {
  /** Over a page that stays: the session has ended meanwhile. */
  readonly again?: boolean;
  readonly onDone?: () => void;
}

/** Chooses who is working here; every action carries this name. */
export function SignIn({ again = false, onDone }: Props) {
  const people = useQuestion('people', {});
  const signIn = useCommand(
    'signIn',
    async () => {
      await queryClient.invalidateQueries();
      onDone?.();
    },
    goOn,
  );
  return (
    <Page $again={again} {...(again ? { as: 'div' } : {})}>
      <Logo size={again ? 40 : 64} />
      {again ? <h2>You were signed out. Who is working?</h2> : <h1>Who is working?</h1>}
      {again && <Lead>What you typed is still here. What you sent continues as soon as you sign in.</Lead>}
      <ProblemBox error={signIn.error} />
      <Answer of={people}>
        {(everyone) => (
          <People>
            {everyone.map((person) => (
              <Choice
                key={person.id}
                busy={signIn.isPending}
                onPress={() => signIn.mutate({ body: { personId: person.id } })}
              >
                {person.name}
                <small>{person.role === 'owner' ? 'owner' : 'builder: builds, picks and counts'}</small>
              </Choice>
            ))}
          </People>
        )}
      </Answer>
    </Page>
  );
}
