import { api, files, IDEMPOTENCY_HEADER } from '@yosegi/contract';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

const clock = { at: '2026-11-02T08:00:00', now: () => new Date(clock.at) };
let server: TestServer;
beforeEach(async () => {
  clock.at = '2026-11-02T08:00:00';
  server = await TestServer.start(undefined, clock);
});
afterEach(() => server.close());

describe('the answers of commands', () => {
  it('are given again for a week, and forgotten then', async () => {
    const body = { name: 'Bench hour', perHour: '24' };
    const first = await server.call(api.createRate, { body }, { key: 'one-intention' });
    clock.at = '2026-11-09T07:59:00';
    expect(await server.call(api.createRate, { body }, { key: 'one-intention' })).toEqual(first);
    clock.at = '2026-11-10T08:00:00';
    expect((await server.refused(api.createRate, { body }, { key: 'one-intention' })).code).toBe('code-taken');
    const kept = await server.database.reader.all<{ route: string }>('SELECT route FROM command');
    expect(kept).toEqual([]);
  });

  it('of postings are no more than the document’s number', async () => {
    const shop = await Workshop.open(server);
    const item = await shop.item('PART');
    const line = { itemId: item.id, binId: shop.bin(0), quantity: '1', unitCost: '1' };
    const posted = await server.call(api.receive, { body: { kind: 'receipt', lines: [line] } });
    expect(posted).toEqual({ id: expect.any(Number), number: 'RC-0001' });
  });
});

describe('the description of the API', () => {
  interface Described {
    readonly paths: Record<
      string,
      Record<string, { parameters?: { name: string; in: string; required?: boolean }[]; security?: object[] }>
    >;
    readonly components: { securitySchemes: object };
  }
  const describedOf = async () => (await (await server.fetch('/api/docs/json')).json()) as Described;
  const at = ({ paths }: Described, { method, path }: { method: string; path: string }) =>
    paths[path.replace(/:(\w+)/g, '{$1}')]?.[method.toLowerCase()];

  it('has every request of the contract, also those that carry files', async () => {
    const described = await describedOf();
    for (const route of [...Object.values(api), ...Object.values(files)])
      expect(at(described, route), `${route.method} ${route.path}`).toBeDefined();
  });

  it('says which need somebody signed in, and a key', async () => {
    const described = await describedOf();
    expect(described.components.securitySchemes).toEqual({
      person: expect.objectContaining({ type: 'apiKey', in: 'cookie', name: 'yosegi-person' }),
    });
    const key = { name: IDEMPOTENCY_HEADER, in: 'header', required: true };
    for (const command of [api.receive, api.signIn, files.setPicture])
      expect(at(described, command)?.parameters, command.path).toContainEqual(expect.objectContaining(key));
    for (const question of [api.items, api.matchItems, files.download])
      expect(at(described, question)?.parameters ?? []).not.toContainEqual(expect.objectContaining({ in: 'header' }));
    expect(at(described, api.items)?.security).toEqual([{ person: [] }]);
    expect(at(described, files.events)?.security).toEqual([{ person: [] }]);
    expect(at(described, api.people)?.security).toBeUndefined();
  });
});
