import { useSyncExternalStore } from 'react';

/** While it is set, the session has ended, and whatever was asked for waits for somebody to sign in again. */
let waiting: { readonly over: Promise<void>; readonly goOn: () => void } | null = null;
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};

/** @returns once somebody has signed in again where they stand */
export function signedInAgain(): Promise<void> {
  if (!waiting) {
    let goOn = () => {};
    const over = new Promise<void>((resolve) => {
      goOn = resolve;
    });
    waiting = { over, goOn };
    tell();
  }
  return waiting.over;
}

/** Somebody signed in: what waited goes on. */
export function goOn(): void {
  waiting?.goOn();
  waiting = null;
  tell();
}

/** Whether the session has ended under the page that is shown. */
export const useSignedOut = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => waiting !== null,
  );
