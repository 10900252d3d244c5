// @vitest-environment jsdom
import { cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SCANNED } from '../ui/keys.ts';
import { listenToWedge, putScan, putWeight, useOpener, useScans } from './wedge.ts';

let end: () => void = () => undefined;
beforeEach(() => {
  document.body.innerHTML =
    '<main id="main"><button>Go</button><input id="text"><input id="tick" type="checkbox"></main>';
  end = listenToWedge();
});
afterEach(() => {
  end();
  cleanup();
  vi.useRealTimers();
});

const at = (id: string) => document.querySelector<HTMLInputElement>(`#${id}`) as HTMLInputElement;
/** Keys are told apart by when they come; what one test does is long over when the next begins. */
let clock = 0;
/** Keys as a scanner sends them, so many milliseconds apart. */
function keys(text: readonly string[], apart = 5, target: EventTarget = document.body, more: KeyboardEventInit = {}) {
  clock += 1000;
  let when = clock;
  const last: KeyboardEvent[] = [];
  for (const key of text) {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
    Object.defineProperty(event, 'timeStamp', { value: when });
    target.dispatchEvent(event);
    last.push(event);
    when += apart;
  }
  return last.at(-1);
}
const listening = (take: (text: string) => unknown = () => true) => {
  const taken: string[] = [];
  renderHook(() =>
    useScans((text) => {
      taken.push(text);
      return take(text);
    }),
  );
  return taken;
};

describe('keys without a field', () => {
  it('that come as fast as a scanner sends them are a scan; its Enter presses nothing', () => {
    const taken = listening();
    let heard = 0;
    window.addEventListener(SCANNED, () => (heard += 1), { once: true });
    const enter = keys([...'B-0012', 'Enter']);
    expect([taken, heard, enter?.defaultPrevented]).toEqual([['B-0012'], 1, true]);
  });

  it('that come as fast as a hand can, or are too few, are none', () => {
    const taken = listening();
    expect(keys([...'B-0012', 'Enter'], 91)?.defaultPrevented).toBe(false);
    keys(['B', '1', 'Enter']);
    expect(taken).toEqual([]);
    keys(['B', '1', '2', 'Enter'], 90);
    expect(taken).toEqual(['B12']);
  });

  it('begin anew after each scan, and after a pause', () => {
    const taken = listening();
    keys([...'AAA', 'Enter', ...'BBB', 'Enter']);
    keys([...'CC']);
    keys([...'DDDD', 'Enter']);
    expect(taken).toEqual(['AAA', 'BBB', 'DDDD']);
  });

  it('leave out what is no text, and mean something else with Ctrl, Alt or Meta', () => {
    const taken = listening();
    keys(['Shift', 'A', 'Shift', 'B', 'C', 'Enter']);
    for (const held of [{ ctrlKey: true }, { altKey: true }, { metaKey: true }])
      keys([...'XYZ', 'Enter'], 5, document.body, held);
    expect(taken).toEqual(['ABC']);
  });

  it('carry the separator of GS1 data, which types nothing by itself', () => {
    const taken = listening();
    clock += 1000;
    let when = clock;
    let separator: KeyboardEvent | undefined;
    for (const key of [...'10AB', ']', ...'21C', 'Enter']) {
      const event = new KeyboardEvent('keydown', { key, ctrlKey: key === ']', bubbles: true, cancelable: true });
      Object.defineProperty(event, 'timeStamp', { value: when });
      document.body.dispatchEvent(event);
      if (key === ']') separator = event;
      when += 5;
    }
    expect(taken).toEqual(['10AB\u001d21C']);
    expect(separator?.defaultPrevented).toBe(true);
    const field = at('text');
    field.value = '10AB';
    keys([']'], 5, field, { ctrlKey: true });
    expect(field.value).toBe('10AB\u001d');
  });

  it('go into the field that is typed in, and a tick is no such field', () => {
    const taken = listening();
    keys([...'B-0012', 'Enter'], 5, at('text'));
    expect(taken).toEqual([]);
    keys([...'B-0013', 'Enter'], 5, at('tick'));
    expect(taken).toEqual(['B-0013']);
  });
});

describe('a scan', () => {
  it('goes to whoever came last, and to the one before where that can make nothing of it', () => {
    const first = listening();
    const second = listening((text) => (text === 'OTHER' ? false : undefined));
    expect(putScan('MINE')).toBe('screen');
    expect(putScan('OTHER')).toBe('screen');
    expect([first, second]).toEqual([['OTHER'], ['MINE', 'OTHER']]);
    cleanup();
    expect(putScan('MINE')).toBe('nowhere');
  });

  it('goes nowhere while something lies over the page', () => {
    const taken = listening();
    document.getElementById('main')?.setAttribute('inert', '');
    expect(putScan('B-0012')).toBe('nowhere');
    expect(taken).toEqual([]);
  });

  it('of a sheet opens it, wherever somebody is', () => {
    const taken = listening();
    const opened: string[] = [];
    const { unmount } = renderHook(() => useOpener((text) => (text.startsWith('B-') ? opened.push(text) > 0 : false)));
    expect([putScan('B-0012'), putScan('OAK')]).toEqual(['screen', 'screen']);
    expect([opened, taken]).toEqual([['B-0012'], ['OAK']]);
    unmount();
    putScan('B-0013');
    expect(taken).toEqual(['OAK', 'B-0013']);
  });

  it('is put into the focused field with an Enter after it; a weight takes the place of what stood there', () => {
    vi.useFakeTimers();
    const field = at('text');
    const pressed: string[] = [];
    field.addEventListener('keydown', ({ key }) => pressed.push(key));
    field.focus();
    expect(putScan('OAK')).toBe('field');
    expect([field.value, pressed]).toEqual(['OAK', []]);
    vi.advanceTimersByTime(30);
    expect(pressed).toEqual(['Enter']);
    expect([putWeight('1.250 kg'), field.value]).toEqual(['field', '1.250 kg']);
    at('tick').focus();
    expect([putWeight('2 kg'), at('tick').value]).toEqual(['nowhere', 'on']);
    field.blur();
    at('tick').blur();
    expect(putWeight('2 kg')).toBe('nowhere');
  });
});
