import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { Button } from './Button.tsx';
import { ProblemBox } from './Problem.tsx';

const Quiet = styled.div`padding: 28px 24px; color: var(--ink-2);`;
const Bones = styled.div`
  padding: 22px 24px; display: grid; gap: 12px;
  i { height: 18px; border-radius: 2px; background: linear-gradient(90deg, var(--birch), var(--line-soft), var(--birch)); }
  i:nth-child(1) { width: 46%; height: 28px; } i:nth-child(2) { width: 66%; }
`;

/** A list with nothing in it, in a sentence. */
export const Nothing = styled.p`padding: 22px 24px; color: var(--ink-2);`;

/** Shows an answer once it is there; until then its outline, and when it fails, why and how to try again. */
export function Answer<T>({
  of,
  children,
  way,
}: {
  of: Pick<UseQueryResult<T, Error>, 'data' | 'error'> & { readonly refetch: () => unknown };
  children: (data: T) => ReactNode;
  /** Another way out than to try again, where the page has none around it. */
  way?: ReactNode;
}) {
  if (of.data !== undefined) return <>{children(of.data)}</>;
  if (of.error) {
    return (
      <Quiet>
        <ProblemBox
          error={of.error}
          ways={
            <>
              <Button onPress={() => void of.refetch()}>Try again</Button>
              {way}
            </>
          }
        />
      </Quiet>
    );
  }
  return (
    <Bones role="status" aria-label="Loading">
      <i />
      <i />
      <i />
      <i />
    </Bones>
  );
}

const Empty = styled.div`
  padding: 26px 24px; display: grid; gap: 10px; place-content: start; justify-items: start; color: var(--ink-2); max-width: 60ch; h1, h2 { color: var(--ink); } p { text-wrap: pretty; }
`;
/** An empty screen teaches the first step. */
export function EmptyState({
  title,
  children,
  action,
  isPage = false,
}: {
  title: string;
  children: ReactNode;
  action?: ReactNode;
  /** It is all there is on the page, whose first heading is its title. */
  isPage?: boolean;
}) {
  return (
    <Empty>
      {isPage ? <h1>{title}</h1> : <h2>{title}</h2>}
      <p>{children}</p>
      {action}
    </Empty>
  );
}
