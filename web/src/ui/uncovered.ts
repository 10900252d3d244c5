import { type RefObject, useLayoutEffect } from 'react';

/** Where notices may stand, the usual place first. */
export const PLACES = ['foot', 'left', 'right', 'top'] as const;

/** How often it is looked whether the page beneath has changed, in milliseconds. */
const LOOK_MS = 600;
/** How finely it is looked what lies beneath: so many points across and down. */
const ACROSS = 9;
const DOWN = 4;

/** Puts something that lies over the page where it covers nothing that is pressed or typed into, as far as there is such a place. */
export function useUncovered(of: RefObject<HTMLElement | null>, isShown: boolean): void {
  useLayoutEffect(() => {
    if (!isShown) return;
    const look = () => of.current && putUncovered(of.current);
    look();
    const timer = setInterval(look, LOOK_MS);
    return () => clearInterval(timer);
  }, [of, isShown]);
}

function putUncovered(element: HTMLElement): void {
  // What one reaches for stays where it is.
  if (element.matches(':hover, :focus-within')) return;
  const now = element.dataset.place ?? PLACES[0];
  let [best, least] = [now, coveredBy(element)];
  for (const place of PLACES) {
    if (least === 0) break;
    element.dataset.place = place;
    const covered = coveredBy(element);
    if (covered < least) [best, least] = [place, covered];
  }
  element.dataset.place = best;
}

/** How much that is pressed or typed into lies beneath it; a link in a list counts little beside a button. */
function coveredBy(element: HTMLElement): number {
  const { left, top, width, height } = element.getBoundingClientRect();
  const found = new Set<Element>();
  for (let x = 0; x < ACROSS; x += 1)
    for (let y = 0; y < DOWN; y += 1) {
      const all = document.elementsFromPoint(left + (width * (x + 0.5)) / ACROSS, top + (height * (y + 0.5)) / DOWN);
      const beneath = all.find((one) => !element.contains(one));
      const pressed = beneath?.closest('button, input, textarea, label, a[href]');
      if (pressed) found.add(pressed);
    }
  return [...found].reduce((sum, one) => sum + (one.matches('a[href]') ? 1 : 10), 0);
}
