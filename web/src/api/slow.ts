import { useSyncExternalStore } from 'react';

/** How long a posting may take before somebody is told that it does, in milliseconds. */
const PATIENCE = 10_000;

/** What was sent and has had no answer for long: how to send each once more. */
let slow: readonly (() => void)[] = [];
const listeners = new Set<() => void>();
function tell(next: readonly (() => void)[]): void {
  slow = next;
  for (const listener of listeners) listener();
}

/**
 * Sends something that is done once however often it is sent. Where no answer comes for long, it is among
 * {@link useSlow}, from where it can be sent once more.
 */
export async function patiently<T>(sending: (signal: AbortSignal) => Promise<T>, patience = PATIENCE): Promise<T> {
  const attempt = new AbortController();
  const again = () => attempt.abort();
  const timer = setTimeout(() => tell([...slow, again]), patience);
  try {
    return await sending(attempt.signal);
  } catch (error) {
    if (!attempt.signal.aborted) throw error;
  } finally {
    clearTimeout(timer);
    if (slow.includes(again)) tell(slow.filter((one) => one !== again));
  }
  return patiently(sending, patience);
}

/** How to send once more each of what has had no answer for long. */
export const useSlow = (): readonly (() => void)[] =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => slow,
  );
