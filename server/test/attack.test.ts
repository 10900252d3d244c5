import { request } from 'node:http';
import { connect } from 'node:net';
import { api, EVENTS_PATH, EXPORTS_PATH, IMPORTS_PATH, type Item, labelPdfPath, picturePath } from '@yosegi/contract';
import { writeDespatchAdvice } from '@yosegi/core/ubl';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildApp } from '../src/app.ts';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let part: Item;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  part = await shop.item('PART');
  await shop.receive(part, '50', '2');
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
  fetch(server.address + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': crypto.randomUUID(), ...headers },
    body: JSON.stringify(body),
  });
/** Sends bytes as they are and gives back everything that comes until the other side hangs up. */
const raw = (text: string, port = Number(new URL(server.address).port)) =>
  new Promise<string>((resolve) => {
    let answer = '';
    const socket = connect(port, '127.0.0.1', () => socket.write(text));
    socket.on('data', (chunk) => {
      answer += chunk;
    });
    socket.on('close', () => resolve(answer));
    socket.on('error', () => resolve(answer));
  });

describe('who is asking', () => {
  it('is settled before anything that was sent is looked at', async () => {
    for (const [path, body] of [
      ['/api/receipts', { nonsense: true }],
      ['/api/items', { code: '\u0000' }],
      ['/api/company', {}],
    ] as const) {
      const answer = await post(path, body);
      expect((await answer.json()).code, path).toBe(path === '/api/company' ? 'not-found' : 'sign-in');
    }
    const notJson = await fetch(`${server.address}/api/receipts`, {
      method: 'POST',
      body: '{',
      headers: { 'content-type': 'application/json' },
    });
    expect(notJson.status).toBe(401);
  });

  it('is needed for everything but signing in, also for events, files and pictures', async () => {
    for (const path of [EVENTS_PATH, `${EXPORTS_PATH}?kind=items`, picturePath(1), labelPdfPath(1)])
      expect((await fetch(server.address + path)).status, path).toBe(401);
    const upload = await fetch(`${server.address}${IMPORTS_PATH}?kind=items`, {
      method: 'POST',
      body: 'x',
      headers: { 'content-type': 'application/octet-stream' },
    });
    expect(upload.status).toBe(401);
  });

  it('is out at once when they are not active any more', async () => {
    const owner = server.cookie;
    await server.signIn(2);
    const signedIn = server.cookie;
    expect(await server.call(api.stores, {})).toEqual(expect.any(Array));
    await server.database.write((tx) => tx.run('UPDATE person SET active = 0 WHERE id = 2'));
    // What was signed in is out, and does not come in again.
    expect((await server.refused(api.items, {})).code).toBe('sign-in');
    await server.signIn(2);
    expect(server.cookie).toBe('');
    server.cookie = signedIn;
    expect((await server.refused(api.items, {})).code).toBe('sign-in');
    server.cookie = owner;
    const bench = await server.call(api.people, {});
    expect(bench.map(({ id }) => id)).toEqual([1]);
    await server.database.write((tx) => tx.run('UPDATE person SET active = 1 WHERE id = 2'));
  });

  it('is a page of our own: what another origin sends does nothing', async () => {
    const body = { code: 'FOREIGN', name: 'Foreign' };
    const cookie = server.cookie;
    const foreign: Record<string, string>[] = [
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
      { origin: 'http://localhost:1' },
      { origin: 'null' },
    ];
    for (const headers of foreign) {
      const answer = await post('/api/suppliers', body, { cookie, ...headers });
      expect([answer.status, (await answer.json()).code]).toEqual([403, 'foreign-origin']);
    }
    const file = await fetch(`${server.address}${IMPORTS_PATH}?kind=items`, {
      method: 'POST',
      body: 'Code,Name\nA,B',
      headers: { 'content-type': 'text/plain', cookie, origin: 'http://localhost:1' },
    });
    expect(file.status).toBe(403);
    const form = await fetch(`${server.address}${IMPORTS_PATH}?kind=items`, {
      method: 'POST',
      body: 'Code,Name\nA,B',
      headers: { 'content-type': 'text/plain', cookie },
    });
    expect([form.status, (await form.json()).code]).toEqual([415, 'media-type']);
    const own = await post('/api/suppliers', body, { cookie, origin: server.address, 'sec-fetch-site': 'same-origin' });
    expect(own.status).toBe(200);
  });

  it('cannot use the key of another person, or of another record', async () => {
    const key = crypto.randomUUID();
    const one = await shop.receive(part, '1', '1');
    const two = await shop.receive(part, '1', '1');
    const undo = (id: number) => ({ params: { id }, body: {} });
    const first = await server.call(api.undoDocument, undo(one.id), { key });
    expect(await server.call(api.undoDocument, undo(one.id), { key })).toEqual(first);
    expect((await server.refused(api.undoDocument, undo(two.id), { key })).code).toBe('key-reused');
    await server.signIn(2);
    expect((await server.refused(api.undoDocument, undo(one.id), { key })).code).toBe('key-reused');
    await server.signIn(1);
  });
});

