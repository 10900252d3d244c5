import { useEffect, useRef } from 'react';

interface Unsaved {
  /** What it is called, like “the supplier”. */
  readonly name: string;
  /** Lets go of what was typed. */
  readonly forget: () => void;
}

const all = new Set<Unsaved>();

/** What is typed on this page and not saved, in the order of its forms. */
export const unsaved = (): readonly Unsaved[] => [...all];

/** Tells of a form with changes, as long as it is on the page and has some. */
export function useUnsaved(name: string, dirty: boolean, forget: () => void): void {
  const latest = useRef(forget);
  useEffect(() => {
    latest.current = forget;
  });
  useEffect(() => {
    if (!dirty) return;
    const one: Unsaved = { name, forget: () => latest.current() };
    all.add(one);
    return () => {
      all.delete(one);
    };
  }, [name, dirty]);
}
