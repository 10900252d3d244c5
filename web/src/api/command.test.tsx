// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { queryClient, refetch, useCommand, useQuestion } from './client.ts';

type Answer = () => Response | Promise<Response>;
const says = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
const refuses = (code: string, status = 409) =>
  says({ type: 'x', title: 'No', status, code, detail: 'It did not.' }, status);
const lost: Answer = () => Promise.reject(new TypeError('Failed to fetch'));

/** A server that answers one after the other; what was sent is kept. */
function server(...answers: readonly Answer[]) {
  const left = [...answers];
  const last = left.at(-1) ?? (() => says({}));
  const sent: { method: string; url: string; key: string | null }[] = [];
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    const headers = new Headers(init.headers);
    sent.push({ method: init.method ?? 'GET', url, key: headers.get('idempotency-key') });
    return (left.shift() ?? last)();
  });
  const commands = () => sent.filter(({ method }) => method !== 'GET');
  const asked = (url: string) => sent.filter((one) => one.method === 'GET' && one.url.startsWith(url)).length;
  return { commands, asked };
}

let client = new QueryClient();
const within = ({ children }: { children: React.ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
afterEach(() => {
  cleanup();
  client = new QueryClient();
  vi.unstubAllGlobals();
});
const STEP = { body: { step: 2 } };
const setUp = (onDone?: () => void, atOnce?: () => void) =>
  renderHook(() => useCommand('setUp', onDone, atOnce), { wrapper: within }).result;

describe('a command', () => {
  it('pressed twice in a hurry is sent once and told once, and again once it is over', async () => {
    const { commands } = server(() => says({ step: 2 }));
    let told = 0;
    const command = setUp(() => (told += 1));
    act(() => {
      command.current.mutate(STEP);
      command.current.mutate(STEP);
    });
    await waitFor(() => expect(command.current.isSuccess).toBe(true));
    expect([commands().length, told]).toEqual([1, 1]);
    act(() => command.current.mutate(STEP));
    await waitFor(() => expect(told).toBe(2));
    const [first, second] = commands();
    expect(first?.key).toMatch(/.{8}/);
    // A second save of the same form is another command.
    expect(second?.key).not.toBe(first?.key);
  });

  it('keeps its key until it was answered, and has another for anything else', async () => {
    const { commands } = server(lost, lost, () => says({ step: 3 }));
    const command = setUp();
    const send = async (step: number) => {
      const before = commands().length;
      act(() => command.current.mutate({ body: { step } }));
      await waitFor(() => expect([commands().length, command.current.isPending]).toEqual([before + 1, false]));
    };
    await send(2);
    expect(command.current.isError).toBe(true);
    await send(2);
    await send(3);
    const [one, same, other] = commands().map(({ key }) => key);
    expect(same).toBe(one);
    expect(other).not.toBe(one);
  });

  it('is done once the records that are shown are as they are now; what must not wait for them does not', async () => {
    let release: () => void = () => undefined;
    const held = new Promise<void>((resolve) => {
      release = resolve;
    });
    const record = async () => {
      await held;
      return says({ id: 7 });
    };
    const { asked } = server(
      () => says({ id: 7 }),
      () => says({ step: 2 }),
      record,
    );
    const shown = renderHook(() => useQuestion('item', { params: { id: 7 } }), { wrapper: within }).result;
    await waitFor(() => expect(shown.current.isSuccess).toBe(true));
    const order: string[] = [];
    const command = setUp(
      () => order.push('done'),
      () => order.push('at once'),
    );
    act(() => command.current.mutate(STEP));
    await waitFor(() => expect(asked('/api/items/7')).toBe(2));
    expect([order, command.current.isPending]).toEqual([['at once'], true]);
    release();
    await waitFor(() => expect(order).toEqual(['at once', 'done']));
  });

  it.each([
    ['stale-save', 2],
    ['wrong-state', 1],
  ])('refused as %s shows what stands there now: the record is asked for %i times', async (code, times) => {
    const { asked } = server(
      () => says({ id: 7 }),
      () => refuses(code),
      () => says({ id: 7 }),
    );
    const shown = renderHook(() => useQuestion('item', { params: { id: 7 } }), { wrapper: within }).result;
    await waitFor(() => expect(shown.current.isSuccess).toBe(true));
    let told = 0;
    const command = setUp(() => (told += 1));
    act(() => command.current.mutate(STEP));
    await waitFor(() => expect(command.current.isError).toBe(true));
    await waitFor(() => expect([asked('/api/items/7'), client.isFetching()]).toEqual([times, 0]));
    expect(told).toBe(0);
  });
});

describe('a question', () => {
  it('that is refused is not asked again, one that was lost is, twice', async () => {
    const retry = queryClient.getDefaultOptions().queries?.retry;
    client = new QueryClient({ defaultOptions: { queries: { ...(retry ? { retry } : {}), retryDelay: 0 } } });
    const refused = server(() => refuses('not-found', 404));
    const item = (id: number) => renderHook(() => useQuestion('item', { params: { id } }), { wrapper: within }).result;
    const one = item(1);
    await waitFor(() => expect(one.current.isError).toBe(true));
    expect(refused.asked('/api/items/1')).toBe(1);
    const gone = server(lost);
    const two = item(2);
    await waitFor(() => expect(two.current.isError).toBe(true));
    expect(gone.asked('/api/items/2')).toBe(3);
  });

  it('is fetched again for a topic it depends on, and for no other', async () => {
    const { asked } = server(() => says([]));
    const list = renderHook(() => useQuestion('supplier', { params: { id: 1 } }), { wrapper: within }).result;
    await waitFor(() => expect(list.current.isSuccess).toBe(true));
    act(() => refetch(['orders', 'stock'], client));
    expect(client.isFetching()).toBe(0);
    act(() => refetch(['orders', 'buying'], client));
    await waitFor(() => expect(asked('/api/suppliers/1')).toBe(2));
  });

  it('about no record is fetched again, too, after a command', async () => {
    const { asked } = server(
      () => says([]),
      () => says({ step: 2 }),
      () => says([]),
    );
    const stores = renderHook(() => useQuestion('stores', {}), { wrapper: within }).result;
    await waitFor(() => expect(stores.current.isSuccess).toBe(true));
    const command = setUp();
    act(() => command.current.mutate(STEP));
    await waitFor(() => expect(asked('/api/stores')).toBe(2));
  });
});
