import { useEffect, useRef } from 'react';
import { useNavigationType } from 'react-router';
import { isPageCovered } from '../ui/covered.ts';
import { FOCUSABLE } from '../ui/focusable.ts';

/** How long a page may take to have a heading, in milliseconds. */
const PATIENCE = 5000;
const PRESSING = ['keydown', 'pointerdown'] as const;
const FIELD = 'input, textarea, [aria-haspopup=listbox]';

/**
 * After a link that went with its page, a deed that leads elsewhere, or a place that was gone to by keys, the focus is at the
 * heading of the next page, or in the field of it that takes the focus by itself.
 */
export function useHeadingFocus(pathname: string): void {
  // Back and forward bring the page as it was.
  const isPush = useNavigationType() !== 'POP';
  const first = useRef(true);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another page has another heading
  useEffect(() => {
    if (first.current || !isPush) {
      first.current = false;
      return;
    }
    const main = document.getElementById('main');
    if (!main) return;
    const isNarrow = window.matchMedia('(max-width: 900px)').matches;
    const from = document.activeElement;
    const there = new Set(main.querySelectorAll(FOCUSABLE));
    // A list that stays is walked on in, though on a narrow screen it makes room for what was found in it; and a field that
    // takes the focus by itself keeps it. Whatever else has it is what was left over from the page before.
    const stays = (active: Element | null) =>
      (active === from && main.contains(active) && !active?.matches('h1') && !(isNarrow && active?.matches('a'))) ||
      (active?.matches(FIELD) && main.contains(active) && !there.has(active));
    const move = () => {
      const active = document.activeElement;
      if (stays(active)) return stop();
      // The heading may still be the old one, and goes when the new one comes.
      const heading = main.querySelector<HTMLElement>('h1');
      if (!heading || heading === active || isPageCovered()) return;
      heading.tabIndex = -1;
      heading.focus({ preventScroll: true });
    };
    const watch = new MutationObserver(move);
    const stop = () => {
      watch.disconnect();
      for (const pressing of PRESSING) window.removeEventListener(pressing, stop, { capture: true });
    };
    // A dialog that led here gives the focus back first.
    const frame = requestAnimationFrame(() => requestAnimationFrame(move));
    watch.observe(main, { subtree: true, childList: true });
    // Whoever goes on is where they want to be.
    for (const pressing of PRESSING) window.addEventListener(pressing, stop, { capture: true });
    const patience = setTimeout(stop, PATIENCE);
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(patience);
      stop();
    };
  }, [pathname]);
}
