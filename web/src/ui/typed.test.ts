// @vitest-environment jsdom
import { beforeEach, expect, it } from 'vitest';
import { z } from 'zod';
import { forgetKept, keep, keptOf as keptLike, takeOver, takeOverClosed, typedBy, whenPutAside } from './typed.ts';

beforeEach(() => localStorage.clear());
const keptOf = (key: string) => keptLike<unknown>(key, z.unknown());
/** As another tab keeps it. */
const byTab = (tab: string, key: string, value: unknown, at = Date.now()) =>
  localStorage.setItem(`yosegi.typed.4.${tab}.0.${key}`, JSON.stringify({ at, value }));

it('is kept until it is forgotten', () => {
  keep('order.new.head', { note: 'by van' });
  expect(keptOf('order.new.head')).toEqual({ note: 'by van' });
  forgetKept('order.new.head');
  expect(keptOf('order.new.head')).toBeUndefined();
});

it('of a closed tab is taken over, of an open one it is not', () => {
  byTab('closed', 'move', 'two boxes');
  byTab('open', 'move', 'three boxes');
  takeOver(new Set(['open']));
  expect(keptOf('move')).toBe('two boxes');
  expect(localStorage.getItem('yosegi.typed.4.open.0.move')).not.toBeNull();
  expect(localStorage.getItem('yosegi.typed.4.closed.0.move')).toBeNull();
});

it('of an open tab stays its own where the browser has no locks, as over plain http', async () => {
  byTab('closed', 'move', 'two boxes');
  byTab('open', 'count', 'three boxes');
  const other = new BroadcastChannel('yosegi.tab');
  other.onmessage = ({ data }: MessageEvent<{ ask?: string }>) => {
    if (data.ask) other.postMessage({ here: 'open', to: data.ask });
  };
  await takeOverClosed();
  other.close();
  expect([keptOf('move'), keptOf('count')]).toEqual(['two boxes', undefined]);
});

it('the newest of several wins, and what is very old is let go', () => {
  byTab('first', 'move', 'old', Date.now() - 5000);
  byTab('second', 'move', 'new', Date.now() - 1000);
  byTab('third', 'count', 'last year', Date.now() - 400 * 24 * 3600 * 1000);
  takeOver(new Set());
  expect(keptOf('move')).toBe('new');
  expect(keptOf('count')).toBeUndefined();
  // What is typed here goes before what is newer elsewhere, which waits for its turn.
  keep('move', 'mine');
  byTab('fourth', 'move', 'theirs', Date.now() + 1000);
  takeOver(new Set());
  expect(keptOf('move')).toBe('mine');
  forgetKept('move');
  takeOver(new Set());
  expect(keptOf('move')).toBe('theirs');
});

it('is of whoever typed it: another in the same tab does not see it, and finds their own again', () => {
  typedBy(1);
  keep('move', 'of the first');
  typedBy(2);
  expect(keptOf('move')).toBeUndefined();
  keep('move', 'of the second');
  forgetKept('move');
  localStorage.setItem('yosegi.typed.4.closed.2.count', JSON.stringify({ at: Date.now(), value: 'left open' }));
  typedBy(1);
  takeOver(new Set());
  expect([keptOf('move'), keptOf('count')]).toEqual(['of the first', undefined]);
  typedBy(2);
  expect(keptOf('count')).toBe('left open');
  typedBy(0);
});

it('is put aside and told of, where it does not fit its screen or is no text of ours', () => {
  const told: string[] = [];
  whenPutAside((key) => told.push(key));
  const shape = z.object({ used: z.map(z.number(), z.string()) });
  keep('finish.7', { used: new Map([[3, '0.5']]) });
  expect(keptLike('finish.7', shape)).toEqual({ used: new Map([[3, '0.5']]) });
  keep('finish.7', { used: {} });
  expect(keptLike('finish.7', shape)).toBeUndefined();
  const [name = ''] = Object.keys(localStorage).filter((one) => one.includes('aside'));
  expect(localStorage.getItem(name)).toContain('"used":{}');
  keep('finish.8', 1);
  const own = Object.keys(localStorage).find((one) => one.endsWith('finish.8') && !one.includes('aside')) ?? '';
  for (const text of ['{', 'null', '[]', '7']) {
    localStorage.setItem(own, text);
    expect(keptLike('finish.8', shape)).toBeUndefined();
  }
  expect(told).toEqual(['finish.7', 'finish.8', 'finish.8', 'finish.8', 'finish.8']);
  localStorage.setItem('yosegi.typed.4.closed.0.move', '{');
  takeOver(new Set());
});
