import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api, type CoverItem } from '@yosegi/contract';
import { startTransition, useEffect, useMemo, useRef, useState } from 'react';
import { bytesOf, useQuestion } from '../api/client.ts';
import type { About, Asks } from '../workers/coverage.worker.ts';
import { Crashed, NotReckoned, reckoner } from './reckoner.ts';

/** Has the worker know what the server knows. @returns the name of the moment it knows */
export function useWorld() {
  return useQuery({
    queryKey: ['snapshot'],
    queryFn: async ({ signal }) => {
      const since = reckoner.version;
      const known = await reckoner.load(await bytesOf(snapshotSince(since), signal));
      return known ?? (await reckoner.load(await bytesOf(snapshotSince(null), signal)));
    },
    // The worker keeps what it has, also while no screen asks.
    gcTime: Number.POSITIVE_INFINITY,
    retry: (failures, error) => error instanceof Crashed && failures < 2,
  });
}

const snapshotSince = (version: string | null) =>
  version === null ? api.snapshot.path : `${api.snapshot.path}?${new URLSearchParams({ since: version })}`;

/** An answer, or why there is none, in words; both null until the first has come. */
export interface Reckoned<A extends About> {
  readonly answer: Asks[A]['answer'] | null;
  readonly refused: string | null;
  /** The question and the moment that the answer is to. */
  readonly to: Asks[A]['ask'] | null;
  readonly version: string | null;
  /** It could not be worked out for no reason that is known, also when tried again. */
  readonly isBroken: boolean;
}

const NOTHING = { answer: null, refused: null, to: null, version: null, isBroken: false };
/** How often a question is asked again of a new worker before it is given up. */
const TRIES = 3;

/** What is asked, worked out in a web worker at every change of the question and of what is known. */
export function useReckoned<A extends About>(about: A, ask: Asks[A]['ask'] | null): Reckoned<A> {
  const client = useQueryClient();
  const version = useWorld().data ?? null;
  const [reckoned, setReckoned] = useState<Reckoned<A>>(NOTHING);
  const crashes = useRef(0);
  const key = JSON.stringify(ask);
  // biome-ignore lint/correctness/useExhaustiveDependencies: an equal question is the same question
  useEffect(() => {
    if (version === null || ask === null) return;
    let isLatest = true;
    const show = (next: Partial<Reckoned<A>>) => {
      if (isLatest) startTransition(() => setReckoned({ ...NOTHING, to: ask, version, ...next }));
    };
    reckoner.ask(about, ask).then(
      (answer) => {
        crashes.current = 0;
        show({ answer });
      },
      (error) => {
        if (error instanceof NotReckoned) return show({ refused: error.message });
        crashes.current += 1;
        // A new worker knows nothing yet; the question is asked again once it does.
        if (crashes.current < TRIES) void client.invalidateQueries({ queryKey: ['snapshot'] });
        else show({ isBroken: true });
      },
    );
    return () => {
      isLatest = false;
    };
  }, [about, key, version]);
  return reckoned;
}

/** The most names that are asked for at once. */
const BATCH = 600;
const NONE: readonly CoverItem[] = [];

/** Items by id with their names, as many as three batches; those of a moment ago stay while others are fetched. */
export function useCoverItems(ids: readonly number[]): {
  readonly items: ReadonlyMap<number, CoverItem>;
  /** Whether all of them that exist are there. */
  readonly isWhole: boolean;
} {
  const wanted = [...new Set(ids)].sort((a, b) => a - b);
  const first = useBatch(wanted.slice(0, BATCH));
  const second = useBatch(wanted.slice(BATCH, 2 * BATCH));
  const third = useBatch(wanted.slice(2 * BATCH, 3 * BATCH));
  const known = useRef<ReadonlyMap<number, CoverItem>>(new Map());
  const items = useMemo(() => {
    const all = [first.items, second.items, third.items].flat();
    known.current = new Map([...known.current, ...all.map((item) => [item.id, item] as const)]);
    return known.current;
  }, [first.items, second.items, third.items]);
  return { items, isWhole: first.isWhole && second.isWhole && third.isWhole };
}

function useBatch(ids: readonly number[]) {
  const { data, isPlaceholderData } = useQuestion(
    'coverItems',
    { query: { ids: ids.join(',') } },
    { enabled: ids.length > 0, keep: true },
  );
  return { items: data ?? NONE, isWhole: ids.length === 0 || (data !== undefined && !isPlaceholderData) };
}
