// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, useSearchParams } from 'react-router';
import { afterEach, expect, it, vi } from 'vitest';
import { useListLayout } from './useListLayout.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const columns = [
  { key: 'code', width: 90, usual: true },
  { key: 'free', width: 80, usual: true },
  { key: 'value', width: 80 },
];

/** A list of items as this person has it, on a server that keeps their columns. */
function open(kept: object[], address = '/') {
  const saved: { list: string; name: string; search: string }[] = [];
  vi.stubGlobal('fetch', async (_: string, init: RequestInit = {}) => {
    if (init.method !== 'POST') return new Response(JSON.stringify(kept));
    saved.push(JSON.parse(String(init.body)));
    return new Response(JSON.stringify({ id: 1, ...saved.at(-1) }));
  });
  const client = new QueryClient();
  const within = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>
    </QueryClientProvider>
  );
  const { result } = renderHook(() => ({ layout: useListLayout('items', columns), search: useSearchParams()[0] }), {
    wrapper: within,
  });
  return { saved, layout: () => result.current.layout, search: () => result.current.search };
}
const view = (search: string, more: object = {}) => ({ id: 5, list: 'items.layout', name: 'columns', search, ...more });

it('is as usual until somebody has it otherwise; then as they left it, widths too', async () => {
  const usual = open([]);
  expect([usual.layout().shown, usual.layout().widths]).toEqual([['code', 'free'], {}]);
  cleanup();
  const own = open([view('value:120.code.gone:40')]);
  await waitFor(() => expect(own.layout().shown).toEqual(['value', 'code']));
  expect(own.layout().widths).toEqual({ value: 120, gone: 40 });
});

it('is not taken from another list, nor from a search that somebody kept', async () => {
  const { layout } = open([
    view('value', { list: 'orders.layout' }),
    view('value', { name: 'mine' }),
    view('free', { list: 'items.layout' }),
  ]);
  await waitFor(() => expect(layout().shown).toEqual(['free']));
});

it('is as the address says, where that says anything', async () => {
  const { layout } = open([view('value')], '/?cols=free.gone.code');
  await waitFor(() => expect(layout().shown).toEqual(['free', 'code']));
});

it('stays in the address and with the person when it is changed: what is shown, in which order, how wide', async () => {
  const { layout, search, saved } = open([view('value:120.code')]);
  await waitFor(() => expect(layout().shown).toEqual(['value', 'code']));
  act(() => layout().setShown(['code', 'free']));
  await waitFor(() => expect(saved).toHaveLength(1));
  expect(saved[0]).toEqual({ list: 'items.layout', name: 'columns', search: 'code.free' });
  await waitFor(() => expect(search().get('cols')).toBe('code.free'));
  expect(layout().shown).toEqual(['code', 'free']);
  act(() => layout().setWidth('free', 140.4));
  await waitFor(() => expect(saved).toHaveLength(2));
  expect(saved[1]?.search).toBe('code.free:140');
  expect(layout().widths).toMatchObject({ free: 140, value: 120 });
});
