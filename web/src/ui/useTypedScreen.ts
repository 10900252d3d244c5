import { type Dispatch, type SetStateAction, useCallback, useMemo, useState } from 'react';
import type { z } from 'zod';
import { like } from './keptText.ts';
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

/**
 * Like `useState`, and there again after a reload or a closed tab.
 * @param shape what it must look like to be there again; a text, a number or a choice of yes and no needs none
 */
export function useTyped(screen: TypedScreen, name: string, begin: string | (() => string)): Typed<string>;
export function useTyped(screen: TypedScreen, name: string, begin: boolean | (() => boolean)): Typed<boolean>;
export function useTyped<T>(screen: TypedScreen, name: string, begin: T | (() => T), shape: z.ZodType<T>): Typed<T>;
export function useTyped<T>(screen: TypedScreen, name: string, begin: T | (() => T), shape?: z.ZodType<T>): Typed<T> {
  const path = `${screen.key}.${name}`;
  screen.names.add(name);
  const [value, setValue] = useState<T>(() => {
    const first = typeof begin === 'function' ? (begin as () => T)() : begin;
    return keptOf(path, shape ?? like(first)) ?? first;
  });
  const set = useCallback(
    (next: SetStateAction<T>) =>
      setValue((before) => {
        const after = typeof next === 'function' ? (next as (before: T) => T)(before) : next;
        keep(path, after);
        return after;
      }),
    [path],
  );
  return [value, set];
}

type Typed<T> = [T, Dispatch<SetStateAction<T>>];
