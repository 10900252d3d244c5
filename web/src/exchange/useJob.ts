import type { ImportJob } from '@yosegi/contract';
import { useEffect, useState } from 'react';
import { ask } from '../api/client.ts';

/** An import as it goes on: each answer waits for a step that was not seen yet, so that nothing is asked in vain. */
export function useJob(id: string): { job: ImportJob | null; error: unknown; reload: () => void } {
  const [job, setJob] = useState<ImportJob | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [round, setRound] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new round begins to follow anew
  useEffect(() => {
    const leaving = new AbortController();
    const follow = async () => {
      let seen: number | undefined;
      while (!leaving.signal.aborted) {
        const next = await ask('importJob', { params: { id }, query: { seen } }, leaving.signal);
        if (leaving.signal.aborted) return;
        seen = next.step;
        setJob(next);
        if (next.state === 'done' || next.state === 'failed' || next.state === 'cancelled') return;
      }
    };
    follow().catch((fault: unknown) => !leaving.signal.aborted && setError(fault));
    return () => leaving.abort();
  }, [id, round]);
  return { job, error, reload: () => setRound((before) => before + 1) };
}
