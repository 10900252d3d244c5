import { useRef, useState } from 'react';

type Acts = Record<string, (...args: never[]) => unknown>;

/**
 * The same functions at every drawing, each doing what the latest drawing says: for parts that are drawn only when
 * something of them has changed.
 */
export function useStable<T extends Acts>(acts: T): T {
  const latest = useRef(acts);
  latest.current = acts;
  const [stable] = useState(
    () =>
      Object.fromEntries(
        Object.keys(acts).map((name) => [name, (...args: never[]) => latest.current[name]?.(...args)]),
      ) as T,
  );
  return stable;
}
