import { type Dispatch, type SetStateAction, useCallback, useMemo, useState } from 'react';
import { forgetKept, keep, keptOf } from './typed.ts';

/** What is typed on one screen, kept on this machine until it is posted. */
export interface TypedScreen {
  readonly key: string;
  /** The names of what is kept. */
  readonly names: Set<string>;
  /** Nothing is kept any more, because all of it is posted or given up. */
  readonly forget: () => void;
}

/** @param key what is typed about, like `finish.119` */
export function useTypedScreen(key: string): TypedScreen {
  return useMemo(() => {
    const names = new Set<string>();
    const forget = () => {
      for (const name of names) forgetKept(`${key}.${name}`);
    };
    return { key, names, forget };
  }, [key]);
}

/** Like `useState`, and there again after a reload or a closed tab. Maps and sets are kept as what they are. */
export function useTyped<T>(screen: TypedScreen, name: string, begin: T | (() => T)): [T, Dispatch<SetStateAction<T>>] {
  const path = `${screen.key}.${name}`;
  screen.names.add(name);
  const [value, setValue] = useState<T>(() => {
    const kept = keptOf<Written>(path);
    if (kept !== undefined) return unwritten(kept) as T;
    return typeof begin === 'function' ? (begin as () => T)() : begin;
  });
  const set = useCallback(
    (next: SetStateAction<T>) =>
      setValue((before) => {
        const after = typeof next === 'function' ? (next as (before: T) => T)(before) : next;
        keep(path, written(after));
        return after;
      }),
    [path],
  );
  return [value, set];
}

/** What JSON can say of a value: maps and sets by their entries. */
type Written = { map: [unknown, unknown][] } | { set: unknown[] } | { plain: unknown };

function written(value: unknown): Written {
  if (value instanceof Map) return { map: [...value] };
  return value instanceof Set ? { set: [...value] } : { plain: value };
}

function unwritten(kept: Written): unknown {
  if ('map' in kept) return new Map(kept.map);
  return 'set' in kept ? new Set(kept.set) : kept.plain;
}
