// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { notices } from './Notice.ts';
import { useEach } from './useEach.ts';

beforeEach(() => notices.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** A server that refuses some builds. */
function server(refused: readonly number[], before: () => Promise<void> = async () => {}) {
  const sent: string[] = [];
  vi.stubGlobal('fetch', async (url: string) => {
    await before();
    sent.push(url);
    const id = Number(/\d+/.exec(url)?.[0]);
    const problem = { type: 'x', title: 'No', status: 409, code: 'wrong-state', detail: `Build ${id} is over.` };
    return refused.includes(id)
      ? new Response(JSON.stringify(problem), { status: 409 })
      : new Response(JSON.stringify({ id, number: `B-${id}`, version: 2 }));
  });
  return sent;
}

const start = (ids: readonly number[]) =>
  ids.map((id) => ({ name: `B-${id}`, input: { params: { id }, body: { version: 1 } } }));
const said = () => notices.visibleToasts.map(({ content }) => content.text);

it('does each in its order, and says how many were done and why others were not', async () => {
  const sent = server([2, 3, 4, 5]);
  const { result } = renderHook(() => useEach('startBuild', 'build', 'started'));
  await act(() => result.current.run(start([1, 2, 3, 4, 5, 6])));
  expect(sent.map((url) => Number(/\d+/.exec(url)?.[0]))).toEqual([1, 2, 3, 4, 5, 6]);
  expect(said().sort()).toEqual([
    '2 builds started.',
    'Refused: B-2: Build 2 is over. B-3: Build 3 is over. B-4: Build 4 is over. And 1 more.',
  ]);
  expect(result.current.busy).toBe(false);
});

it('says nothing of what did not happen', async () => {
  server([]);
  const { result } = renderHook(() => useEach('startBuild', 'build', 'started'));
  await act(() => result.current.run(start([1])));
  expect(said()).toEqual(['1 build started.']);
  notices.clear();
  server([1, 2, 3]);
  await act(() => result.current.run(start([1, 2, 3])));
  expect(said()).toEqual(['Refused: B-1: Build 1 is over. B-2: Build 2 is over. B-3: Build 3 is over.']);
});

it('pressed again while it runs does nothing more', async () => {
  let release: () => void = () => undefined;
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  const sent = server([], () => held);
  const { result } = renderHook(() => useEach('startBuild', 'build', 'started'));
  let first: Promise<void> = Promise.resolve();
  act(() => {
    first = result.current.run(start([1]));
  });
  expect(result.current.busy).toBe(true);
  await act(() => result.current.run(start([1])));
  release();
  await act(() => first);
  expect(sent).toHaveLength(1);
});
