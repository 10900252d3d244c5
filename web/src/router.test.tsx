// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import { RouterProvider, useNavigate, useSearchParams } from 'react-router';
import { afterEach, expect, it, vi } from 'vitest';
import { useCommand } from './api/client.ts';
import { makeRouter } from './router.ts';

/** Page a asks for something; once that is done it goes on to another page, or shows it in its own address. */
function PageA({ onTold }: { onTold: () => void }) {
  const go = useNavigate();
  const [, setSearch] = useSearchParams();
  const leadOn = useCommand('setUp', () => {
    onTold();
    void go('/made');
  });
  const show = useCommand('setUp', () => {
    onTold();
    setSearch({ step: '2' });
  });
  return (
    <>
      <button type="button" onClick={() => leadOn.mutate({ body: { step: 2 } })}>
        Lead on
      </button>
      <button type="button" onClick={() => show.mutate({ body: { step: 2 } })}>
        Show
      </button>
    </>
  );
}

/** The application at page a, and a server that answers only when it is let. */
function atA() {
  window.history.replaceState(null, '', '/a');
  let answer = () => {};
  vi.stubGlobal('fetch', () => new Promise((done) => (answer = () => done(new Response('{"step":2}')))));
  const onTold = vi.fn();
  const router = makeRouter([
    { path: '/a', element: <PageA onTold={onTold} /> },
    { path: '/b', element: <h1>B</h1> },
    { path: '/made', element: <h1>Made</h1> },
  ]);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  );
  const press = (name: string) => act(() => screen.getByRole('button', { name }).click());
  const answered = async () => {
    await waitFor(() => {
      answer();
      expect(onTold).toHaveBeenCalledTimes(1);
    });
  };
  const at = () => `${window.location.pathname}${window.location.search}`;
  return { router, press, answered, at };
}
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it.each([
  ['Lead on', '/made'],
  ['Show', '/a?step=2'],
])('%s: goes on once it is answered', async (name, to) => {
  const { press, answered, at } = atA();
  press(name);
  await answered();
  await waitFor(() => expect(at()).toBe(to));
});

it.each(['Lead on', 'Show'])(
  '%s: takes nobody away who has gone elsewhere meanwhile, and is told all the same',
  async (name) => {
    const { router, press, answered, at } = atA();
    press(name);
    await act(() => router.navigate('/b'));
    await answered();
    await act(async () => {});
    expect(at()).toBe('/b');
    // And later ways are free again.
    await act(() => router.navigate('/made'));
    expect(at()).toBe('/made');
  },
);
