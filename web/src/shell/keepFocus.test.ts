// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { keepFocus } from './keepFocus.ts';

let end: () => void;
beforeEach(() => {
  document.body.innerHTML = `
    <main id="main">
      <h1>Lines</h1>
      <table><tbody>
        <tr id="a"><td><input aria-label="a" /></td><td><button>Remove a</button></td></tr>
        <tr id="b"><td><input aria-label="b" /></td><td><button>Remove b</button></td></tr>
        <tr id="c"><td><input aria-label="c" /></td><td><button>Remove c</button></td></tr>
      </tbody></table>
      <div id="form"><button>Save</button></div>
      <p><button>Post</button></p>
    </main>
    <div id="notice"><button>Dismiss</button></div>`;
  end = keepFocus();
});
afterEach(() => end());

const button = (name: string) => [...document.querySelectorAll('button')].find((one) => one.textContent === name);
const focused = () => document.activeElement?.textContent || document.activeElement?.tagName;
/** As long as the focus would take to be moved, and longer. */
async function frames(): Promise<void> {
  for (let n = 0; n < 8; n += 1) await new Promise((resolve) => requestAnimationFrame(resolve));
}
const remove = (selector: string) => document.querySelector(selector)?.remove();

it('goes to the same column of the next row, or of the one before', async () => {
  button('Remove b')?.focus();
  remove('#b');
  await vi.waitFor(() => expect(focused()).toBe('Remove c'));
  remove('#c');
  await vi.waitFor(() => expect(focused()).toBe('Remove a'));
  remove('#a');
  await vi.waitFor(() => expect(focused()).toBe('Save'));
});

it('goes on to what follows a form that is closed, and back to the page from what lay over it', async () => {
  button('Save')?.focus();
  remove('#form');
  await vi.waitFor(() => expect(focused()).toBe('Post'));
  button('Dismiss')?.focus();
  remove('#notice');
  await vi.waitFor(() => expect(focused()).toBe('Post'));
});

it('goes back to where one was when what was pressed cannot be pressed again for now', async () => {
  document.querySelector<HTMLElement>('#b input')?.focus();
  const save = button('Save');
  save?.focus();
  // A browser takes the focus from what is disabled; this one leaves it there.
  save?.blur();
  save?.setAttribute('disabled', '');
  await vi.waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toBe('b'));
  remove('#b');
  button('Post')?.focus();
  button('Post')?.blur();
  button('Post')?.setAttribute('disabled', '');
  await vi.waitFor(() => expect(focused()).toBe('Lines'));
});

it('goes back to the button that opened what is closed, however one moved in it', async () => {
  const open = (name: string, making = () => {}) => {
    button(name)?.focus();
    button(name)?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    const asked = document.createElement('div');
    asked.id = 'asked';
    asked.innerHTML = '<input /><button>Not now</button>';
    document.getElementById('form')?.after(asked);
    making();
    asked.querySelector('input')?.focus();
    return asked;
  };
  open('Save').querySelector('button')?.focus();
  remove('#asked');
  await vi.waitFor(() => expect(focused()).toBe('Save'));
  // What opened it made room for it, and is there again.
  const opener = button('Save');
  const again = opener?.cloneNode(true) as Element;
  const asked = open('Save', () => opener?.remove());
  asked.replaceWith(again);
  await vi.waitFor(() => expect(document.activeElement).toBe(again));
  // And so it does where the form comes a moment later, and the focus was kept elsewhere meanwhile.
  const late = again.cloneNode(true) as Element;
  again.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  again.remove();
  await vi.waitFor(() => expect(focused()).toBe('Post'));
  const form = document.createElement('div');
  form.innerHTML = '<input />';
  document.querySelector('table')?.after(form);
  form.querySelector('input')?.focus();
  form.replaceWith(late);
  await vi.waitFor(() => expect(document.activeElement).toBe(late));
  document.getElementById('form')?.append(late);
  // What opened it is gone as well: the next thing.
  open('Save');
  remove('#asked');
  remove('#form');
  await vi.waitFor(() => expect(focused()).toBe('Post'));
  // By Tab it was reached, not opened.
  button('Post')?.focus();
  button('Post')?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Tab', bubbles: true }));
  button('Remove a')?.focus();
  remove('#a');
  await vi.waitFor(() => expect(focused()).toBe('Remove b'));
});

it('goes to the same place of what has come instead', async () => {
  button('Remove b')?.focus();
  const row = document.getElementById('b');
  const other = document.createElement('tr');
  other.innerHTML = '<td><input aria-label="b, anew" /></td><td><button>Remove b, anew</button></td>';
  row?.replaceWith(other);
  await vi.waitFor(() => expect(focused()).toBe('Remove b, anew'));
});

it('moves nothing where it has been put elsewhere, or where somebody left it nowhere', async () => {
  button('Remove b')?.focus();
  remove('#b');
  button('Post')?.focus();
  await frames();
  expect(focused()).toBe('Post');
  button('Post')?.blur();
  remove('#c');
  await frames();
  expect(document.activeElement).toBe(document.body);
});

it('goes to the heading where nothing is left on the page, and not to what was said at its foot', async () => {
  remove('table');
  remove('#form');
  button('Post')?.focus();
  remove('p');
  await vi.waitFor(() => expect(focused()).toBe('Lines'));
});

it('goes back to the page from a dialog that goes, and not to what was said at its foot', async () => {
  button('Post')?.focus();
  const dialog = document.createElement('div');
  dialog.innerHTML = '<button>Find</button>';
  document.body.insertBefore(dialog, document.getElementById('notice'));
  button('Find')?.focus();
  remove('p');
  dialog.remove();
  await vi.waitFor(() => expect(focused()).toBe('Lines'));
});
