import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { FastifyInstance } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildApp } from '../src/app.ts';
import { TestServer } from './harness.ts';

/** What stands between the world and the routes. */
let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.close());

/** The policy of an answer, directive by directive. */
const policyOf = (answer: { headers: { get(name: string): string | null } }) =>
  (answer.headers.get('content-security-policy') ?? '').split(';').map((directive) => directive.trim());

describe('the name the server is called by', () => {
  const asked = (host: string) =>
    new Promise((resolve) => {
      const { port } = new URL(server.address);
      const headers = { host, cookie: server.cookie };
      request({ port, host: '127.0.0.1', path: '/api/people', headers }, (answer) => resolve(answer.statusCode)).end();
    });

  it.each(['localhost', 'localhost:4270', '127.0.0.1', '127.0.0.1:80', '[::1]', '[::1]:4270'])(
    '%s is its own',
    async (host) => expect(await asked(host)).toBe(200),
  );
  it.each([
    'evil.example',
    'notlocalhost',
    'a.127.0.0.1',
    'localhost.evil.example',
    '127.0.0.1.evil.example',
    '127a0b0c1',
    'localhost:80.evil.example',
    'localhost:',
  ])('%s is a name that leads here from elsewhere', async (host) => expect(await asked(host)).toBe(421));
});

describe('what a page may do', () => {
  it('is what this server gives it, and nothing from elsewhere', async () => {
    const answer = await server.fetch('/api/health');
    expect(await answer.json()).toEqual({ status: 'ok', schema: expect.stringMatching(/^\d{4}-/) });
    const nonces = policyOf(answer).map((directive) => directive.replace(/'nonce-\w+'/, 'NONCE'));
    expect(nonces.sort()).toEqual([
      "base-uri 'none'",
      "connect-src 'self'",
      "default-src 'none'",
      "font-src 'self'",
      "form-action 'self'",
      "frame-ancestors 'none'",
      "img-src 'self' data:",
      "script-src 'self' NONCE",
      "style-src 'self' NONCE",
      "worker-src 'self'",
    ]);
  });
});

describe('the built pages', () => {
  let root: string;
  let app: FastifyInstance;
  beforeAll(async () => {
    root = mkdtempSync(join(tmpdir(), 'yosegi-web-'));
    mkdirSync(join(root, 'assets'));
    writeFileSync(
      join(root, 'index.html'),
      '<style nonce="__csp_nonce__"></style><script nonce="__csp_nonce__"></script>',
    );
    writeFileSync(join(root, 'sw.js'), 'self.skipWaiting();');
    writeFileSync(join(root, 'assets', 'page-1.js'), 'let a;');
    writeFileSync(join(root, 'assets', 'solver.worker-Ab_1.js'), 'let b;');
    app = await buildApp({ database: server.database, webRoot: root });
  });
  afterAll(async () => {
    await app.close();
    rmSync(root, { recursive: true });
  });
  const get = (url: string) => app.inject({ url, headers: { host: 'localhost' } });

  it('are one page for every address that is no file and no route, never kept, with a name for its styles each time', async () => {
    const [one, two] = [await get('/orders/5'), await get('/')];
    expect([one.statusCode, one.headers['cache-control']]).toEqual([200, 'no-store']);
    expect(one.headers['content-type']).toContain('text/html');
    const [nonce] = /nonce="(\w{16,})"/.exec(one.body)?.slice(1) ?? [];
    expect(one.body).toBe(`<style nonce="${nonce}"></style><script nonce="${nonce}"></script>`);
    expect(one.headers['content-security-policy']).toContain(`style-src 'self' 'nonce-${nonce}'`);
    expect(two.body).not.toBe(one.body);
  });

  it.each([
    ['GET', '/api/nothing'],
    ['GET', '/assets/none.js'],
    ['POST', '/orders/5'],
    ['DELETE', '/'],
  ] as const)('%s %s is not found', async (method, url) => {
    const answer = await app.inject({ method, url, headers: { host: 'localhost' } });
    expect([answer.statusCode, answer.json().code]).toEqual([404, 'not-found']);
  });

  it('come with files that browsers keep, a worker that they ask for anew, and a solver that may run its own code', async () => {
    const [page, worker, solver] = [
      await get('/assets/page-1.js'),
      await get('/sw.js'),
      await get('/assets/solver.worker-Ab_1.js'),
    ];
    expect([page.body, page.headers['cache-control']]).toEqual(['let a;', 'public, max-age=31536000, immutable']);
    expect([worker.body, worker.headers['cache-control']]).toEqual(['self.skipWaiting();', 'no-cache']);
    expect(worker.headers['content-type']).toContain('text/javascript');
    expect(solver.headers['content-security-policy']).toContain("'wasm-unsafe-eval'");
    expect(page.headers['content-security-policy']).not.toContain('wasm');
  });
});

it('what only reads cannot write', async () => {
  await expect(server.database.reader.all("UPDATE company SET name = 'x' RETURNING id")).rejects.toThrow(/readonly/i);
});
