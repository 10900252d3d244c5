import type { ComponentType } from 'react';
import { useSyncExternalStore } from 'react';

/** How long to wait before each other try, in milliseconds: together longer than a server needs to start again. */
const WAITS = [300, 700, 1500, 3000, 6000, 12_000];

/** Parts of the application that are waited for, and those that could not be had at all: the server has other files now. */
let [missing, gone] = [0, 0];
const listeners = new Set<() => void>();
function count(waitedFor: number, givenUp = 0): void {
  missing += waitedFor;
  gone += givenUp;
  for (const listener of listeners) listener();
}

/** A screen that is fetched when it is first gone to, and tried again while the server cannot be reached. */
export const part =
  <Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) =>
  async () => ({ Component: (await persistently(load))[name] });

/** @throws what `load` throws at last */
export async function persistently<T>(load: () => Promise<T>, waits: readonly number[] = WAITS): Promise<T> {
  try {
    return await load();
  } catch (error) {
    const [wait, ...rest] = waits;
    if (wait === undefined) throw error;
    count(1);
    await new Promise((resolve) => setTimeout(resolve, wait));
    count(-1);
    return persistently(load, rest);
  }
}

/** A part of a screen that is tried like a whole one. @returns null when it is given up, of which {@link usePartMissing} tells */
export async function partOrNone<T>(load: () => Promise<T>, waits?: readonly number[]): Promise<T | null> {
  try {
    return await persistently(load, waits);
  } catch {
    count(0, 1);
    return null;
  }
}

/** Whether something is waited for that could not be fetched, or was given up. */
export const usePartMissing = (): 'waiting' | 'gone' | null =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => (missing > 0 ? 'waiting' : gone > 0 ? 'gone' : null),
  );
