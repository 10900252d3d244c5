import { useCallback, useEffect, useRef } from 'react';

interface Unsaved {
  /** What it is called, like “the supplier”. */
  readonly name: string;
  /** Lets go of what was typed. */
  readonly forget: () => void;
}

const all = new Set<Unsaved>();

/** What is typed on this page and not saved, in the order of its forms. */
export const unsaved = (): readonly Unsaved[] => [...all];

/**
 * Tells of a form with changes, as long as it is on the page and has some.
 * @returns what says that they are saved, before the form itself is drawn so
 */
export function useUnsaved(name: string, dirty: boolean, forget: () => void): () => void {
  const latest = useRef(forget);
  const told = useRef<Unsaved | null>(null);
  useEffect(() => {
    latest.current = forget;
  });
  const settle = useCallback(() => {
    if (told.current) all.delete(told.current);
    told.current = null;
  }, []);
  useEffect(() => {
    if (!dirty) return;
    told.current = { name, forget: () => latest.current() };
    all.add(told.current);
    return settle;
  }, [name, dirty, settle]);
  return settle;
}
