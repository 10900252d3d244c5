// @vitest-environment jsdom
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { ApiProblem } from '@yosegi/contract/client';
import type { ReactNode } from 'react';
import { afterEach, expect, it } from 'vitest';
import { useSaid, useUnsaid } from './unsaid.ts';

afterEach(cleanup);

const problem = (status: number) => new ApiProblem({ type: 'x', title: 'No', status, code: 'x', detail: 'No.' });
const lost = () => new TypeError('Failed to fetch');

/** A screen that asks some questions, each answered by one of these in turn; and which of them it says itself. */
function screen(answers: Record<string, (Error | string)[]>, says: readonly string[] = []) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const left = Object.entries(answers).map(([name, own]): [string, (Error | string)[]] => [name, [...own]]);
  const within = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  const { result } = renderHook(
    () => {
      const asked = left.map(([name, own]) =>
        useQuery({
          queryKey: [name, {}],
          queryFn: () => {
            const next = own.shift() ?? 'done';
            if (next instanceof Error) throw next;
            return next;
          },
        }),
      );
      // biome-ignore lint/correctness/useHookAtTopLevel: the same ones at every drawing
      for (const [at, [name]] of left.entries()) useSaid(says.includes(name) ? asked[at]?.error : null);
      return { asked, unsaid: useUnsaid() };
    },
    { wrapper: within },
  );
  const settled = () => waitFor(() => expect(result.current.asked.every(({ isPending }) => !isPending)).toBe(true));
  return { result, settled };
}

it('names what was asked in vain where no place on the screen says so, and asks all of it again', async () => {
  const { result } = screen({ item: [lost()], orders: [problem(503)], builds: ['there'] });
  await waitFor(() => expect(result.current.unsaid?.names).toEqual(['item', 'orders']));
  expect(result.current.unsaid?.error).toBeInstanceOf(TypeError);
  act(() => result.current.unsaid?.again());
  await waitFor(() => expect(result.current.unsaid).toBeNull());
  expect(result.current.asked.map(({ data }) => data)).toEqual(['done', 'done', 'there']);
});

it('is silent about what is said where it matters', async () => {
  const { result, settled } = screen({ item: [lost()], orders: [lost()] }, ['item']);
  await settled();
  await waitFor(() => expect(result.current.unsaid?.names).toEqual(['orders']));
});

it.each([
  [0, true],
  [429, true],
  [500, true],
  [503, true],
  [409, false],
  [404, false],
  [499, false],
])('takes status %s for an outage: %s', async (status, isOutage) => {
  const { result, settled } = screen({ item: [status === 0 ? lost() : problem(status)] });
  await settled();
  if (isOutage) await waitFor(() => expect(result.current.unsaid?.names).toEqual(['item']));
  else expect(result.current.unsaid).toBeNull();
});
