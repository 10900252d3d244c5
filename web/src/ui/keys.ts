/** What the window hears when a scanner was recognised by its speed: what it typed was meant for no field. */
export const SCANNED = 'yosegi-scanned';

export type TextField = HTMLInputElement | HTMLTextAreaElement;
export const isTextField = (element: Element | null): element is TextField =>
  element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement;

/** Types into a field as a person would, so that the screen hears of it. */
export function typeInto(field: TextField, text: string): void {
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value')?.set?.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/** Presses a key in a field. */
export function press(field: HTMLElement, key: string): void {
  for (const kind of ['keydown', 'keyup'])
    field.dispatchEvent(new KeyboardEvent(kind, { key, code: key, bubbles: true, cancelable: true }));
}
