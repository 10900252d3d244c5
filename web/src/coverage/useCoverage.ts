import type { Snapshot } from '@yosegi/contract';
import type { Wanted } from '@yosegi/core/coverage';
import { useEffect, useRef, useState } from 'react';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import type { FromWorker, ToWorker } from '../workers/coverage.worker.ts';

/** An answer, or why there is none, in words; both null until the first has come. */
export interface Covered {
  readonly answer: CoverAnswer | null;
  readonly refused: string | null;
}

/** Coverage of what is wanted, computed in a web worker at every change. */
export function useCoverage(snapshot: Snapshot | undefined, wanted: readonly Wanted[]): Covered {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [covered, setCovered] = useState<Covered>({ answer: null, refused: null });

  useEffect(() => {
    const started = new Worker(new URL('../workers/coverage.worker.ts', import.meta.url), { type: 'module' });
    started.onmessage = ({ data }: MessageEvent<FromWorker>) => {
      if (data.id !== asked.current) return;
      setCovered('answer' in data ? { answer: data.answer, refused: null } : { answer: null, refused: data.refused });
    };
    worker.current = started;
    return () => started.terminate();
  }, []);

  useEffect(() => {
    if (snapshot) worker.current?.postMessage({ kind: 'snapshot', snapshot } satisfies ToWorker);
  }, [snapshot]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new snapshot asks the same question again
  useEffect(() => {
    asked.current += 1;
    worker.current?.postMessage({ kind: 'ask', id: asked.current, wanted: [...wanted] } satisfies ToWorker);
  }, [wanted, snapshot]);

  return covered;
}
