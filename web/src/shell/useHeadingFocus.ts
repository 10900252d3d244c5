import { useEffect, useRef } from 'react';
import { useNavigationType } from 'react-router';

/** How long a page may take to have a heading, in milliseconds. */
const PATIENCE = 5000;

/** After a link inside a page, or a deed that leads elsewhere, both of which went with the page, the focus is at the heading of the next one. */
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
    const move = () => {
      // A list that stays is walked on in; a field that takes the focus by itself keeps it.
      // On a narrow screen the list makes room for what was found in it.
      const stays = document.activeElement !== document.body && document.activeElement !== main;
      if (stays && !(isNarrow && document.activeElement instanceof HTMLAnchorElement)) return stop();
      const heading = main.querySelector<HTMLElement>('h1');
      if (!heading) return;
      heading.tabIndex = -1;
      heading.focus({ preventScroll: true });
      stop();
    };
    const watch = new MutationObserver(move);
    const stop = () => watch.disconnect();
    // A dialog that led here gives the focus back first.
    const frame = requestAnimationFrame(() => requestAnimationFrame(move));
    watch.observe(main, { subtree: true, childList: true });
    const patience = setTimeout(stop, PATIENCE);
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(patience);
      stop();
    };
  }, [pathname]);
}
