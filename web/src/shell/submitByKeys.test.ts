// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it } from 'vitest';
import { submitByKeys } from './submitByKeys.ts';

let end: () => void;
let sent = 0;
beforeEach(() => {
  sent = 0;
  document.body.innerHTML = '<form><textarea></textarea><button type="submit">Save</button></form><input />';
  document.querySelector('form')?.addEventListener('submit', (event) => {
    event.preventDefault();
    sent += 1;
  });
  end = submitByKeys();
});
afterEach(() => end());

const press = (selector: string, ctrlKey = true) =>
  document
    .querySelector(selector)
    ?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', ctrlKey, bubbles: true, cancelable: true }));

it('sends the form one types in by Ctrl Enter, unless its button is off', () => {
  press('textarea', false);
  press('input');
  expect(sent).toBe(0);
  press('textarea');
  expect(sent).toBe(1);
  document.querySelector('button')?.setAttribute('disabled', '');
  press('textarea');
  expect(sent).toBe(1);
});
