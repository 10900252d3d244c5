// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Palette } from './Palette.tsx';

/** What is open by Ctrl K, over a page; and where one is. */
function opened() {
  const onClose = vi.fn();
  const onKeys = vi.fn();
  const router = createMemoryRouter([{ path: '*', element: <Palette onClose={onClose} onKeys={onKeys} /> }]);
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  );
  const box = screen.getByRole('searchbox', { name: 'Find or do' });
  const type = (value: string) => fireEvent.change(box, { target: { value } });
  const press = (key: string) => fireEvent.keyDown(box, { key });
  return { onClose, onKeys, type, press, at: () => router.state.location.pathname };
}
const found = (code: string) => ({
  ...{ kind: 'item', id: 7, code, name: `The ${code}`, state: null, tile: code, sameName: false },
  stock: { quantity: '3', unit: 'pcs' },
});
const answers = (how: (asked: string) => Promise<Response>) =>
  vi.stubGlobal('fetch', (url: string) => how(new URL(url, 'http://localhost').searchParams.get('q') ?? ''));

beforeEach(() => {
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
  vi.stubGlobal('CSS', { escape: (text: string) => text });
  Element.prototype.scrollIntoView ??= () => {};
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it('goes at once to what was typed in a hurry, once it is found', async () => {
  let answer = () => {};
  answers((asked) => new Promise((done) => (answer = () => done(new Response(JSON.stringify([found(asked)]))))));
  const { type, press, at, onClose } = opened();
  type('LEG');
  press('Enter');
  expect(at()).toBe('/');
  await waitFor(() => {
    answer();
    expect(at()).toBe('/stock/items/7');
  });
  expect(onClose).toHaveBeenCalledTimes(1);
});

it('goes to a page by its name also while nothing can be looked up, and says so where nothing else is found', async () => {
  answers(() => Promise.reject(new TypeError('Failed to fetch')));
  const { type, press, at } = opened();
  type('LEG-9');
  await screen.findByText(/^Couldn’t search\. /);
  expect(screen.queryByText('Nothing matches that name.')).toBe(null);
  type('Buy list');
  press('Enter');
  await waitFor(() => expect(at()).toBe('/buying'));
});
