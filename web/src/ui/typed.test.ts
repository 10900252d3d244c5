// @vitest-environment jsdom
import { beforeEach, expect, it } from 'vitest';
import { forgetKept, keep, keptOf, takeOver } from './typed.ts';

beforeEach(() => localStorage.clear());
/** As another tab keeps it. */
const byTab = (tab: string, key: string, value: unknown, at = Date.now()) =>
  localStorage.setItem(`yosegi.typed.2.${tab}.${key}`, JSON.stringify({ at, value }));

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
  expect(localStorage.getItem('yosegi.typed.2.open.move')).not.toBeNull();
  expect(localStorage.getItem('yosegi.typed.2.closed.move')).toBeNull();
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
