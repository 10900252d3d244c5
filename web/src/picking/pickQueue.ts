import { useEffect, useSyncExternalStore } from 'react';
import { ask, post, queryClient, refetch, showFresh } from '../api/client.ts';
import { PickQueue } from './queue.ts';

const KEY = 'yosegi.pick.queue';
/** A connection that has not answered in so long is taken for lost; sent again, a pick is done once. */
const TIMEOUT_MS = 10_000;
/** How often a lost connection is tried again. */
const RETRY_MS = 3000;

/** What every open page of this browser picks into. */
export const pickQueue = new PickQueue(
  {
    read: () => localStorage.getItem(KEY),
    write: (text) => localStorage.setItem(KEY, text),
  },
  async ({ runId, lines, key, undoKey }) => {
    const body = { lines: [...lines] };
    const picked = await post('pickOnRun', { params: { id: runId }, body }, key, TIMEOUT_MS);
    if (undoKey !== null) await post('undoDocument', { params: { id: picked.id }, body: {} }, undoKey, TIMEOUT_MS);
    return picked;
  },
  async ({ runId }) => {
    await showFresh('pickRun', { params: { id: runId } });
    refetch(['builds', 'orders', 'stock', 'items']);
  },
);

/** What waits, sent as soon as it can be. */
export function usePickQueue(personId: number) {
  const state = useSyncExternalStore(pickQueue.subscribe, pickQueue.state);
  const isWaiting = state.entries.some((entry) => entry.problem === null && entry.personId === personId);
  useEffect(() => {
    const flush = () => void pickQueue.flush(personId);
    flush();
    window.addEventListener('online', flush);
    return () => window.removeEventListener('online', flush);
  }, [personId]);
  useEffect(() => {
    if (!isWaiting) return;
    const timer = setInterval(() => void pickQueue.flush(personId), RETRY_MS);
    return () => clearInterval(timer);
  }, [isWaiting, personId]);
  return state;
}

/** Sets out for a stop, or leaves the run; nobody waits for it, and nothing is lost where it is not heard. */
export function claim(runId: number, stop: string | null): Promise<unknown> {
  return ask('claimStop', { params: { id: runId }, body: { stop } }).then(
    () => null,
    (error: unknown) => {
      void queryClient.invalidateQueries({ queryKey: ['pickRun'] });
      return error;
    },
  );
}
