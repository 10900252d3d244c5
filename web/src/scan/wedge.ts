import { type RefObject, useEffect, useLayoutEffect, useRef } from 'react';
import { isPageCovered } from '../ui/covered.ts';
import { press, SCANNED, typeInto } from '../ui/keys.ts';

/** Keys of a scanner follow each other faster than any hand types. */
const FASTEST_HAND_MS = 90;
const AFTER_TYPING_MS = 30;
/** FNC1 between two values of GS1 data: a wedge sends it as Ctrl and ], which types nothing by itself. */
const SEPARATOR = '\u001d';
/** Shorter bursts are keys that a hand happened to press together. */
const LEAST = 3;

/** @returns false for what it can make nothing of, so that who came before it on the screen is asked */
type Take = (text: string) => unknown;
/** Who takes scans on the screen that is shown; the last to come is asked first. */
const takers: Take[] = [];

/** Whether somebody types here: a scanner's keys then go into the field like any others. */
const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest('input:not([type=checkbox]):not([type=radio]), textarea, select') !== null;

/**
 * Hands what a key-wedge scanner types to the screen, also while no field is focused. In a focused field the keys arrive
 * by themselves.
 */
export function useScans(take: Take): void {
  const latest = useRef(take);
  latest.current = take;
  // With the screen itself, so that no scan goes to the one before it.
  useLayoutEffect(() => {
    const own: Take = (text) => latest.current(text);
    takers.push(own);
    return () => void takers.splice(takers.indexOf(own), 1);
  }, []);
}

/** Hands a scan to whoever takes it on the screen, unless something lies over it. @returns whether anybody does */
function hand(text: string): boolean {
  if (isPageCovered()) return false;
  if (opener(text)) return true;
  return takers.findLast((take) => take(text) !== false) !== undefined;
}

/** Opens what a sheet's own barcode means, whatever screen is shown; false for any other scan. */
let opener: (text: string) => boolean = () => false;

/** Lets barcodes of bench sheets be opened wherever somebody is. */
export function useOpener(open: (text: string) => boolean): void {
  const latest = useRef(open);
  latest.current = open;
  useEffect(() => {
    opener = (text) => latest.current(text);
    return () => {
      opener = () => false;
    };
  }, []);
}

/** Listens to keys for as long as the application runs. @returns how to end that */
export function listenToWedge(): () => void {
  let [text, at] = ['', 0];
  const onKey = (event: KeyboardEvent) => {
    const isSeparator = event.ctrlKey && event.key === ']';
    if (isSeparator) event.preventDefault();
    if (isTyping(event.target)) {
      if (isSeparator && event.target instanceof HTMLInputElement)
        typeInto(event.target, event.target.value + SEPARATOR);
      return;
    }
    if ((event.ctrlKey && !isSeparator) || event.altKey || event.metaKey) return;
    if (event.timeStamp - at > FASTEST_HAND_MS) text = '';
    at = event.timeStamp;
    if (isSeparator) text += SEPARATOR;
    else if (event.key.length === 1) text += event.key;
    else if (event.key === 'Enter' && text.length >= LEAST) {
      window.dispatchEvent(new Event(SCANNED));
      hand(text);
      text = '';
      // The Enter of a scanner presses nothing, whatever button has the focus.
      event.preventDefault();
      event.stopPropagation();
    }
  };
  window.addEventListener('keydown', onKey, true);
  return () => window.removeEventListener('keydown', onKey, true);
}

/** Hands every scan to one field of the screen, as if it had been focused. */
export const useScansInto = (field: RefObject<HTMLInputElement | null>) =>
  useScans((text) => {
    field.current?.focus();
    putScan(text);
  });

/** Puts a whole scan where a scanner's keys would go: into the focused field and Enter, or to the screen. */
export function putScan(text: string): 'field' | 'screen' | 'nowhere' {
  const field = document.activeElement;
  if (field instanceof HTMLInputElement && isTyping(field)) {
    typeInto(field, text);
    // As from a scanner, Enter follows when the screen has drawn what was typed.
    setTimeout(() => press(field, 'Enter'), AFTER_TYPING_MS);
    return 'field';
  }
  return hand(text) ? 'screen' : 'nowhere';
}

/** Puts a weight into the focused field, as a scale does that is wired to the desk; what was typed there goes. */
export function putWeight(text: string): 'field' | 'screen' | 'nowhere' {
  const field = document.activeElement;
  if (!(field instanceof HTMLInputElement) || !isTyping(field)) return 'nowhere';
  typeInto(field, text);
  return 'field';
}
