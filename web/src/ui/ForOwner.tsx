import type { Right } from '@yosegi/contract';
import type { ReactNode } from 'react';
import { useCan } from '../api/person.ts';
import { EmptyState } from './States.tsx';

/** A page of which everything needs a right that only owners have; others are told whom to ask before they type. */
export function ForOwner({ right, to, children }: { right: Right; to: string; children: ReactNode }) {
  if (useCan(right)) return children;
  return (
    <EmptyState isPage title="For the owner">
      Only an owner can {to}. Ask one to do it.
    </EmptyState>
  );
}
