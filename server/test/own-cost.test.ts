import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let [scale, cell]: Item[] = [];

beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  scale = await shop.item('SCALE', { source: 'both', tracking: 'serial' });
  cell = await shop.item('CELL');
  await shop.receive(scale, '1', '90', 0, { serials: ['S-1'] });
  await shop.receive(scale, '1', '60', 0, { serials: ['S-2'] });
  await shop.receive(cell, '9', '4');
  const { id, version } = await server.call(api.createDefinition, { body: { itemId: scale.id, purpose: 'rework' } });
  const lines = [partLine(scale, '1'), partLine(cell, '1')];
  const saved = await server.call(api.saveRevision, { params: { id }, body: { version, outputQuantity: '1', lines } });
  await server.call(api.putInUse, { params: { id }, body: { version: saved.version } });
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

it('a rework plans its unit at the unit’s own cost, as it is posted and shown', async () => {
  const body = { builds: [{ itemId: scale?.id ?? 0, quantity: '1', due: null, purpose: 'rework' as const }] };
  const { builds } = await server.call(api.planBuilds, { body });
  const id = builds[0]?.id ?? 0;
  const build = await server.did('build', api.startBuild, {
    params: { id },
    body: { version: builds[0]?.version ?? 0 },
  });
  const [own, part] = build.lines;
  const pick = [
    { lineId: own?.id ?? 0, binId: shop.bin(0), quantity: '1', serials: ['S-1'] },
    { lineId: part?.id ?? 0, binId: shop.bin(0), quantity: '1' },
  ];
  await server.call(api.pick, { params: { id }, body: { lines: pick } });
  const ready = await server.call(api.build, { params: { id } });
  expect(ready.lines[0]?.pieces).toMatchObject([{ serial: 'S-1', value: '90' }]);
  const finish = { version: ready.version, good: '1', outputBinId: shop.bin(0), serials: ['S-1'], lines: [] };
  const { id: document } = await server.call(api.finish, { params: { id }, body: finish });
  const lines = await server.database.reader.all(
    'SELECT planned_cost, cost FROM finish_line WHERE document_id = $1 ORDER BY build_line_id',
    [document],
  );
  expect(lines).toEqual([
    { planned_cost: 90_000_000, cost: 90_000_000 },
    { planned_cost: 4_000_000, cost: 4_000_000 },
  ]);
});