describe('what cannot be read', () => {
  it.each([
    [
      'headers without an end',
      `GET /api/health HTTP/1.1\r\nhost: localhost\r\nx: ${'y'.repeat(40_000)}\r\n\r\n`,
      431,
      'headers-too-large',
    ],
    ['an endless address', `GET /${'a'.repeat(40_000)} HTTP/1.1\r\nhost: localhost\r\n\r\n`, 431, 'headers-too-large'],
    ['no request at all', 'hello\r\n\r\n', 400, 'request-unreadable'],
    [
      'a broken escape',
      'GET /api/items/%zz HTTP/1.1\r\nhost: localhost\r\nconnection: close\r\n\r\n',
      400,
      'request-unreadable',
    ],
    [
      'a name that is too long',
      `GET /api/items/${'9'.repeat(300)} HTTP/1.1\r\nhost: localhost\r\nconnection: close\r\n\r\n`,
      414,
      'address-too-long',
    ],
  ])('%s is told as a problem, with a policy', async (_, text, status, code) => {
    const answer = await raw(text);
    expect(answer).toContain(`HTTP/1.1 ${status}`);
    expect(answer.toLowerCase()).toContain('content-type: application/problem+json');
    expect(answer.toLowerCase()).toContain('content-security-policy:');
    expect(JSON.parse(answer.slice(answer.indexOf('{')))).toMatchObject({ status, code, detail: expect.any(String) });
  });

  it.each([
    ['JSON that ends too soon', '{"a":', 'application/json', 400, 'request-unreadable'],
    ['a form', 'a=b', 'application/x-www-form-urlencoded', 415, 'media-type'],
    ['two megabytes', JSON.stringify('x'.repeat(2_000_000)), 'application/json', 413, 'body-too-large'],
  ])('%s is told as a problem', async (_, body, type, status, code) => {
    const headers = { 'content-type': type, cookie: server.cookie, 'idempotency-key': crypto.randomUUID() };
    const answer = await fetch(`${server.address}/api/receipts`, { method: 'POST', headers, body });
    expect([answer.status, (await answer.json()).code]).toEqual([status, code]);
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'");
  });

  it('is given up when it never ends', async () => {
    const app = await buildApp({ database: server.database, timeouts: { headers: 150, request: 300 } });
    const port = Number(new URL(await app.listen({ host: '127.0.0.1', port: 0 })).port);
    expect(await raw('GET /api/health HTTP/1.1\r\nhost: localhost\r\n', port)).toContain('request-too-slow');
    const half =
      'POST /api/session HTTP/1.1\r\nhost: localhost\r\ncontent-type: application/json\r\ncontent-length: 99\r\n\r\n{';
    expect(await raw(half, port)).toContain('HTTP/1.1 408');
    await app.close();
  });

  it('is counted for each person on their own', async () => {
    const left = async (cookie: string) =>
      Number(
        (await fetch(`${server.address}/api/health`, { headers: { cookie } })).headers.get('x-ratelimit-remaining'),
      );
    const owner = server.cookie;
    await server.signIn(2);
    const bench = server.cookie;
    server.cookie = owner;
    const before = await left(bench);
    for (let n = 0; n < 5; n += 1) await left(owner);
    expect(await left(bench)).toBe(before - 1);
  });
});

