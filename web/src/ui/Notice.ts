import { useSyncExternalStore } from 'react';
import { UNSTABLE_ToastQueue as ToastQueue } from 'react-aria-components';

export interface Notice {
  readonly text: string;
  /** The posting that can be undone from here. */
  readonly documentId?: number;
  /** How what is no posting is taken back. */
  readonly undo?: () => void;
  /** Where to see what it speaks of, and what the way there is called. */
  readonly to?: readonly [path: string, title: string];
}

/** What was said and is still to be seen, the newest first. */
export const notices = new ToastQueue<Notice>({ maxVisibleToasts: 3 });
/** Long enough to read it and to reach for its undo; nothing goes while a pointer or the focus is on it. */
const STAYS_MS = 20_000;
/** For what is told by no screen. */
export const notify = (notice: Notice) => {
  notices.add(notice, { timeout: STAYS_MS });
};

/** Says what was done, at the foot of every screen, and offers to undo it; each stays until its time is over. */
export const useNotify = () => notify;

/** Whether anything is said now. */
export const useNotices = (): boolean =>
  useSyncExternalStore(
    (listener) => notices.subscribe(listener),
    () => notices.visibleToasts.length > 0,
  );
