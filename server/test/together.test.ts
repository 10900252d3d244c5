import { api, EVENTS_PATH, type Item } from '@yosegi/contract';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('several people at once', () => {
  let server: TestServer;
  let shop: Workshop;
  let part: Item;
  let product: Item;
  beforeEach(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    part = await shop.item('PART');
    product = await shop.item('PRODUCT', { source: 'made', bin: 2 });
    await shop.receive(part, '20', '2');
    await shop.define(product, [[part, '2']]);
  });
  afterEach(() => server.close());

  it('the same command twice is done once, in turn and at the same time', async () => {
    const line = { itemId: part.id, binId: shop.bin(0), quantity: '5', unitCost: '2' };
    const send = () => server.call(api.receive, { body: { kind: 'receipt', lines: [line] } }, { key: 'one-intention' });
    const answers = await Promise.all([send(), send(), send()]);
    expect(new Set(answers.map((answer) => answer.number)).size).toBe(1);
    expect(await send()).toEqual(answers[0]);
    expect(await shop.stockOf(part)).toMatchObject({ onHand: '25' });
    const other = { body: { kind: 'receipt' as const, lines: [{ ...line, quantity: '6' }] } };
    expect(await server.refused(api.receive, other, { key: 'one-intention' })).toMatchObject({ code: 'key-reused' });
  });

  it('a command without a key is refused', async () => {
    const response = await server.fetch('/api/rates', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"name":"x","perHour":"1"}',
    });
    expect([response.status, (await response.json()).code]).toEqual([400, 'key-missing']);
  });

  it('a stale save is refused with what stands there now', async () => {
    const { code, source, homeBinId, version } = part;
    const save = (name: string) =>
      ({
        params: { id: part.id },
        body: {
          code,
          name,
          source,
          homeBinId,
          unitId: 1,
          sellPrice: null,
          reorderPoint: null,
          standardCost: null,
          note: '',
          version,
        },
      }) as const;
    await server.call(api.updateItem, save('Theirs'));
    const problem = await server.refused(api.updateItem, save('Mine'));
    expect(problem).toMatchObject({
      status: 409,
      code: 'stale-save',
      facts: { current: { name: 'Theirs', version: version + 1 } },
    });
    expect((await shop.stockOf(part)).name).toBe('Theirs');
  });

  it('the last parts are promised once: of many starts at a time, as many win as parts allow', async () => {
    const builds = await Promise.all(Array.from({ length: 6 }, () => shop.plan(product, '4')));
    const starts = await Promise.allSettled(
      builds.map(({ id, version }) => server.did('build', api.startBuild, { params: { id }, body: { version } })),
    );
    expect(starts.filter(({ status }) => status === 'fulfilled')).toHaveLength(2);
    expect(await shop.stockOf(part)).toMatchObject({ onHand: '20', promised: '48', free: '-28' });
    const today = await server.call(api.today, {});
    expect([today.onBench.length, today.waiting.length, today.ready.length]).toEqual([2, 4, 0]);
    expect(today.waiting.map((build) => build.canStart)).toEqual(['2', '0', '0', '0']);
  });

  it('planning on what somebody else took meanwhile is refused', async () => {
    const builds = [{ itemId: product.id, quantity: '8', due: null }];
    const seen = (now: string) => ({ wanted: [{ itemId: product.id, quantity: '8', now }] });
    const plan = { body: { builds, seen: seen('8') } };
    const first = await server.call(api.planBuilds, plan);
    const refused = await server.refused(api.planBuilds, plan);
    expect(refused).toMatchObject({ status: 409, code: 'cover-changed' });
    expect(refused.detail).toContain(`2 × ${product.name} can be made now, not 8`);
    expect(refused.detail).toContain(`planned ${first.builds[0]?.number}, which takes 16 each of it`);
    // Asked without what is planned, as many can be made as were there before.
    const apart = { ...seen('8'), aside: 'builds' as const };
    expect(await server.refused(api.planBuilds, { body: { builds, seen: { ...apart, aside: null } } })).toMatchObject({
      code: 'cover-changed',
    });
    const { builds: again } = await server.call(api.planBuilds, { body: { builds, seen: apart } });
    await server.call(api.cancelBuild, { params: { id: again[0]?.id ?? 0 }, body: { version: 0 } });
    // What became more than was seen is no reason to refuse.
    await server.call(api.planBuilds, { body: { builds, seen: seen('1') } });
  });

  it('picks of the same line at the same time never bring more than is open', async () => {
    const build = await shop.start(product, '5');
    const body = { lines: [{ lineId: build.lines[0]?.id ?? 0, binId: shop.bin(0), quantity: '4' }] };
    const picks = await Promise.allSettled(
      Array.from({ length: 5 }, () => server.withBuild(api.pick, { params: { id: build.id }, body })),
    );
    expect(picks.filter(({ status }) => status === 'fulfilled')).toHaveLength(2);
    expect((await server.call(api.build, { params: { id: build.id } })).lines[0]).toMatchObject({
      onBench: '8',
      open: '2',
    });
    expect(await server.verify()).toEqual([]);
  });

  it('finishing from two browsers counts once; the other sees the conflict', async () => {
    const build = await shop.start(product, '4');
    await shop.pickAll(build.id);
    const body = { version: build.version, good: '2', outputBinId: shop.bin(2), lines: [] };
    const both = await Promise.allSettled(
      [1, 2].map(() => server.withBuild(api.finish, { params: { id: build.id }, body })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(await shop.stockOf(product)).toMatchObject({ onHand: '2' });
    expect(await server.verify()).toEqual([]);
  });

  it('tells other browsers what changed', async () => {
    const response = await server.fetch(EVENTS_PATH);
    const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
    await shop.receive(part, '1', '2');
    let heard = '';
    while (!heard.includes('data:')) heard += (await reader?.read())?.value ?? '';
    expect(JSON.parse(/data: (.*)/.exec(heard)?.[1] ?? '')).toEqual(expect.arrayContaining(['stock', 'items']));
    await reader?.cancel();
  });
});

