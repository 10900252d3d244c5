// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, renderHook, waitFor } from '@testing-library/react';
import type { Change } from '@yosegi/core/coverage';
import type { ReactNode } from 'react';
import { afterEach, expect, it, vi } from 'vitest';
import type { TimeAnswer } from '../workers/timeAnswer.ts';
import { useNames } from './useNames.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const CASE = -1_000_000;
const coming = [
  { source: 'purchase', id: 4, lineId: 40, number: 'PO-4', from: 'North' },
  { source: 'build', id: 6, lineId: 6, number: 'B-6', from: 'on the bench' },
];
const sources = [
  { kind: 'order', id: 11, number: 'O-11', who: 'Lark', worth: '9' },
  { kind: 'purchase', id: 41, number: 'PO-9', who: 'South', worth: null },
];

function open(itemId: number | null, answer: TimeAnswer | null, changes: readonly Change[]) {
  const asked: string[] = [];
  vi.stubGlobal('fetch', async (url: string) => {
    asked.push(decodeURIComponent(url));
    return new Response(JSON.stringify(url.includes('coming') ? coming : sources));
  });
  const client = new QueryClient();
  const within = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  const { result } = renderHook(() => useNames(itemId, answer, changes), { wrapper: within });
  return { asked, names: () => result.current };
}
const answer = {
  cases: [
    {
      time: { days: [{ takes: [{ source: { kind: 'order', id: 12 } }, { source: { kind: 'build', id: CASE } }] }] },
      outcome: {
        moved: [{ source: { kind: 'order', id: 11 } }, { source: { kind: 'build', id: 7 } }],
        late: [{ source: { kind: 'order', id: 2 } }, { source: { kind: 'order', id: 11 } }],
      },
      deliveries: [{ lineId: 43 }],
    },
  ],
} as unknown as TimeAnswer;

it('names what comes, with the way to it, and everybody the answer and its changes speak of', async () => {
  const changes: Change[] = [
    { what: 'day', kind: 'purchase', id: 41, on: '2026-12-09' },
    { what: 'gone', kind: 'build', id: 9 },
    { what: 'first', source: { kind: 'order', id: 13 } },
  ];
  const { asked, names } = open(3, answer, changes);
  await waitFor(() => expect(names().source({ kind: 'order', id: 11 })).toEqual(sources[0]));
  await waitFor(() => expect(names().supply('purchase', 40).number).toBe('PO-4'));
  expect(names().supply('purchase', 40)).toEqual({ number: 'PO-4', from: 'North', to: '/buying/orders/4' });
  expect(names().supply('build', 6)).toEqual({ number: 'B-6', from: 'on the bench', to: '/build/6' });
  expect(names().supply('purchase', 41)).toEqual({ number: 'PO-9', from: 'South', to: null });
  expect(names().supply('purchase', 99)).toEqual({ number: 'A draft order', from: '', to: null });
  expect(names().supply('build', CASE)).toEqual({ number: 'The build of this case', from: '', to: null });
  expect(names().source({ kind: 'build', id: CASE })).toMatchObject({ number: 'The build of this case', worth: null });
  expect(names().source({ kind: 'order', id: 99 })).toBeUndefined();
  const search = new URL(asked.find((url) => !url.includes('coming')) ?? '', 'http://x').searchParams;
  expect(Object.fromEntries(search)).toEqual({ orders: '2,11,12,13', builds: '7,9', lines: '41,43' });
});

it('asks for nothing where nothing is spoken of', async () => {
  const { asked, names } = open(null, null, []);
  expect(names().source({ kind: 'order', id: 11 })).toBeUndefined();
  expect(asked).toEqual([]);
});