describe('texts that nobody can see', () => {
  it('are refused wherever they are sent, naming the field', async () => {
    const note = (text: string) => ({
      body: {
        kind: 'receipt' as const,
        remark: text,
        lines: [{ itemId: part.id, binId: shop.bin(0), quantity: '1', unitCost: '1' }],
      },
    });
    for (const text of ['a\u0000', '\ud800', '\u0007 beep'])
      expect(await server.refused(api.receive, note(text))).toMatchObject({ code: 'unprintable', field: 'remark' });
    expect(await server.refused(api.find, { query: { q: '\u0000' } })).toMatchObject({
      code: 'unprintable',
      field: 'q',
    });
    expect(await server.refused(api.matchItems, { body: { texts: ['ok', '\u0001'] } })).toMatchObject({
      code: 'unprintable',
      field: 'texts.1',
    });
  });

  it('make no twins of codes', async () => {
    await shop.item('WAX-9');
    const make = (code: string) => server.refused(api.createItem, { body: { ...bare, code } });
    const bare = {
      name: 'Twin',
      unitId: 1,
      source: 'bought' as const,
      homeBinId: null,
      sellPrice: null,
      reorderPoint: null,
      standardCost: null,
      note: '',
    };
    expect((await make('ＷＡＸ－９')).code).toBe('code-taken');
    expect(await make('WAX\u200b-9')).toMatchObject({ code: 'invalid', field: 'code' });
  });

  it('are no search for items', async () => {
    expect(await server.call(api.matchItems, { body: { texts: [',', ' ; ', ''] } })).toMatchObject([
      { item: null, likely: [] },
      { item: null, likely: [] },
      { item: null, likely: [] },
    ]);
  });
});

describe('messages and orders that overreach', () => {
  it('are refused: twice the same need, serials without end, days that are none', async () => {
    const supplier = await server.call(api.createSupplier, {
      body: { code: 'OVER', name: 'Done', email: 'a@over.example' },
    });
    const scale = await shop.item('SCALE', { tracking: 'serial', serialPattern: 'SC-####' });
    const product = await shop.item('PRODUCT', { source: 'made' });
    await shop.define(product, [[scale, '1']]);
    const build = await shop.plan(product, '2');
    const order = (line: object) => ({
      body: {
        orders: [{ supplierId: supplier.id, lines: [{ itemId: scale.id, quantity: '1', price: '1', ...line }] }],
        send: 'mailbox' as const,
      },
    });
    const need = { buildId: build.id, quantity: '1' };
    expect(await server.refused(api.createPurchases, order({ needs: [need, need] }))).toMatchObject({
      code: 'twice',
      field: 'lines.0.needs.1.buildId',
    });
    for (const quantity of ['2001', '999999999'])
      expect(await server.refused(api.createPurchases, order({ quantity }))).toMatchObject({
        code: 'too-many-serials',
        field: 'lines.0.quantity',
      });
    const many = await shop.item('MANY', { source: 'made', tracking: 'serial' });
    await shop.define(many, [[part, '1']]);
    const plan = { body: { builds: [{ itemId: many.id, quantity: '999999999', due: null }] } };
    expect(await server.refused(api.planBuilds, plan)).toMatchObject({ code: 'too-many-serials' });
    const { orders } = await server.call(api.createPurchases, order({ quantity: '2000' }));
    const sent = orders[0];
    // An old order may be larger than what can be typed today.
    await server.database.write((tx) =>
      tx.run('UPDATE purchase_order_line SET quantity = 5000000000, open = 5000000000 WHERE order_id = $1', [
        sent?.id ?? 0,
      ]),
    );
    const answered = await server.did('purchase', api.answerAsSupplier, {
      params: { id: sent?.id ?? 0 },
      body: { answer: 'deliver' },
    });
    expect(answered.announcedDelivery?.lines[0]?.serials).toHaveLength(2000);
    await server.database.write((tx) =>
      tx.run('UPDATE purchase_order_line SET quantity = 2000000000, open = 2000000000 WHERE order_id = $1', [
        sent?.id ?? 0,
      ]),
    );

    const party = { name: 'X', address: [], email: null };
    const despatch = (issuedOn: string) =>
      writeDespatchAdvice({ number: 'D1', order: sent?.number ?? '', issuedOn, lines: [] }, party, party);
    for (const day of ['2026-99-99', '2026-02-30', '0000-00-00'])
      expect(await server.refused(api.takeMail, { body: { content: despatch(day) } })).toMatchObject({
        code: 'ubl-unreadable',
        detail: expect.stringContaining('not a date'),
      });
    for (const content of [
      '<DespatchAdvice><constructor/><toString>x</toString></DespatchAdvice>',
      '<OrderResponse><__proto__><ID>1</ID></__proto__></OrderResponse>',
      `<OrderResponse>${'<a>'.repeat(20_000)}${'</a>'.repeat(20_000)}</OrderResponse>`,
      '<OrderResponse>\u0001</OrderResponse>',
    ])
      expect((await server.refused(api.takeMail, { body: { content } })).status, content.slice(0, 40)).toBe(422);
  });

  it('are answered for days at the end of all calendars with what is wrong', async () => {
    expect(await server.refused(api.movements, { query: { to: '9999-12-31' } })).toMatchObject({
      code: 'invalid',
      field: 'to',
    });
    expect((await server.call(api.movements, { query: { to: '2999-12-31' } })).rows.length).toBeGreaterThan(0);
  });
});

