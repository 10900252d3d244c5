import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useReducer } from 'react';
import { problemOf } from './client.ts';

/** Failures that some place of the screen says itself. */
const said = new WeakSet<object>();
const listeners = new Set<() => void>();

/** Tells that a failure is said where it matters, for as long as it is looked at. */
export function useSaid(error: unknown): void {
  useEffect(() => {
    if (typeof error !== 'object' || error === null) return;
    said.add(error);
    for (const listener of listeners) listener();
  }, [error]);
}

interface Unsaid {
  /** The questions, as the contract names them. */
  readonly names: readonly string[];
  /** What went wrong with the first of them. */
  readonly error: unknown;
  readonly again: () => void;
}

/** Whatever this screen asked for in vain, for want of a server or its answer, where no place on it says so; null when nothing. */
export function useUnsaid(): Unsaid | null {
  const client = useQueryClient();
  const [, changed] = useReducer((times: number) => times + 1, 0);
  useEffect(() => {
    // Told of in the middle of drawing, and drawn after it.
    const soon = () => queueMicrotask(changed);
    listeners.add(soon);
    const end = client.getQueryCache().subscribe(({ type }) => type === 'updated' && soon());
    return () => {
      listeners.delete(soon);
      end();
    };
  }, [client]);
  const failed = client.getQueryCache().findAll({
    type: 'active',
    predicate: ({ state }) => isOutage(state.error) && !said.has(state.error as object),
  });
  const first = failed[0];
  if (!first) return null;
  return {
    names: [...new Set(failed.map(({ queryKey }) => String(queryKey[0])))],
    error: first.state.error,
    again: () => {
      for (const query of failed) void query.fetch().catch(() => {});
    },
  };
}

/** A refusal is an answer, and whoever asked knows what it means; these are none. */
function isOutage(error: unknown): boolean {
  const status = problemOf(error)?.status;
  return status === 0 || status === 429 || (status ?? 0) >= 500;
}
