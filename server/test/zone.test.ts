import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api } from '@yosegi/contract';
import { readDespatchAdvice } from '@yosegi/core/ubl';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { usesSince } from '../src/buying/reorder.sql.ts';
import { TestServer, Workshop } from './harness.ts';

describe('an evening in New York, when Greenwich has tomorrow', () => {
  let server: TestServer;
  let shop: Workshop;

  beforeAll(async () => {
    vi.stubEnv('TZ', 'America/New_York');
    const clock = { now: () => new Date('2026-11-26T02:30:00Z') };
    server = await TestServer.start(mkdtempSync(join(tmpdir(), 'yosegi-')), clock);
    shop = await Workshop.open(server);
  });
  afterAll(async () => {
    // Other files work on in this process: the zone is as it was, also where none was set.
    vi.unstubAllEnvs();
    await server.close();
    expect(Intl.DateTimeFormat().resolvedOptions().timeZone).toBeDefined();
  });

  it('is Greenwich where the machine is told a zone that does not exist', async () => {
    const zone = async () => (await server.call(api.session, {})).timeZone;
    expect(await zone()).toBe('America/New_York');
    vi.stubEnv('TZ', 'undefined');
    expect(await zone()).toBe('UTC');
    vi.stubEnv('TZ', 'America/New_York');
  });

  it('is today on what is sent and in what was used by day', async () => {
    const jar = await shop.item('JAR');
    await shop.receive(jar, '5', '2');
    const { id, lines } = await shop.sell(await shop.customer('LARK'), [{ itemId: jar.id, quantity: '2', price: '5' }]);
    const { version } = await server.call(api.order, { params: { id } });
    const body = { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: '2', parts: [] }] };
    const shipment = await server.call(api.shipOrder, { params: { id }, body });
    const xml = await (await server.fetch(`/api/shipments/${shipment.id}/despatch.xml`)).text();
    expect(readDespatchAdvice(xml).issuedOn).toBe('2026-11-25');
    expect((await usesSince(server.database.reader, '2026-11-01')).map(({ on }) => on)).toEqual(['2026-11-25']);
  });
});
