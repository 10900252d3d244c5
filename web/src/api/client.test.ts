import { ApiProblem } from '@yosegi/contract/client';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { ask, bytesOf, isAmong, post, problemAt, problemOf, queryClient, showFresh } from './client.ts';

afterEach(() => {
  queryClient.clear();
  vi.unstubAllGlobals();
});

/** A server that answers all alike; what was sent is kept. */
function server(answer: () => Response | Promise<Response>) {
  const sent: { url: string; init: RequestInit }[] = [];
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    sent.push({ url, init });
    return answer();
  });
  return sent;
}
const says = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
const refusal = {
  type: 'x',
  title: 'No',
  status: 409,
  code: 'stale-save',
  detail: 'Someone else has changed it.',
  field: 'remark',
};

describe('a refusal', () => {
  const refused = new ApiProblem(refusal);

  it('shows at the field it names, and at no other', () => {
    expect([problemAt(refused, 'remark'), problemAt(refused, 'name'), problemAt(null, 'remark')]).toEqual([
      'Someone else has changed it.',
      undefined,
      undefined,
    ]);
    expect(problemAt(new ApiProblem({ ...refusal, field: undefined } as never), 'remark')).toBeUndefined();
  });

  it('is what the server said, or that it was never reached; nothing where nothing went wrong', () => {
    expect(problemOf(refused)).toBe(refused.problem);
    expect(problemOf(new TypeError('Failed to fetch'))).toMatchObject({ status: 0, code: 'no-connection' });
    expect([problemOf(null), problemOf(undefined)]).toEqual([null, null]);
  });

  it('is shown at a field by its path, a star standing for one step of it', () => {
    const shown = ['remark', 'lines.*.quantity'];
    const fields = ['remark', 'lines.0.quantity', 'lines.12.quantity'];
    expect(fields.map((field) => isAmong(field, shown))).toEqual([true, true, true]);
    const others = [undefined, '', 'lines', 'lines.0', 'lines.0.lot', 'lines.0.needs.1.quantity', 'remarks'];
    expect(others.filter((field) => isAmong(field, shown))).toEqual([]);
  });
});

describe('what is asked outside of a screen', () => {
  it('comes as it is, or is refused as the server says', async () => {
    const { signal } = new AbortController();
    const sent = server(() => says({ a: 1 }));
    expect(new TextDecoder().decode(await bytesOf('/api/coverage', signal))).toBe('{"a":1}');
    expect(sent[0]?.url).toBe('/api/coverage');
    server(() => says(refusal, 409));
    await expect(bytesOf('/api/coverage', signal)).rejects.toMatchObject({ problem: { code: 'stale-save' } });
    await expect(ask('setUp', { body: { step: 2 } })).rejects.toMatchObject({
      problem: { detail: 'Someone else has changed it.' },
    });
  });

  it('is given up when nobody waits for it any more', async () => {
    const leaving = new AbortController();
    const sent = server(() => says({ step: 2 }));
    await ask('setUp', { body: { step: 2 } }, leaving.signal);
    leaving.abort();
    expect(sent[0]?.init.signal?.aborted).toBe(true);
  });

  it('is posted with the key that it was given before', async () => {
    const sent = server(() => says({ step: 2 }));
    await post('setUp', { body: { step: 2 } }, 'key-of-before', 5000);
    expect(new Headers(sent[0]?.init.headers).get('idempotency-key')).toBe('key-of-before');
  });
});

describe('what is shown fresh', () => {
  it('is fetched from the server and put where the screen reads it', async () => {
    const input = { params: { id: 7 } };
    const older = { id: 7, code: 'OLD' };
    queryClient.setQueryData(['item', input], older);
    const sent = server(() => says({ id: 7, code: 'NEW' }));
    await showFresh('item', input);
    expect(sent.map(({ url, init }) => [url, init.cache])).toEqual([['/api/items/7', 'no-store']]);
    expect(queryClient.getQueryData(['item', input])).toEqual({ id: 7, code: 'NEW' });
    expect(queryClient.getQueryData(['item', { params: { id: 8 } }])).toBeUndefined();
  });

  it('is not followed by an older answer that was on its way', async () => {
    const input = { params: { id: 7 } };
    let answer: (response: Response) => void = () => undefined;
    const slow = new Promise<Response>((resolve) => {
      answer = resolve;
    });
    const before = queryClient
      .fetchQuery({ queryKey: ['item', input], queryFn: async () => (await slow).json() })
      .catch(() => undefined);
    server(() => says({ id: 7, code: 'NEW' }));
    await showFresh('item', input);
    answer(says({ id: 7, code: 'OLD' }));
    await before;
    expect(queryClient.getQueryData(['item', input])).toEqual({ id: 7, code: 'NEW' });
  });
});
