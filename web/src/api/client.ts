import {
  type InfiniteData,
  keepPreviousData,
  notifyManager,
  QueryClient,
  type UseInfiniteQueryResult,
  type UseQueryResult,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query';
import { api, type Problem, type Route, type Topic, topics } from '@yosegi/contract';
import { ApiProblem, type Input, type Output, refusalOf, send } from '@yosegi/contract/client';
import { dependsOn } from '@yosegi/contract/depends';
import { newKey } from '@yosegi/contract/key';
import { useCallback, useEffect, useRef } from 'react';
import { overNetwork } from './network.ts';
import { patiently } from './slow.ts';

type Name = keyof typeof api;
type RouteOf<N extends Name> = (typeof api)[N];

export const queryClient = new QueryClient({
  defaultOptions: {
    // Always tried, whatever the browser thinks of its connection: a kept answer may serve, and a failure is told at once.
    queries: {
      retry: (count, error) => !(error instanceof ApiProblem) && count < 2,
      staleTime: 30_000,
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

/** What an address of the server holds, unread: for a worker, which reads it beside the page. @throws ApiProblem */
export async function bytesOf(url: string, signal: AbortSignal): Promise<ArrayBuffer> {
  const response = await overNetwork(url, { signal });
  if (!response.ok) throw await refusalOf(response);
  return response.arrayBuffer();
}

/** The answer to a question of the contract, kept up to date while other people work. */
export function useQuestion<N extends Name>(
  name: N,
  input: Input<RouteOf<N>>,
  options: { enabled?: boolean; keep?: boolean } = {},
): UseQueryResult<Output<RouteOf<N>>, Error> {
  return useQuery({
    queryKey: [name, input],
    queryFn: ({ signal }) => send(overNetwork, api[name] as RouteOf<N>, input, { signal }),
    enabled: options.enabled ?? true,
    ...(options.keep ? { placeholderData: keepPreviousData } : {}),
  });
}

export type Paged = {
  [N in Name]: Output<RouteOf<N>> extends { rows: unknown[]; next: string | null } ? N : never;
}[Name];

export type RowOf<N extends Name> = Output<RouteOf<N>> extends { rows: (infer R)[] } ? R : never;

/** The pages of a list, one after the other. */
export function usePages<N extends Paged>(
  name: N,
  query: Record<string, string | number | boolean | undefined>,
  more: { params?: object; step?: number } = {},
) {
  type Page = { rows: RowOf<N>[]; next: string | null };
  return useInfiniteQuery({
    queryKey: [name, 'pages', query, more],
    queryFn: ({ pageParam, signal }) =>
      send(
        overNetwork,
        api[name] as RouteOf<N> & Route,
        { params: more.params, query: { ...query, ...(pageParam ? { cursor: pageParam } : {}) } } as never,
        { signal },
      ) as unknown as Promise<Page>,
    initialPageParam: '',
    getNextPageParam: (last) => last.next,
    placeholderData: keepPreviousData,
  });
}

/** The pages of a list, for what shows it. */
export type UsedPages<Row> = UseInfiniteQueryResult<InfiniteData<{ rows: Row[]; next: string | null }>, Error>;

/** Fetches again whatever depends on these topics. */
export function refetch(topics: readonly Topic[], client: QueryClient = queryClient): void {
  void client.invalidateQueries({
    predicate: ({ queryKey }) => dependsOn[queryKey[0] as Name]?.some((topic) => topics.includes(topic)) ?? false,
  });
}

/** Fetches again what a screen shows of single records. @returns once it is there, or cannot be had */
const records = (client: QueryClient): Promise<void> =>
  client.refetchQueries(
    {
      type: 'active',
      predicate: ({ queryKey }) => (queryKey[1] as { params?: object } | undefined)?.params !== undefined,
    },
    { cancelRefetch: false },
  );

/** The page from which was asked what is being answered at this moment. */
let answering: string | null = null;

/** Whether what runs now is done for an answer to a page that one has left meanwhile. */
export const isLate = (): boolean => answering !== null && answering !== window.location.pathname;

/**
 * A command of the contract. The same input keeps its idempotency key until the server has answered, so that trying
 * again after a lost connection, or pressing twice, does it once. It is pending until the record it changed is shown as
 * it is now, so that a quick hand never acts on the one before.
 * @param onDone what follows once that is shown, like a notice or another page
 * @param atOnce what must not wait for it, because the tab may be closed now: typed text that is posted is forgotten
 */
export function useCommand<N extends Name>(
  name: N,
  onDone?: (output: Output<RouteOf<N>>, input: Input<RouteOf<N>>) => void,
  atOnce?: (output: Output<RouteOf<N>>, input: Input<RouteOf<N>>) => void,
) {
  const client = useQueryClient();
  // Something may have been typed while the record was on its way.
  const latest = useRef(onDone);
  useEffect(() => {
    latest.current = onDone;
  });
  const intention = useRef<{ input: string; key: string } | null>(null);
  const command = useMutation<Output<RouteOf<N>>, Error, Input<RouteOf<N>>, string>({
    mutationFn: async (input) => {
      const text = JSON.stringify(input);
      if (intention.current?.input !== text) intention.current = { input: text, key: newKey() };
      const { key } = intention.current;
      const output = await patiently((signal) =>
        send(overNetwork, api[name] as RouteOf<N> & Route, input as never, { key, signal }),
      );
      intention.current = null;
      return output as Output<RouteOf<N>>;
    },
    onMutate: () => window.location.pathname,
    // What stands there now is to be seen beside what was typed, even where no event has told of it.
    onError: (error) => {
      if (problemOf(error)?.code === 'stale-save') refetch(topics, client);
    },
    onSuccess: async (output, input, askedFrom) => {
      atOnce?.(output, input);
      refetch(topics, client);
      await records(client);
      answering = askedFrom;
      try {
        latest.current?.(output, input);
      } finally {
        answering = null;
      }
    },
  });
  const { mutate, isPending, variables } = command;
  const doing = useRef<string | null>(null);
  doing.current = isPending ? JSON.stringify(variables) : null;
  /** Pressed twice, it is done once and told once. */
  const once: typeof mutate = useCallback(
    (...args) => {
      const text = JSON.stringify(args[0]);
      if (doing.current === text) return;
      doing.current = text;
      mutate(...args);
    },
    [mutate],
  );
  return { ...command, mutate: once };
}

/** Asks once, outside of what a screen keeps up to date. */
export const ask = <N extends Name>(
  name: N,
  input: Input<RouteOf<N>>,
  signal?: AbortSignal,
): Promise<Output<RouteOf<N>>> => send(overNetwork, api[name] as RouteOf<N>, input, signal ? { signal } : {});

/** Asks the server itself, never what this device has kept of its answers, and shows what it says. @returns once it is shown; @throws as asking does */
export async function showFresh<N extends Name>(name: N, input: Input<RouteOf<N>>): Promise<void> {
  const itself: typeof overNetwork = (url, init) => overNetwork(url, { ...init, cache: 'no-store' });
  // What was asked before would come as an older answer after this one.
  await queryClient.cancelQueries({ queryKey: [name, input] });
  queryClient.setQueryData([name, input], await send(itself, api[name] as RouteOf<N>, input));
  // Screens are told in turn: after this one they know.
  await new Promise<void>((resolve) => notifyManager.schedule(resolve));
}

/**
 * Posts something that was decided before, with the key it was given then: sent again it is done once.
 * @throws ApiProblem when it is refused; whatever fetching throws when the server cannot be reached in time
 */
export const post = <N extends Name>(
  name: N,
  input: Input<RouteOf<N>>,
  key: string,
  timeoutMs: number,
): Promise<Output<RouteOf<N>>> =>
  send(overNetwork, api[name] as RouteOf<N>, input, { key, signal: AbortSignal.timeout(timeoutMs) });

/** What went wrong, as problem details, also when the server was never reached. */
export function problemOf(error: unknown): Problem | null {
  if (!error) return null;
  if (error instanceof ApiProblem) return error.problem;
  return {
    type: 'about:blank',
    title: 'No connection',
    status: 0,
    code: 'no-connection',
    detail: 'The server can’t be reached. What you typed is still here; try again in a moment.',
  };
}

/** Whether a field is one of these, where a star stands for any one step of its path. */
export function isAmong(field: string | undefined, fields: readonly string[]): boolean {
  const path = field?.split('.') ?? [];
  return fields.some((one) => {
    const steps = one.split('.');
    return steps.length === path.length && steps.every((step, at) => step === '*' || step === path[at]);
  });
}

/** What a refusal says about one field. */
export const problemAt = (error: unknown, field: string): string | undefined => {
  const problem = problemOf(error);
  return problem?.field === field ? problem.detail : undefined;
};
