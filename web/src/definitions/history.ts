import { startTransition, useRef, useState } from 'react';

/** Steps that can be taken back; longer than anyone remembers. */
const MOST_STEPS = 200;

export interface History<T> {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
  /** What the last change was made in: typing on in the same cell is one step. */
  readonly tag: string | null;
}

export type Step<T> =
  | { readonly do: 'change'; readonly to: T; readonly tag: string | null }
  | { readonly do: 'undo' }
  | { readonly do: 'redo' }
  | { readonly do: 'replace'; readonly by: T };

export const historyOf = <T>(present: T): History<T> => ({ past: [], present, future: [], tag: null });

/** Undo and redo over whole states. `replace` begins anew, for what came from elsewhere. */
export function take<T>(history: History<T>, step: Step<T>): History<T> {
  const { past, present, future, tag } = history;
  if (step.do === 'replace') return historyOf(step.by);
  if (step.do === 'change') {
    const sameCell = step.tag !== null && step.tag === tag;
    return {
      past: sameCell ? past : [...past, present].slice(-MOST_STEPS),
      present: step.to,
      future: [],
      tag: step.tag,
    };
  }
  if (step.do === 'undo') {
    const before = past.at(-1);
    return before === undefined
      ? history
      : { past: past.slice(0, -1), present: before, future: [present, ...future], tag: null };
  }
  const [after, ...rest] = future;
  return after === undefined ? history : { past: [...past, present], present: after, future: rest, tag: null };
}

/**
 * The history as it is drawn, the present as it is at this moment, and a step on. What is typed in a cell is drawn by
 * the cell at once and by all that follows from it when there is time, so what acts on the state reads `now`.
 */
export function useHistory<T>(start: () => T) {
  const [history, draw] = useState<History<T>>(() => historyOf(start()));
  const latest = useRef(history);
  const now = () => latest.current.present;
  const step = (next: Step<T>, alsoDraw = () => {}) => {
    latest.current = take(latest.current, next);
    const to = latest.current;
    const both = () => {
      draw(to);
      alsoDraw();
    };
    if (next.do === 'change' && next.tag !== null) startTransition(both);
    else both();
  };
  /** Draws what was typed and waits to be drawn: a step back is one from there, for the cell that shows it too. */
  const drawTyped = () => draw(latest.current);
  return { history, now, step, drawTyped };
}
