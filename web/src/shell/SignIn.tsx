import styled from 'styled-components';
import { queryClient, useCommand, useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Logo } from './Logo.tsx';

const Page = styled.main`min-height: 100dvh; display: grid; place-content: center; gap: 18px; justify-items: center; padding: 24px;`;
const People = styled.div`display: flex; gap: 12px; flex-wrap: wrap; justify-content: center;`;
const Choice = styled(
  Button,
)`padding: 16px 22px; flex-direction: column; min-width: 150px; small { color: var(--ink-2); font-weight: 400; }`;

/** Chooses who is working here; every action carries this name. */
export function SignIn({ onDone }: { onDone?: () => void }) {
  const people = useQuestion('people', {});
  const signIn = useCommand('signIn', async () => {
    await queryClient.invalidateQueries();
    onDone?.();
  });
  return (
    <Page>
      <Logo size={64} />
      <h1>Who is working?</h1>
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
                <small>{person.role === 'owner' ? 'owner' : 'bench and picking'}</small>
              </Choice>
            ))}
          </People>
        )}
      </Answer>
    </Page>
  );
}
