// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Asks } from '../workers/coverage.worker.ts';
import { Crashed, NotReckoned, reckoner } from './reckoner.ts';
import { useCoverItems, useReckoned, useWorld } from './useCoverage.ts';

/** Addresses that were asked for. */
let asked: string[] = [];
let client = new QueryClient();
beforeEach(() => {
  asked = [];
  client = new QueryClient({ defaultOptions: { queries: { retryDelay: 0 } } });
  reckoner.version = null;
  vi.stubGlobal('fetch', async (url: string) => {
    asked.push(url);
    const ids = new URL(url, 'http://x').searchParams.get('ids');
    return new Response(
      JSON.stringify(
        (ids ?? '')
          .split(',')
          .filter(Boolean)
          .map((id) => ({ id: Number(id) })),
      ),
    );
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});
const within = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
/** A worker that takes in what it is given, under one name after the other; null: it lacks what changes are to. */
function loads(...names: (string | null | Error)[]) {
  return vi.spyOn(reckoner, 'load').mockImplementation(async () => {
    const next = names.length > 1 ? names.shift() : names[0];
    if (next instanceof Error) throw next;
    if (next) reckoner.version = next;
    return next ?? null;
  });
}

describe('what the worker knows', () => {
  it('is all of it first, then what has changed since', async () => {
    loads('one', 'two');
    const { result } = renderHook(() => useWorld(), { wrapper: within });
    await waitFor(() => expect(result.current.data).toBe('one'));
    await act(() => client.invalidateQueries({ queryKey: ['snapshot'] }));
    await waitFor(() => expect(result.current.data).toBe('two'));
    expect(asked[0]).not.toContain('since');
    expect(asked[1]).toBe(`${asked[0]}?since=one`);
  });

  it('is all of it again where changes are to something it lacks', async () => {
    reckoner.version = 'old';
    loads(null, 'new');
    const { result } = renderHook(() => useWorld(), { wrapper: within });
    await waitFor(() => expect(result.current.data).toBe('new'));
    expect(asked.map((url) => url.includes('since=old'))).toEqual([true, false]);
  });

  it('is tried twice more where the worker has crashed, and not where the server refuses', async () => {
    const load = loads(new Crashed());
    const { result } = renderHook(() => useWorld(), { wrapper: within });
    await waitFor(() => expect(result.current.isError).toBe(true));
    expect(load).toHaveBeenCalledTimes(3);
    cleanup();
    client = new QueryClient();
    const other = loads(new Error('no'));
    other.mockClear();
    const refused = renderHook(() => useWorld(), { wrapper: within }).result;
    await waitFor(() => expect(refused.current.isError).toBe(true));
    expect(other).toHaveBeenCalledTimes(1);
  });
});

describe('a question', () => {
  type Ask = Asks['scarce']['ask'];
  const ask = (items: readonly number[] | null) =>
    ({ items, worth: null, found: { value: null, orders: null }, drafts: false, aside: null }) as Ask;
  const answer = (n: number) => ({ scarce: [n] }) as never;
  const open = (first: Ask | null) =>
    renderHook((now: Ask | null) => useReckoned('scarce', now), { wrapper: within, initialProps: first });

  it('is answered once the worker knows, and anew when it is another or more is known', async () => {
    loads('one', 'two');
    const asks = vi.spyOn(reckoner, 'ask').mockImplementation(async (_, one) => answer((one as Ask).items?.[0] ?? 0));
    const { result, rerender } = open(ask([1]));
    await waitFor(() =>
      expect(result.current).toMatchObject({ answer: { scarce: [1] }, version: 'one', to: ask([1]) }),
    );
    rerender(ask([1]));
    rerender(ask([2]));
    await waitFor(() => expect(result.current.answer).toEqual({ scarce: [2] }));
    expect(asks).toHaveBeenCalledTimes(2);
    await act(() => client.invalidateQueries({ queryKey: ['snapshot'] }));
    await waitFor(() => expect(result.current.version).toBe('two'));
    expect(asks).toHaveBeenCalledTimes(3);
  });

  it('that nobody has put is not asked', async () => {
    loads('one');
    const asks = vi.spyOn(reckoner, 'ask').mockResolvedValue(answer(1));
    const { result, rerender } = open(null);
    await waitFor(() => expect(client.getQueryData(['snapshot'])).toBe('one'));
    expect([asks.mock.calls.length, result.current.answer]).toEqual([0, null]);
    rerender(ask([1]));
    await waitFor(() => expect(result.current.answer).toEqual({ scarce: [1] }));
  });

  it('shows nothing of an answer to the one before', async () => {
    loads('one');
    const answers: ((of: never) => void)[] = [];
    vi.spyOn(reckoner, 'ask').mockImplementation(() => new Promise((resolve) => answers.push(resolve as never)));
    const { result, rerender } = open(ask([1]));
    await waitFor(() => expect(answers).toHaveLength(1));
    rerender(ask([2]));
    await waitFor(() => expect(answers).toHaveLength(2));
    await act(async () => answers[1]?.(answer(2)));
    await act(async () => answers[0]?.(answer(1)));
    expect(result.current.answer).toEqual({ scarce: [2] });
  });

  it('that cannot be worked out says why, in words', async () => {
    loads('one');
    vi.spyOn(reckoner, 'ask').mockRejectedValue(new NotReckoned('Too many.'));
    const { result } = open(ask([1]));
    await waitFor(() => expect(result.current).toMatchObject({ refused: 'Too many.', answer: null, isBroken: false }));
  });

  it('is asked of a new worker where one has crashed, and given up after the third', async () => {
    loads('one', 'two', 'three', 'four');
    const asks = vi.spyOn(reckoner, 'ask').mockRejectedValue(new Crashed());
    const { result } = open(ask([1]));
    await waitFor(() => expect(result.current.isBroken).toBe(true));
    expect(asks).toHaveBeenCalledTimes(3);
    expect(result.current).toMatchObject({ answer: null, refused: null, version: 'three' });
  });
});

describe('names of items', () => {
  it('are asked for once each, in three batches at the most, and stay while others are fetched', async () => {
    const many = Array.from({ length: 1900 }, (_, at) => at + 1);
    const { result, rerender } = renderHook((ids: readonly number[]) => useCoverItems(ids), {
      wrapper: within,
      initialProps: [3, 1, 3],
    });
    expect(result.current.isWhole).toBe(false);
    await waitFor(() => expect(result.current.isWhole).toBe(true));
    expect([...result.current.items.keys()]).toEqual([1, 3]);
    const idsIn = (url = '') => new URL(url, 'http://x').searchParams.get('ids')?.split(',') ?? [];
    expect(asked.map((url) => idsIn(url))).toEqual([['1', '3']]);
    rerender(many);
    expect([result.current.isWhole, result.current.items.has(3)]).toEqual([false, true]);
    await waitFor(() => expect(result.current.isWhole).toBe(true));
    expect(asked.slice(1).map((url) => [idsIn(url).length, idsIn(url)[0]])).toEqual([
      [600, '1'],
      [600, '601'],
      [600, '1201'],
    ]);
    expect(result.current.items.size).toBe(1800);
  });

  it('are whole where none is asked for', () => {
    const { result } = renderHook(() => useCoverItems([]), { wrapper: within });
    expect([result.current.isWhole, result.current.items.size, asked.length]).toEqual([true, 0, 0]);
  });
});
