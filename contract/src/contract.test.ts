import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Refusal } from '@yosegi/core/refusal';
import { describe, expect, it } from 'vitest';
import { ApiProblem, type Fetch, send } from './client.ts';
import { api, type Route } from './index.ts';
import { problemKinds, wordsOf } from './problems.ts';

const answering = (status: number, body: unknown) => {
  const asked: { url: string; init: RequestInit }[] = [];
  const fetch: Fetch = async (url, init) => {
    asked.push({ url, init });
    return new Response(typeof body === 'string' ? body : JSON.stringify(body), { status });
  };
  return { asked, fetch };
};

describe('the client', () => {
  it('puts params, query and body where they belong', async () => {
    const { asked, fetch } = answering(200, {});
    await send(fetch, api.items, { query: { q: 'a b&c', limit: 5, cursor: undefined } });
    await send(fetch, api.undoDocument, { params: { id: 7 }, body: { remark: 'slip' } }, { key: 'intention-1' });
    expect(asked.map(({ url }) => url)).toEqual(['/api/items?q=a+b%26c&limit=5', '/api/documents/7/undo']);
    expect(asked[0]?.init).toMatchObject({ method: 'GET', headers: {} });
    expect(asked[1]?.init).toMatchObject({
      method: 'POST',
      body: '{"remark":"slip"}',
      headers: { 'content-type': 'application/json', 'idempotency-key': 'intention-1' },
    });
  });

  it('gives every command a key of its own unless told one', async () => {
    const { asked, fetch } = answering(200, {});
    await send(fetch, api.createDefinition, { body: { itemId: 1 } });
    await send(fetch, api.createDefinition, { body: { itemId: 1 } });
    const keys = asked.map(({ init }) => (init.headers as Record<string, string>)['idempotency-key']);
    expect(new Set(keys).size).toBe(2);
  });

  it('throws what the server refuses, also when it is no JSON', async () => {
    const problem = { type: 'x', title: 'No', status: 409, code: 'parts-short', detail: 'No.' };
    await expect(send(answering(409, problem).fetch, api.today, {})).rejects.toMatchObject({ problem });
    const broken = send(answering(502, '<html>').fetch, api.today, {});
    await expect(broken).rejects.toBeInstanceOf(ApiProblem);
    await expect(broken).rejects.toMatchObject({ problem: { code: 'no-answer', status: 502 } });
  });
});

describe('the route table', () => {
  const routes: Route[] = Object.values(api);

  it('names each request once', () => {
    const names = routes.map(({ method, path }) => `${method} ${path}`);
    expect(new Set(names).size).toBe(names.length);
  });

  it('has params for every path that takes some, and a body for every POST and PUT', () => {
    for (const route of routes) {
      expect(route.path.includes(':'), route.path).toBe(route.params !== undefined);
      if (route.method === 'POST' || route.method === 'PUT') expect(route.body, route.path).toBeDefined();
    }
  });

  it('leaves open only what is needed to sign in', () => {
    const open = Object.entries<Route>(api).filter(([, { access }]) => access === 'open');
    expect(open.map(([name]) => name).sort()).toEqual(['health', 'people', 'session', 'signIn']);
  });
});

describe('problems', () => {
  const sourcesOf = (folder: string): string[] =>
    readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) return entry.name === 'node_modules' ? [] : sourcesOf(path);
      return /(?<!\.test)\.ts$/.test(entry.name) ? [path] : [];
    });

  it('have words and a way out for every refusal in the code, and no words that nothing uses', () => {
    const code = ['core/src', 'server/src']
      .flatMap(sourcesOf)
      .map((path) => readFileSync(path, 'utf8'))
      .join('\n');
    const thrown = new Set([...code.matchAll(/(?:new Refusal\(\s*|\bcode: )'([a-z0-9-]+)'/g)].map((match) => match[1]));
    expect([...thrown].sort()).toEqual(Object.keys(problemKinds).sort());
  });

  it('say what is wrong in whole sentences', () => {
    const facts = {
      typed: '1.5',
      requestId: 'r-1',
      decimals: 0,
      least: 0,
      largest: '9',
      most: 9,
      path: ['A', 'B', 'A'],
      sum: 120e6,
      open: 3e6,
      left: 2e6,
      expected: 1e6,
      canStart: 4e6,
      number: 'UN-1',
      why: 'It is over.',
      code: 'X',
      by: 'Y',
      name: 'Z',
      is: 'finished',
      must: 'planned',
      message: 'Too short.',
      known: ['box', 'pallet'],
      right: '3',
      barcode: '96385074',
      used: '0.125',
      part: 'KIT',
      day: '2026-12-01',
      unit: 'SC-0002',
      revision: 3,
      purpose: 'record',
      builds: ['B-1'],
      products: ['SET'],
      tracking: 'lot',
      cell: 'B2',
      cells: 4,
      titles: 3,
      first: 2,
      supplier: 'NS',
      quantity: '4',
      unitCost: '2',
      rows: 9,
      row: 7,
      refused: 3,
      what: 'a PDF',
      at: '(99)',
      bin: 'A1',
      bestBefore: '2027-01-31',
      held: 'Recalled',
      count: 2,
      given: 1,
      says: 'is in stock',
      free: 'SC-0004',
      over: '2',
      build: 'B-1',
      lines: [{ serial: 'SC-0001', now: 'not in stock', name: 'Z', over: '2' }],
    };
    for (const { detail, title, status } of Object.values(problemKinds)) {
      expect(detail(facts)).toMatch(/[.?!]$/);
      expect(detail(facts)).not.toMatch(/undefined|NaN|\[object/);
      expect(title.length).toBeGreaterThan(3);
      expect(status).toBeGreaterThanOrEqual(400);
    }
    expect(wordsOf(new Refusal('more-than-open', { open: 2_500_000 }))).toBe('Only 2.5 is still open on this line.');
    expect(wordsOf(new Error('else'))).toBeUndefined();
  });
});
