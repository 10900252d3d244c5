// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useScreenForScans, useScreens } from './screens.ts';
import { listenToWedge, useScans } from './wedge.ts';

/** The pages of one browser, which hear each other at once and never themselves. */
const open = new Set<Channel>();
class Channel {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  constructor() {
    open.add(this);
  }
  postMessage(data: unknown): void {
    for (const other of open) if (other !== this) other.onmessage?.({ data });
  }
  close(): void {
    open.delete(this);
  }
}
/** What somebody says to all of them, as another page of this browser. */
const say = (data: unknown) => act(() => new Channel().postMessage(data));

beforeEach(() => {
  vi.stubGlobal('BroadcastChannel', Channel);
  document.body.innerHTML = '<main id="main"><h1>Pick</h1><input id="text"></main>';
});
afterEach(() => {
  cleanup();
  open.clear();
  vi.unstubAllGlobals();
});

const screens = () => renderHook(() => useScreens()).result;

describe('the screens of one browser', () => {
  it('are known to the stand-in as they come and go, each once', () => {
    const seen = screens();
    const here = (id: string, title: string) => ({ says: 'here', screen: { id, title, path: '/pick' } });
    say(here('a', 'Pick'));
    say(here('b', 'Ship'));
    say(here('a', 'Orders'));
    expect(seen.current.screens.map(({ id, title }) => [id, title])).toEqual([
      ['b', 'Ship'],
      ['a', 'Orders'],
    ]);
    say({ says: 'gone', id: 'b' });
    expect(seen.current.screens.map(({ id }) => id)).toEqual(['a']);
  });

  it('tell what they are when they are asked, and that they go', () => {
    const seen = screens();
    const page = renderHook(() => useScreenForScans('/pick'));
    expect(seen.current.screens).toMatchObject([{ title: 'Pick', path: '/' }]);
    document.querySelector('h1')?.replaceChildren('Orders');
    act(() => window.dispatchEvent(new Event('focus')));
    expect(seen.current.screens).toMatchObject([{ title: 'Orders' }]);
    page.unmount();
    expect(seen.current.screens).toEqual([]);
  });

  it('of the stand-ins take no scans themselves', () => {
    const seen = screens();
    renderHook(() => useScreenForScans('/devices/scanner'));
    renderHook(() => useScreenForScans('/devices/scale'));
    expect([seen.current.screens, open.size]).toEqual([[], 1]);
  });

  it('are listened to no more once the stand-in is left', () => {
    const { unmount } = renderHook(() => useScreens());
    unmount();
    expect(open.size).toBe(0);
    // Nobody is there to ask who is there.
    act(() => window.dispatchEvent(new Event('focus')));
  });
});

describe('a scan that is sent to a screen', () => {
  it('goes to whoever takes it there, and the stand-in hears how', () => {
    const end = listenToWedge();
    const seen = screens();
    renderHook(() => useScreenForScans('/pick'));
    const taken: string[] = [];
    const page = renderHook(() => useScans((text) => void taken.push(text)));
    const id = seen.current.screens[0]?.id ?? '';
    act(() => seen.current.send(id, 'B-0012'));
    expect([taken, seen.current.answer]).toEqual([['B-0012'], 'screen']);
    page.unmount();
    act(() => seen.current.send(id, 'B-0013'));
    expect([taken, seen.current.answer]).toEqual([['B-0012'], 'nowhere']);
    act(() => seen.current.send('another', 'B-0014'));
    expect([taken, seen.current.answer]).toEqual([['B-0012'], null]);
    end();
  });

  it('of a weight goes into the focused field, as the company writes it', () => {
    const seen = screens();
    renderHook(() => useScreenForScans('/pick'));
    const field = document.querySelector<HTMLInputElement>('#text') as HTMLInputElement;
    const id = seen.current.screens[0]?.id ?? '';
    act(() => seen.current.weigh(id, '1.25'));
    expect([seen.current.answer, field.value]).toEqual(['nowhere', '']);
    field.focus();
    act(() => seen.current.weigh(id, '1.25'));
    expect([seen.current.answer, field.value]).toEqual(['field', '1.250 kg']);
    act(() => seen.current.weigh('another', '2'));
    expect([seen.current.answer, field.value]).toEqual([null, '1.250 kg']);
  });
});
