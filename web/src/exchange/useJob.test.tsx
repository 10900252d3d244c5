// @vitest-environment jsdom
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { useJob } from './useJob.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

/** A server whose import goes on by a step with each question. */
function server(...states: (string | number)[]) {
  const asked: (string | null)[] = [];
  vi.stubGlobal('fetch', async (url: string) => {
    asked.push(new URL(url, 'http://x').searchParams.get('seen'));
    const state = states[asked.length - 1] ?? 'reading';
    if (typeof state === 'number')
      return new Response(JSON.stringify({ type: 'x', title: 'No', status: state, code: 'x', detail: 'Gone.' }), {
        status: state,
      });
    return new Response(JSON.stringify({ id: 'a', state, step: asked.length }));
  });
  return asked;
}

it.each(['done', 'failed', 'cancelled'])('is followed step by step until it is %s', async (end) => {
  const asked = server('reading', 'applying', end);
  const { result } = renderHook(() => useJob('a'));
  await waitFor(() => expect(result.current.job?.state).toBe(end));
  expect(asked).toEqual([null, '1', '2']);
  expect(result.current.error).toBeNull();
});

it('says why it cannot be followed, and follows anew when it is told to', async () => {
  const asked = server('reading', 404, 'done');
  const { result } = renderHook(() => useJob('a'));
  await waitFor(() => expect(result.current.error).toMatchObject({ problem: { status: 404 } }));
  expect(result.current.job?.state).toBe('reading');
  act(() => result.current.reload());
  await waitFor(() => expect(result.current.job?.state).toBe('done'));
  expect(asked).toEqual([null, '1', null]);
});

it('is asked for no more once nobody looks', async () => {
  const asked = server('reading', 'reading', 'reading', 'done');
  const { unmount } = renderHook(() => useJob('a'));
  unmount();
  const before = asked.length;
  // What was on its way comes, and nobody asks on.
  await act(async () => {});
  expect([before, asked.length]).toEqual([1, 1]);
});
