import type { ReactNode } from 'react';
import styled from 'styled-components';
import { problemOf } from '../api/client.ts';

const Box = styled.div`
  border-left: 5px solid var(--short); background: var(--short-wash); color: var(--ink); padding: 10px 14px; border-radius: 2px;
  display: flex; flex-direction: column; gap: 8px; b { color: var(--short-ink); }
`;
const Ways = styled.div`display: flex; gap: 8px; flex-wrap: wrap; align-items: center;`;

/** What was refused and why, with the ways out as buttons. */
export function ProblemBox({ error, children, ways }: { error: unknown; children?: ReactNode; ways?: ReactNode }) {
  const problem = problemOf(error);
  if (!problem) return null;
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
