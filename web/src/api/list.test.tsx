// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { everyRow, useList } from './list.ts';

/** So many pages of one row each, as the server gives them. */
function serve(pages: number) {
  vi.stubGlobal(
    'fetch',
    vi.fn(async (url: string) => {
      const at = Number(new URL(url, 'http://shop').searchParams.get('cursor') ?? 1);
      return new Response(JSON.stringify({ rows: [{ id: at }], next: at < pages ? String(at + 1) : null }));
    }),
  );
}
function list(whole: boolean) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return renderHook(() => useList('orders', { show: 'open' }, whole), {
    wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
  });
}

beforeEach(() => serve(5));
afterEach(() => vi.unstubAllGlobals());

it('is read to its end where all of it is counted', async () => {
  const { result } = list(true);
  await waitFor(() => expect(result.current.data?.isMore).toBe(false));
  expect(result.current.data?.rows.map(({ id }) => id)).toEqual([1, 2, 3, 4, 5]);
});

it('goes on page by page where somebody asks for more', async () => {
  const { result } = list(false);
  await waitFor(() => expect(result.current.data?.rows.length).toBe(1));
  expect(result.current.data?.isMore).toBe(true);
  await act(() => result.current.pages.fetchNextPage());
  await waitFor(() => expect(result.current.data?.rows.map(({ id }) => id)).toEqual([1, 2]));
  expect(fetch).toHaveBeenCalledTimes(2);
});

it('is read whole for a file, telling how far it is, however little of it was shown', async () => {
  const { result } = list(false);
  await waitFor(() => expect(result.current.data?.rows.length).toBe(1));
  const told: number[] = [];
  let rows: readonly unknown[] = [];
  await act(async () => {
    rows = await everyRow(result.current.pages as never, (read) => told.push(read));
  });
  expect(rows).toEqual([1, 2, 3, 4, 5].map((id) => ({ id })));
  expect(told).toEqual([2, 3, 4]);
  await act(async () => {
    rows = await result.current.everyRow();
  });
  expect(rows).toHaveLength(5);
});

it('gives nothing for a file where a page cannot be had', async () => {
  const { result } = list(false);
  await waitFor(() => expect(result.current.data?.rows.length).toBe(1));
  const problem = { type: 'x', title: 'No', status: 409, code: 'wrong-state', detail: 'No.' };
  vi.stubGlobal('fetch', async () => new Response(JSON.stringify(problem), { status: 409 }));
  await act(() => expect(result.current.everyRow()).rejects.toMatchObject({ problem }));
});
