import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseQuantity } from '@yosegi/core/number';
import { type Code, type Kind, type Kinds, Refusal, refusalOf, refusals } from '@yosegi/core/refusal';
import { describe, expect, it } from 'vitest';
import { ApiProblem, type Fetch, send } from './client.ts';
import { api, type Route } from './index.ts';
import { wordedOf, wordsOf } from './problems/index.ts';

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
    const open = Object.entries<Route>(api).filter(([, { right }]) => right === 'anyone');
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

  it('are each made somewhere', () => {
    const code = ['core/src', 'server/src']
      .flatMap(sourcesOf)
      .filter((path) => !path.endsWith(join('refusal', 'codes.ts')))
      .map((path) => readFileSync(path, 'utf8'))
      .join('\n');
    expect(Object.keys(refusals).filter((name) => !code.includes(`'${name}'`))).toEqual([]);
  });

  /** Something of each kind, so that every wording can be read. */
  const anyOf = (kind: Kind): unknown => {
    if (typeof kind !== 'string')
      return Array.isArray(kind)
        ? kind.map(anyOf)
        : Object.fromEntries(Object.entries(kind).map(([name, one]) => [name, anyOf(one)]));
    return { text: 'X', number: 2, amount: 1_500_000, flag: true, record: {} }[kind.replace('?', '') as 'text'];
  };

  it('say what is wrong in whole sentences, with every fact and with the least', () => {
    for (const [code, kinds] of Object.entries<Kinds>(refusals)) {
      const least = Object.fromEntries(Object.entries(kinds).filter(([, kind]) => !String(kind).endsWith('?')));
      for (const facts of [anyOf(kinds), anyOf(least)] as object[]) {
        const { status, title, detail } = wordedOf(refusalOf({ code: code as Code, facts }));
        expect(detail, code).toMatch(/[.?!X]$/);
        expect(detail, code).not.toMatch(/undefined|null|NaN|\[object|1500000/);
        expect(title.length).toBeGreaterThan(3);
        expect(status).toBeGreaterThanOrEqual(400);
      }
    }
    expect(wordsOf(new Refusal('more-than-open', { open: parseQuantity('2.5', 1) }))).toBe(
      'Only 2.5 is still open on this line.',
    );
    expect(wordsOf(new Error('else'))).toBeUndefined();
  });
});
