import type { z } from 'zod';
import { Problem, type Route } from './common.ts';
import { newKey } from './key.ts';
import { IDEMPOTENCY_HEADER } from './live.ts';

type Sent<R extends Route, K extends 'params' | 'query' | 'body'> = R[K] extends z.ZodType
  ? { [P in K]: z.input<R[K]> }
  : { [P in K]?: undefined };
/** What a call of a route must say: its params, query and body, as far as it has them. */
export type Input<R extends Route> = Sent<R, 'params'> & Partial<Sent<R, 'query'>> & Sent<R, 'body'>;
export type Output<R extends Route> = z.output<R['response']>;

/** A refusal of the server, as its problem details say it. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'ApiProblem';
  }
}

export interface Sending {
  /** The same key sent twice is carried out once: make one per intention, not per try. */
  readonly key?: string;
  readonly signal?: AbortSignal;
  readonly headers?: Record<string, string>;
}

export type Fetch = (url: string, init: RequestInit) => Promise<Response>;

/**
 * Calls a route of the contract.
 * @throws ApiProblem when the server refuses; whatever `fetch` throws when it cannot be reached
 */
export async function send<R extends Route>(
  fetch: Fetch,
  route: R,
  input: Input<R>,
  sending: Sending = {},
): Promise<Output<R>> {
  const { params, query, body } = input as { params?: object; query?: object; body?: unknown };
  let url = route.path;
  for (const [name, value] of Object.entries(params ?? {}))
    url = url.replace(`:${name}`, encodeURIComponent(String(value)));
  const search = new URLSearchParams();
  for (const [name, value] of Object.entries(query ?? {})) if (value !== undefined) search.set(name, String(value));
  const response = await fetch(search.size > 0 ? `${url}?${search}` : url, {
    method: route.method,
    headers: {
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...(route.method === 'GET' || route.asks ? {} : { [IDEMPOTENCY_HEADER]: sending.key ?? newKey() }),
      ...sending.headers,
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    ...(sending.signal ? { signal: sending.signal } : {}),
  });
  if (response.ok) return (await response.json()) as Output<R>;
  throw await refusalOf(response);
}

/** The refusal that an answer is. */
export const refusalOf = async (response: Response) => new ApiProblem(await problemFrom(response));

async function problemFrom(response: Response): Promise<Problem> {
  // What stands before our server may answer in its place, and says nothing of ours.
  const said = Problem.safeParse(await response.json().catch(() => null));
  if (said.success) return said.data;
  const detail = `The server answered ${response.status}. Try again in a moment.`;
  return { type: 'about:blank', title: 'No answer', status: response.status, code: 'no-answer', detail };
}
