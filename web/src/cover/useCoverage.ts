import type { Snapshot } from '@yosegi/contract';
import type { Wanted } from '@yosegi/core/coverage';
import { useEffect, useRef, useState } from 'react';
import type { CoverAnswer, ToWorker } from '../workers/coverage.worker.ts';

/** Coverage of what is wanted, computed in a web worker at every change; null until the first answer. */
export function useCoverage(snapshot: Snapshot | undefined, wanted: readonly Wanted[]): CoverAnswer | null {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answer, setAnswer] = useState<CoverAnswer | null>(null);

  useEffect(() => {
    const started = new Worker(new URL('../workers/coverage.worker.ts', import.meta.url), { type: 'module' });
    started.onmessage = ({ data }: MessageEvent<CoverAnswer>) => {
      if (data.id === asked.current) setAnswer(data);
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

  return answer;
}
