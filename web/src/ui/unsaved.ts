import { useCallback, useEffect, useRef } from 'react';

interface Unsaved {
  /** What it is called, like “the supplier”. */
  readonly name: string;
  /** Lets go of what was typed. */
  readonly forget: () => void;
  /** Sends it, or shows what is wrong with it. */
  readonly save: () => void;
}

const all = new Set<Unsaved>();
const listeners = new Set<() => void>();

/** Calls `act` whenever a form has been saved or given up. */
export function useSettled(act: () => void): void {
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    const listener = () => latest.current();
    listeners.add(listener);
    return () => void listeners.delete(listener);
  }, []);
}

/** What is typed on this page and not saved, in the order of its forms. */
export const unsaved = (): readonly Unsaved[] => [...all];

/**
 * Tells of a form with changes, as long as it is on the page and has some.
 * @returns what says that they are saved, before the form itself is drawn so
 */
export function useUnsaved(name: string, dirty: boolean, forget: () => void, save: () => void): () => void {
  const latest = useRef({ forget, save });
  const told = useRef<Unsaved | null>(null);
  useEffect(() => {
    latest.current = { forget, save };
  });
  const settle = useCallback(() => {
    if (!told.current) return;
    all.delete(told.current);
    told.current = null;
    for (const listener of listeners) listener();
  }, []);
  useEffect(() => {
    if (!dirty) return;
    told.current = { name, forget: () => latest.current.forget(), save: () => latest.current.save() };
    all.add(told.current);
    return settle;
  }, [name, dirty, settle]);
  return settle;
}
