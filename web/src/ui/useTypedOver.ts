import { useState } from 'react';

type Typed = Readonly<Record<string, string>>;
interface Versioned {
  readonly version: number;
}

/** What is typed over a record that others may save meanwhile. */
export interface TypedOver<T> {
  readonly typed: T;
  readonly set: (some: Partial<T>) => void;
  readonly dirty: boolean;
  /** The version that was typed over. */
  readonly version: number;
  /** What is typed was saved, as this version. */
  readonly saved: (as: Versioned) => void;
  /** After somebody else saved: typed over theirs from now on, or let go. */
  readonly keepMine: () => void;
  readonly takeTheirs: () => void;
}

export interface State<T> {
  readonly typed: T;
  /** What it was before anything was typed. */
  readonly base: T;
  readonly version: number;
}

/**
 * Follows what others save as long as nothing is typed. Once something is, it stays, with the version it was typed over, so
 * that a save over a change that nobody here has seen is refused.
 */
export function follow<T extends Typed>(state: State<T>, now: T, version: number): State<T> {
  if (version < state.version || (version === state.version && isSame(state.base, now))) return state;
  return isSame(state.typed, state.base) || isSame(state.typed, now) ? { typed: now, base: now, version } : state;
}

const isSame = (one: Typed, other: Typed) => Object.keys(one).every((field) => one[field] === other[field]);

/** Typing over `record`, or anew for null; `read` says what its fields hold. */
export function useTypedOver<R extends Versioned, T extends Typed>(
  record: R | null,
  read: (record: R | null) => T,
): TypedOver<T> {
  const begin = (from: R | null): State<T> => ({ typed: read(from), base: read(from), version: from?.version ?? 0 });
  const [state, setState] = useState(() => begin(record));
  const now = begin(record);
  const next = follow(state, now.base, now.version);
  if (next !== state) setState(next);
  return {
    typed: next.typed,
    version: next.version,
    dirty: !isSame(next.typed, next.base),
    set: (some) => setState((before) => ({ ...before, typed: { ...before.typed, ...some } })),
    saved: ({ version }) => setState(({ typed }) => ({ typed, base: typed, version })),
    keepMine: () => setState({ ...now, typed: next.typed }),
    takeTheirs: () => setState(now),
  };
}
