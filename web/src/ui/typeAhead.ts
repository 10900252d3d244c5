import type { KeyboardEvent } from 'react';

/** How many pictures of the screen a field may take to have the focus. */
const PATIENCE = 20;

/** Whether a key says something to whatever field comes next. */
export const isTypedAhead = ({ key, ctrlKey, altKey, metaKey }: KeyboardEvent): boolean =>
  (key.length === 1 || key === 'Enter' || key === 'Backspace') && !ctrlKey && !altKey && !metaKey;

/**
 * Types keys into the field that comes after `before`, as soon as it has the focus; into `before` itself where none gets it.
 * @param keys filled on while it is waited for, and emptied
 * @param onMoved told once it is known where they go
 */
export function typeAhead(
  keys: string[],
  before: HTMLInputElement | null,
  onMoved: () => void = () => {},
  patience = PATIENCE,
): void {
  const field = document.activeElement;
  const isThere = field instanceof HTMLInputElement && field !== before;
  if (!isThere && patience > 0) return void requestAnimationFrame(() => typeAhead(keys, before, onMoved, patience - 1));
  onMoved();
  const typed = keys.splice(0);
  if (!(field instanceof HTMLInputElement) || typed.length === 0) return;
  const enter = typed.indexOf('Enter');
  const text = enter < 0 ? typed : typed.slice(0, enter);
  // What stands in another field is chosen when it gets the focus, and is typed over.
  if (text.length > 0) typeInto(field, text.reduce(edited, isThere ? '' : field.value));
  if (enter < 0) return;
  // As from a hand, Enter follows when the screen has drawn what was typed; what follows it is for the next field again.
  requestAnimationFrame(() => {
    press(field, 'Enter');
    if (typed.length > enter + 1) typeAhead(typed.slice(enter + 1), field);
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
