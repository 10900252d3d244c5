import { type RefObject, useEffect, useRef } from 'react';
import { isPageCovered } from './covered.ts';

interface Modifiers {
  readonly ctrl?: boolean;
  readonly alt?: boolean;
  /** Only for what is typed in this part of the page, which names the key in `data-own-key`: there it comes before the page's. */
  readonly within?: RefObject<HTMLElement | null>;
}

/** Calls `act` when a key is pressed; without a modifier not while somebody types, and never while something lies over the page. */
export function useShortcut(key: string, act: () => void, { ctrl = false, alt = false, within }: Modifiers = {}): void {
  const latest = useRef(act);
  latest.current = act;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const withCtrl = event.ctrlKey || event.metaKey;
      if (event.key.toLowerCase() !== key.toLowerCase() || withCtrl !== ctrl || event.altKey !== alt) return;
      const target = event.target as HTMLElement | null;
      const own = target?.closest(`[data-own-key='${key}']`) ?? null;
      if (within ? within.current !== own : own !== null) return;
      if (!ctrl && !alt && target?.closest('input, textarea, select, [contenteditable]')) return;
      if (isPageCovered()) {
        // The browser has deeds of its own for letters, like saving the page.
        if (withCtrl && event.key.length === 1) event.preventDefault();
        return;
      }
      event.preventDefault();
      // A button or a choice that has the focus would take Enter for itself.
      if (ctrl) event.stopPropagation();
      latest.current();
    };
    window.addEventListener('keydown', onKey, { capture: ctrl });
    return () => window.removeEventListener('keydown', onKey, { capture: ctrl });
  }, [key, ctrl, alt, within]);
}