describe('a disk that does not play along', () => {
  const receive = () =>
    server.refused(api.receive, {
      body: { kind: 'receipt', lines: [{ itemId: part.id, binId: shop.bin(0), quantity: '1', unitCost: '1' }] },
    });

  it('is told to be full, and nothing was saved', async () => {
    const onHand = (await shop.stockOf(part)).onHand;
    const pages = await server.database.maintain(({ all }) => all('PRAGMA page_count'));
    const [most] = Object.values(pages[0] ?? {});
    await server.database.maintain(({ script }) => script(`PRAGMA max_page_count = ${most}`));
    let problem = { code: '', status: 0, detail: '' };
    const text = 'x'.repeat(2000);
    for (let n = 0; n < 60 && problem.code === ''; n += 1) {
      try {
        await server.call(api.saveView, { body: { list: 'items', name: `View ${n}`, search: text.slice(0, 1000) } });
        await server.posted(api.receive, {
          body: {
            kind: 'receipt',
            remark: text,
            lines: [{ itemId: part.id, binId: shop.bin(0), quantity: '1', unitCost: '1' }],
          },
        });
      } catch (error) {
        problem = (error as { problem: typeof problem }).problem;
      }
    }
    await server.database.maintain(({ script }) => script('PRAGMA max_page_count = 1073741823'));
    expect(problem).toMatchObject({
      code: 'disk-full',
      status: 507,
      detail: expect.stringContaining('nothing was saved'),
    });
    expect(Number((await shop.stockOf(part)).onHand)).toBeGreaterThanOrEqual(Number(onHand));
  });

  it('is told to be read-only, while everything can still be read', async () => {
    await server.database.maintain(({ script }) => script('PRAGMA query_only = ON'));
    expect(await receive()).toMatchObject({ code: 'data-read-only', status: 503 });
    expect((await fetch(`${server.address}/api/health`)).status).toBe(200);
    expect((await server.call(api.items, {})).rows.length).toBeGreaterThan(0);
    // Who is not here yet comes in and reads, but changes nothing.
    server.cookie = '';
    await server.signIn(2);
    expect((await server.call(api.session, {})).person?.id).toBe(2);
    expect((await server.call(api.items, {})).rows.length).toBeGreaterThan(0);
    expect(await receive()).toMatchObject({ code: 'data-read-only' });
    await server.signIn(1);
    const tomorrow = await buildApp({
      database: server.database,
      clock: { now: () => new Date('2026-11-24T09:00:00') },
    });
    expect((await tomorrow.inject({ url: '/api/health', headers: { host: 'localhost' } })).statusCode).toBe(200);
    await tomorrow.close();
    await server.database.maintain(({ script }) => script('PRAGMA query_only = OFF'));
  });
});

it('answers a request that is aborted half-way without a word, and goes on', async () => {
  const { port } = new URL(server.address);
  await new Promise<void>((resolve) => {
    const asked = request({
      port,
      host: '127.0.0.1',
      path: '/api/receipts',
      method: 'POST',
      headers: { cookie: server.cookie, 'content-type': 'application/json', 'content-length': 5000 },
    });
    asked.on('error', () => resolve());
    asked.write('{');
    setImmediate(() => asked.destroy());
  });
  expect((await server.call(api.items, {})).rows.length).toBeGreaterThan(0);
});
