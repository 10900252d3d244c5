// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { useCommand } from './client.ts';

afterEach(() => vi.unstubAllGlobals());

it('pressed twice in a hurry is sent once and told once, and again once it is over', async () => {
  const answer = () => new Response(JSON.stringify({ step: 2 }));
  const fetched = vi.fn(async () => answer());
  vi.stubGlobal('fetch', fetched);
  const client = new QueryClient();
  let told = 0;
  const { result } = renderHook(() => useCommand('setUp', () => (told += 1)), {
    wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
  });
  act(() => {
    result.current.mutate({ body: { step: 2 } });
    result.current.mutate({ body: { step: 2 } });
  });
  await waitFor(() => expect(result.current.isSuccess).toBe(true));
  expect([fetched.mock.calls.length, told]).toEqual([1, 1]);
  act(() => result.current.mutate({ body: { step: 2 } }));
  await waitFor(() => expect(told).toBe(2));
});
