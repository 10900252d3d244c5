import { useEffect } from 'react';
import { useLocation, useNavigationType } from 'react-router';

/** How far each frame of a page was scrolled, in pixels, by its place in the page. */
type Scrolls = Record<string, number>;

const KEPT = 'yosegi.scrolls';
/** By the key of their place in the history. */
const all = new Map<string, Scrolls>(JSON.parse(sessionStorage.getItem(KEPT) ?? '[]') as [string, Scrolls][]);
/** Places in the history that are remembered over a reload. */
const MOST = 60;

/** Brings back how far a page and its lists were scrolled, when it is come back to. */
export function useScrolls(): void {
  const { key } = useLocation();
  const isBack = useNavigationType() === 'POP';
  useEffect(() => {
    const main = document.getElementById('main');
    if (!main) return;
    const wanted = isBack ? { ...all.get(key) } : {};
    const seen: Scrolls = isBack ? { ...all.get(key) } : {};
    all.delete(key);
    all.set(key, seen);
    const restore = () => {
      for (const [place, top] of Object.entries(wanted)) {
        const frame = frameAt(main, place);
        // A list grows while its rows come.
        if (!frame || frame.scrollHeight - frame.clientHeight < top - 1) continue;
        frame.scrollTop = top;
        delete wanted[place];
      }
    };
    restore();
    const watch = new MutationObserver(restore);
    watch.observe(main, { subtree: true, childList: true });
    // Whoever scrolls meanwhile wants to be elsewhere.
    const stop = () => watch.disconnect();
    const note = (event: Event) => {
      const frame = event.target;
      if (!(frame instanceof HTMLElement) || !main.contains(frame)) return;
      const place = placeOf(main, frame);
      if (!(place in wanted)) seen[place] = frame.scrollTop;
    };
    const own = new AbortController();
    const options = { capture: true, passive: true, signal: own.signal };
    document.addEventListener('scroll', note, options);
    for (const hand of ['wheel', 'pointerdown', 'keydown']) document.addEventListener(hand, stop, options);
    const keep = () => sessionStorage.setItem(KEPT, JSON.stringify([...all].slice(-MOST)));
    window.addEventListener('pagehide', keep, { signal: own.signal });
    return () => {
      stop();
      own.abort();
    };
  }, [key, isBack]);
}

/** Which child of which child a frame is. */
function placeOf(main: HTMLElement, frame: HTMLElement): string {
  const steps: number[] = [];
  for (let element = frame; element !== main && element.parentElement; element = element.parentElement)
    steps.unshift([...element.parentElement.children].indexOf(element));
  return steps.join('/');
}

function frameAt(main: HTMLElement, place: string): Element | undefined {
  let frame: Element | undefined = main;
  for (const step of place === '' ? [] : place.split('/')) frame = frame?.children[Number(step)];
  return frame;
}
