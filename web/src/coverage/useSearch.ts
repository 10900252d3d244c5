import type { Program } from '@yosegi/core/coverage';
import { useEffect, useRef, useState } from 'react';
import type { Found } from '../workers/solve.ts';
import type { FromSolver, ToSolver } from '../workers/solver.worker.ts';

/** Seconds after which a search stops with the best it has. */
const MOST_SECONDS = 10;

/** How a search for the best choice stands. */
export interface Search {
  readonly found: Found | null;
  readonly state: 'waiting' | 'running' | 'done' | 'stopped' | 'failed';
}

const WAITING: Search = { found: null, state: 'waiting' };

/** Searches for the best choice in a worker of its own; another program begins anew. Stopped, the best so far stays. */
export function useSearch(program: Program | null): Search & { readonly stop: () => void } {
  const [search, setSearch] = useState<Search>(WAITING);
  const worker = useRef<Worker | null>(null);
  const key = program === null ? '' : JSON.stringify(program);
  // biome-ignore lint/correctness/useExhaustiveDependencies: an equal program is the same program
  useEffect(() => {
    setSearch(program === null ? WAITING : { found: null, state: 'running' });
    if (program === null) return;
    const started = new Worker(new URL('../workers/solver.worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    started.onmessage = ({ data: { found, isDone } }: MessageEvent<FromSolver>) =>
      setSearch({ found, state: isDone ? 'done' : 'running' });
    started.onerror = (event) => {
      event.preventDefault();
      setSearch(({ found }) => ({ found, state: 'failed' }));
    };
    started.postMessage({ program, seconds: MOST_SECONDS } satisfies ToSolver);
    return () => started.terminate();
  }, [key]);
  const stop = () => {
    worker.current?.terminate();
    setSearch(({ found }) => ({ found, state: 'stopped' }));
  };
  return { ...search, stop };
}
