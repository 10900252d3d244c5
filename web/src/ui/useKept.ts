import { useCallback, useRef, useState } from 'react';
import type { z } from 'zod';
import { like } from './keptText.ts';
import { forgetKept, keep, keptOf } from './typed.ts';

/**
 * What is typed and not posted yet: it stays on this machine while a person looks something up elsewhere, reloads, or
 * closes the tab.
 * @param key what it belongs to; null keeps nothing
 * @param shape what it must look like to be there again; like what it begins with when left out
 * @returns what is typed, how to change it, and how to forget it once it is posted
 */
export function useKept<T>(
  key: string | null,
  begin: () => T,
  shape?: z.ZodType<T>,
): [value: T, set: (change: (before: T) => T) => void, forget: () => void] {
  const [value, setValue] = useState<T>(() => {
    const first = begin();
    return (key === null ? undefined : keptOf(key, shape ?? like(first))) ?? first;
  });
  const latest = useRef(value);
  /** The key under which nothing is kept any more, because what was typed is posted. */
  const over = useRef<string | null>(null);
  const set = useCallback(
    (change: (before: T) => T) => {
      latest.current = change(latest.current);
      if (key !== null && over.current !== key) keep(key, latest.current);
      setValue(latest.current);
    },
    [key],
  );
  const forget = useCallback(() => {
    over.current = key;
    if (key !== null) forgetKept(key);
  }, [key]);
  return [value, set, forget];
}
