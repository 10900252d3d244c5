import { FOCUSABLE } from './focusable.ts';
import { isTextField, press, type TextField, typeInto } from './keys.ts';

/** Keys that wait for the field they are meant for; null while none has to. */
let held: string[] | null = null;
/** What they wait for. */
let pending: Promise<unknown> | null = null;

/** Whether a key says something to whatever field comes next. */
const isTyped = ({ key, ctrlKey, altKey, metaKey }: KeyboardEvent): boolean =>
  (key.length === 1 || key === 'Backspace' || isDeed(key)) && !ctrlKey && !altKey && !metaKey;
/** Keys that are no text: each waits until what was typed before it is drawn. */
const isDeed = (key: string): boolean => ['Enter', 'Tab', BACK].includes(key);
/** Tab with Shift. */
const BACK = 'BackTab';

/**
 * Holds what a hand types on while it is not known yet where that belongs: an Enter waits for its answer, or the focus is on
 * its way to the next field. Then it is typed wherever the focus is, in order, an Enter that holds again included.
 * @param arrival when the next field is there; it must come to an end, whatever happens
 */
export function holdKeys(arrival: Promise<unknown>): void {
  pending = arrival;
  if (held !== null) return;
  held = [];
  window.addEventListener('keydown', hold, true);
  void release();
}

/** A key that a hand presses, not one that is typed from here. */
function hold(event: KeyboardEvent): void {
  if (!event.isTrusted || !isTyped(event)) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  held?.push(event.key === 'Tab' && event.shiftKey ? BACK : event.key);
}

async function release(): Promise<void> {
  while (held !== null) {
    while (pending) {
      const arrival = pending;
      pending = null;
      await arrival;
    }
    const keys = held;
    const field = document.activeElement;
    if (keys.length === 0 || !(field instanceof HTMLElement)) break;
    const deed = keys.findIndex(isDeed);
    const text = keys.splice(0, deed < 0 ? keys.length : deed);
    if (text.length > 0) {
      if (isTextField(field)) typeInto(field, edited(field, text));
      // A choice goes to what begins so; a space would open it, and press any other button.
      else if (field.matches('[aria-haspopup=listbox]'))
        for (const key of text.filter((one) => one !== ' ')) press(field, key);
      // As from a hand, Enter follows when the screen has drawn what was typed.
      await frame();
    }
    const key = deed < 0 ? undefined : keys.shift();
    if (key === undefined) continue;
    if (key !== 'Enter') tabFrom(field, key === BACK ? -1 : 1);
    else if (field instanceof HTMLTextAreaElement) typeInto(field, edited(field, ['\n']));
    else if (field instanceof HTMLInputElement) press(field, key);
    await frame();
  }
  held = null;
  window.removeEventListener('keydown', hold, true);
}

/** Puts the focus where Tab would. */
function tabFrom(from: HTMLElement, by: 1 | -1): void {
  const all = [...document.querySelectorAll<HTMLElement>(FOCUSABLE)].filter((one) => one.getClientRects().length > 0);
  all[all.indexOf(from) + by]?.focus();
}

const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));

/** How many pictures of the screen a field may take to have the focus. */
const PATIENCE = 30;

/** Waits until another field has the focus than this one; not for ever, since it may stay. */
export async function focusMoved(from: Element | null): Promise<void> {
  for (let left = PATIENCE; left > 0; left -= 1) {
    await frame();
    const { activeElement } = document;
    if (isTextField(activeElement) && activeElement !== from) return;
  }
}

/** What stands in a field once these keys were pressed in it: what is chosen in it is typed over. */
function edited({ value, selectionStart, selectionEnd }: TextField, keys: readonly string[]): string {
  const before = value.slice(0, selectionStart ?? value.length);
  const after = value.slice(selectionEnd ?? value.length);
  return keys.reduce((text, key) => (key === 'Backspace' ? text.slice(0, -1) : text + key), before) + after;
}
