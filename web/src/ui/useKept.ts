import { useCallback, useRef, useState } from 'react';

/** The number is the shape of what is kept: what an older version kept is not read. */
const nameOf = (key: string) => `yosegi.typed.1.${key}`;

function kept<T>(key: string): T | undefined {
  const text = sessionStorage.getItem(nameOf(key));
  return text === null ? undefined : (JSON.parse(text) as T);
}

/**
 * What is typed and not posted yet: it stays in this tab while a person looks something up elsewhere, or reloads.
 * @param key what it belongs to; null keeps nothing
 * @returns what is typed, how to change it, and how to forget it once it is posted
 */
export function useKept<T>(
  key: string | null,
  begin: () => T,
): [value: T, set: (change: (before: T) => T) => void, forget: () => void] {
  const [value, setValue] = useState<T>(() => (key === null ? undefined : kept<T>(key)) ?? begin());
  const latest = useRef(value);
  /** The key under which nothing is kept any more, because what was typed is posted. */
  const over = useRef<string | null>(null);
  const set = useCallback(
    (change: (before: T) => T) => {
      latest.current = change(latest.current);
      if (key !== null && over.current !== key) sessionStorage.setItem(nameOf(key), JSON.stringify(latest.current));
      setValue(latest.current);
    },
    [key],
  );
  const forget = useCallback(() => {
    over.current = key;
    if (key !== null) sessionStorage.removeItem(nameOf(key));
  }, [key]);
  return [value, set, forget];
}