describe('who may', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeEach(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterEach(() => server.close());

  it('nobody without having said who they are, and every action carries its person', async () => {
    const { cookie } = server;
    server.cookie = '';
    expect(await server.refused(api.today, {})).toMatchObject({ status: 401, code: 'sign-in' });
    server.cookie = 'yosegi-person=1.forged';
    expect(await server.refused(api.today, {})).toMatchObject({ status: 401 });
    server.cookie = cookie;
    const item = await shop.item('PART');
    const receipt = await shop.receive(item, '1', '1');
    expect(receipt.person).toBe('Mo Owner');
    const audit = await server.database.reader.all<{ action: string; person_id: number }>(
      "SELECT action, person_id FROM audit WHERE action = 'receive'",
    );
    expect(audit).toEqual([{ action: 'receive', person_id: 1 }]);
  });

  it('only an owner changes places and goes below zero', async () => {
    const item = await shop.item('PART');
    const product = await shop.item('PRODUCT', { source: 'made' });
    await shop.define(product, [[item, '1']]);
    const { id, version } = await shop.plan(product, '1');
    await server.signIn(2);
    expect(await server.refused(api.createStore, { body: { code: 'X', name: 'X' } })).toMatchObject({
      status: 403,
      code: 'owner-only',
    });
    expect(
      await server.refused(api.startBuild, { params: { id }, body: { version, override: { reason: 'because' } } }),
    ).toMatchObject({ code: 'owner-only' });
  });

  it('describes itself', async () => {
    const description = await (await server.fetch('/api/docs/json')).json();
    expect(Object.keys(description.paths).length).toBeGreaterThan(25);
    expect(description.paths['/api/builds/{id}/finish'].post.operationId).toBe('finish');
  });
});
