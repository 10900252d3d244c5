import type { KeyboardEvent } from 'react';

/** How many pictures of the screen a field may take to have the focus. */
const PATIENCE = 60;

/** Whether a key says something to whatever field comes next. */
export const isTypedAhead = ({ key, ctrlKey, altKey, metaKey }: KeyboardEvent): boolean =>
  (key.length === 1 || key === 'Enter' || key === 'Backspace') && !ctrlKey && !altKey && !metaKey;

/** Types these keys into the field that comes after `before`, as soon as it has the focus; nowhere when none gets it. */
export function typeAhead(keys: readonly string[], before: HTMLInputElement | null, patience = PATIENCE): void {
  if (keys.length === 0 || patience === 0) return;
  const field = document.activeElement;
  if (!(field instanceof HTMLInputElement) || field === before)
    return void requestAnimationFrame(() => typeAhead(keys, before, patience - 1));
  const enter = keys.indexOf('Enter');
  const typed = enter < 0 ? keys : keys.slice(0, enter);
  if (typed.length > 0) typeInto(field, typed.reduce(edited, ''));
  if (enter < 0) return;
  // As from a hand, Enter follows when the screen has drawn what was typed; what follows it is for the next field again.
  requestAnimationFrame(() => {
    press(field, 'Enter');
    typeAhead(keys.slice(enter + 1), field);
  });
}

const edited = (text: string, key: string) => (key === 'Backspace' ? text.slice(0, -1) : text + key);

/** Types into a field as a person would, so that the screen hears of it. */
export function typeInto(field: HTMLInputElement, text: string): void {
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/** Presses a key in a field. */
export function press(field: HTMLInputElement, key: string): void {
  for (const kind of ['keydown', 'keyup'])
    field.dispatchEvent(new KeyboardEvent(kind, { key, code: key, bubbles: true, cancelable: true }));
}
