import type { ComponentType } from 'react';
import { useSyncExternalStore } from 'react';

/** How long to wait before each other try, in milliseconds: together longer than a server needs to start again. */
const WAITS = [300, 700, 1500, 3000, 6000, 12_000];

let missing = 0;
const listeners = new Set<() => void>();
function count(by: number): void {
  missing += by;
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

/** Whether a screen is being waited for that could not be fetched. */
export const usePartMissing = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => missing > 0,
  );
