import { readFileSync } from 'node:fs';
import { runInNewContext } from 'node:vm';
import { expect, it } from 'vitest';

type Handler = (event: object) => void;

/** The service worker with a network that answers when it is told to, and a store that can be looked into. */
function begin() {
  const handlers = new Map<string, Handler>();
  const kept = new Map<string, string>();
  const asked: { readonly path: string; readonly answer: (text: string) => void }[] = [];
  const keyOf = (of: string | { url: string }) => new URL(typeof of === 'string' ? of : of.url, 'http://here').pathname;
  const cache = {
    match: async (of: string) => kept.get(keyOf(of)),
    put: async (of: string, response: { text: string }) => void kept.set(keyOf(of), response.text),
    keys: async () => [...kept.keys()].map((path) => ({ url: `http://here${path}` })),
    delete: async (of: { url: string }) => kept.delete(keyOf(of)),
  };
  const self = {
    location: { origin: 'http://here' },
    addEventListener: (name: string, handler: Handler) => handlers.set(name, handler),
  };
  const builds = ['pick-1'];
  const caches = {
    keys: async () => [...builds],
    open: async (name: string) => {
      if (!builds.includes(name)) builds.push(name);
      return cache;
    },
    delete: async (name: string) => builds.splice(builds.indexOf(name), 1).length > 0,
    match: cache.match,
  };
  const fetch = (of: string | { url: string }) =>
    new Promise((resolve) => {
      const answer = (text: string) => resolve({ ok: true, text, clone: () => ({ ok: true, text }) });
      asked.push({ path: keyOf(of), answer });
    });
  runInNewContext(readFileSync(new URL('../../public/sw.js', import.meta.url), 'utf8'), { self, caches, fetch, URL });
  const send = (path: string, method = 'GET'): Promise<unknown> => {
    let answered: Promise<unknown> = Promise.resolve();
    const request = { url: `http://here${path}`, method, mode: 'cors', cache: 'default' };
    handlers.get('fetch')?.({ request, respondWith: (promise: Promise<unknown>) => (answered = promise) });
    return answered;
  };
  const settled = () => new Promise((resolve) => setImmediate(resolve));
  /** A page tells of which build it is. */
  const tell = async (build: string) => {
    handlers.get('message')?.({ data: { build, keep: [] } });
    await settled();
    asked.at(-1)?.answer('a page');
    await settled();
    await settled();
  };
  return { kept, asked, send, settled, tell, builds };
}

it('keeps what a run needs, and nothing that was asked before people were switched', async () => {
  const { kept, asked, send, settled } = begin();
  const first = send('/api/pick-runs/7');
  await settled();
  asked[0]?.answer('of the first');
  await first;
  expect(kept.get('/api/pick-runs/7')).toBe('of the first');
  const before = send('/api/pick-runs/8');
  await settled();
  const change = send('/api/session', 'POST');
  await settled();
  const between = send('/api/stores');
  await settled();
  asked.find(({ path }) => path === '/api/stores')?.answer('still of the first');
  await between;
  asked.find(({ path }) => path === '/api/session')?.answer('the second');
  await change;
  asked.find(({ path }) => path === '/api/pick-runs/8')?.answer('of the first, late');
  await before;
  expect([...kept]).toEqual([]);
  const after = send('/api/pick-runs/8');
  await settled();
  asked.at(-1)?.answer('of the second');
  await after;
  expect([...kept]).toEqual([['/api/pick-runs/8', 'of the second']]);
});

it('keeps the files of the build before, which a tab may still be made of', async () => {
  const { tell, builds } = begin();
  await tell('2');
  expect(builds).toEqual(['pick-1', 'pick-2']);
  await tell('3');
  expect(builds).toEqual(['pick-2', 'pick-3']);
  // The older tab tells of itself once more, and takes nothing from the newer one.
  await tell('2');
  expect(builds).toEqual(['pick-2', 'pick-3']);
});
