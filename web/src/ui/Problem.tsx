import type { ReactNode } from 'react';
import styled from 'styled-components';
import { isAmong, problemOf } from '../api/client.ts';
import { useSaid } from '../api/unsaid.ts';
import { Button } from './Button.tsx';
import type { Difference } from './useRecordForm.ts';

const Box = styled.div`
  grid-column: 1 / -1; border-left: 5px solid var(--short); background: var(--short-wash); color: var(--ink); padding: 10px 14px; border-radius: 2px;
  display: flex; flex-direction: column; gap: 8px; b { color: var(--short-ink); }
`;
const Ways = styled.div`display: flex; gap: 8px; flex-wrap: wrap; align-items: center;`;

const Differences = styled.table`
  width: auto; font-size: 13.5px; th { font-weight: 500; text-align: left; color: var(--ink-2); } th, td { padding: 1px 18px 1px 0; vertical-align: top; overflow-wrap: anywhere; }
`;

/** "wantedOn" is "wanted on", as it stands above its field. */
const inWords = (name: string) => name.replace(/Id$/, '').replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

interface Props {
  readonly error: unknown;
  /** The fields that show beside themselves what is wrong with them, like `lines.*.quantity`; anything else is said here. */
  readonly shownAt?: readonly string[];
  readonly children?: ReactNode;
  /** The ways out, as buttons. */
  readonly ways?: ReactNode;
}

/** What was refused and why, unless a field says so itself. */
export function ProblemBox({ error, shownAt = [], children, ways }: Props) {
  const problem = problemOf(error);
  useSaid(error);
  if (!problem || (problem.code !== 'stale-save' && isAmong(problem.field, shownAt))) return null;
  return (
    <Box role="alert">
      <span>
        <b>{problem.title}.</b> {problem.detail}
      </span>
      {children}
      {ways && <Ways>{ways}</Ways>}
    </Box>
  );
}

interface SaveProps extends Pick<Props, 'shownAt'> {
  readonly command: { readonly error: unknown; reset(): void };
  /** What becomes of what was typed over a record that somebody else saved. */
  readonly over: {
    readonly keepMine: () => void;
    readonly takeTheirs: () => void;
    readonly theirs: readonly Difference[];
  };
  /** What the record is now, in a few words. */
  readonly theirs: string;
}

/** What was refused of a save; over what somebody else saved meanwhile, both versions and the choice. */
export function SaveProblem({ command, over, theirs, shownAt = [] }: SaveProps) {
  const choose = (choice: () => void) => () => {
    choice();
    command.reset();
  };
  const isStale = problemOf(command.error)?.code === 'stale-save';
  return (
    <ProblemBox
      error={command.error}
      shownAt={shownAt}
      ways={
        isStale && (
          <>
            <Button onPress={choose(over.keepMine)}>Save mine over theirs</Button>
            <Button onPress={choose(over.takeTheirs)}>Use theirs</Button>
          </>
        )
      }
    >
      {isStale && <span>Theirs now: {theirs}.</span>}
      {isStale && over.theirs.length > 0 && (
        <Differences>
          <thead>
            <tr>
              <th>Changed</th>
              <th>Theirs</th>
              <th>Yours</th>
            </tr>
          </thead>
          <tbody>
            {over.theirs.map(({ name, theirs: other, mine }) => (
              <tr key={name}>
                <td>{inWords(name)}</td>
                <td>{other || '–'}</td>
                <td>{mine || '–'}</td>
              </tr>
            ))}
          </tbody>
        </Differences>
      )}
    </ProblemBox>
  );
}
