// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { type PickJob, usePick } from './job.ts';
import { claim, pickQueue, usePickQueue } from './pickQueue.ts';

/** What was sent, and whether the server refuses it. */
let sent: { url: string; body: unknown }[] = [];
let refuses = false;
beforeEach(() => {
  [sent, refuses] = [[], false];
  localStorage.clear();
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    sent.push({ url, body: init.body ? JSON.parse(String(init.body)) : null });
    const problem = { type: 'x', title: 'No', status: 409, code: 'stop-taken', detail: 'Taken.' };
    return refuses
      ? new Response(JSON.stringify(problem), { status: 409 })
      : new Response(JSON.stringify({ id: 9, number: 'PK-9', openLines: 2, stops: [] }));
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const line = { kind: 'build' as const, id: 1, lineId: 10, binId: 3, quantity: '2', lot: null, serials: [] };
const add = (personId = 1) =>
  act(() => pickQueue.add({ runId: 7, personId, lines: [line], says: '2 oak', at: '2026-11-26T10:00:00Z' }));
const picks = () => sent.filter(({ url }) => url.endsWith('/picks') || url.includes('pick-runs/7/pick'));

describe('picks of a run', () => {
  it('are sent as soon as they are there, and shown until the run knows of them', async () => {
    const { result } = renderHook(() => usePickQueue(1));
    add();
    await act(() => pickQueue.flush(1));
    await waitFor(() => expect(result.current.entries).toEqual([]));
    expect(picks().map(({ body }) => body)).toEqual([{ lines: [line] }]);
  });

  it('of somebody else stay until they are here again', async () => {
    const { result } = renderHook(() => usePickQueue(1));
    add(2);
    await act(() => pickQueue.flush(1));
    expect(result.current.entries).toMatchObject([{ personId: 2, tried: false }]);
    cleanup();
    const other = renderHook(() => usePickQueue(2)).result;
    await waitFor(() => expect(other.current.entries).toEqual([]));
  });

  it('set out for a stop without waiting, and tell why somebody cannot', async () => {
    expect(await claim(7, '3:1:')).toBeNull();
    expect(sent[0]?.body).toEqual({ stop: '3:1:' });
    refuses = true;
    expect(await claim(7, '3:1:')).toMatchObject({ problem: { code: 'stop-taken' } });
  });
});

describe('a pick for one build or order', () => {
  const within = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={new QueryClient()}>{children}</QueryClientProvider>
  );
  const toPick = (kind: PickJob['kind']) => ({ kind, id: 5 }) as PickJob;
  const picked = [{ lineId: 10, binId: 3, quantity: '2', lot: 'L1', serials: [] }];

  it('goes to the bench of a build, below zero only with a reason', async () => {
    const { result } = renderHook(() => usePick(toPick('build'), () => undefined), { wrapper: within });
    expect(result.current.mayGoBelow).toBe(true);
    await act(async () => result.current.post(picked));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ url: expect.stringContaining('/builds/5/'), body: { lines: picked } });
    expect(sent[0]?.body).not.toHaveProperty('override');
    await waitFor(() => expect(result.current.isPending).toBe(false));
    await act(async () => result.current.post(picked, { reason: 'It lies there' }));
    await waitFor(() => expect(sent[1]?.body).toMatchObject({ override: { reason: 'It lies there' } }));
  });

  it('goes into the parcel of an order, part by part', async () => {
    const { result } = renderHook(() => usePick(toPick('order'), () => undefined), { wrapper: within });
    expect(result.current.mayGoBelow).toBe(false);
    await act(async () => result.current.post(picked));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.url).toContain('/orders/5/');
    expect(sent[0]?.body).toEqual({ lines: [{ partId: 10, binId: 3, quantity: '2', lot: 'L1', serials: [] }] });
  });
});
