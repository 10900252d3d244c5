import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let [board, screw, glue, chip, scale]: Item[] = [];
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  board = await shop.item('BOARD');
  screw = await shop.item('SCREW');
  glue = await shop.item('GLUE', { unitId: 2 });
  chip = await shop.item('CHIP', { tracking: 'serial' });
  scale = await shop.item('SCALE', { source: 'made', tracking: 'serial', bin: 2 });
  for (const [item, cost] of [
    [board, '6'],
    [screw, '0.1'],
    [glue, '10'],
  ] as const)
    await shop.receive(item, '100', cost);
  await shop.receive(chip, '2', '20', 0, { serials: ['C1', 'C2'] });
  await define('build', [
    partLine(board, '1'),
    partLine(screw, '4', { waste: '25' }),
    partLine(glue, '0.05', { comesBack: false }),
    { kind: 'labour', text: 'Assemble', basis: 'per-output', minutes: '30', rateId: 1 },
  ]);
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

async function define(purpose: 'build' | 'rework', lines: object[]) {
  const begun = await server.call(api.createDefinition, { body: { itemId: scale?.id ?? 0, purpose } });
  const params = { id: begun.id };
  const body = { version: begun.version, outputQuantity: '1', lines } as never;
  const { version } = await server.call(api.saveRevision, { params, body });
  await server.call(api.putInUse, { params, body: { version } });
}
const plan = (query: object) => server.call(api.apartPlan, { params: { id: scale?.id ?? 0 }, query });
const shown = ({ lines }: Awaited<ReturnType<typeof plan>>) =>
  lines.map(({ code, quantity, output, share }) => [code, quantity, output, share]);
const apart = async (serial: string, more: object = {}) => {
  const { revisionId, lines } = await plan({ serials: serial });
  return {
    body: {
      itemId: scale?.id ?? 0,
      revisionId,
      binId: shop.bin(2),
      quantity: '1',
      serials: [serial],
      leftover: 'written-off' as const,
      lines: lines.map(({ lineId, quantity, output, tracking, wentIn }) => ({
        lineId,
        good: String(Math.floor(Number(quantity) / Number(output))),
        damaged: '0',
        binId: shop.bin(0),
        // Both were finished together; which chip is in which unit a person sees.
        serials:
          tracking === 'serial'
            ? wentIn.flatMap(({ serial: code }) => code ?? []).slice(serial === 'S1' ? 0 : 1, serial === 'S1' ? 1 : 2)
            : [],
      })),
      ...more,
    },
  };
};

describe('a unit that is known comes apart', () => {
  it('by what really went in, extras too, and what never comes back is written off openly', async () => {
    const { id } = await shop.start(scale as Item, '2');
    const extra = { itemId: chip?.id ?? 0, quantity: '2', because: 'The new model has one', binId: shop.bin(0) };
    await server.call(api.addPart, { params: { id }, body: { ...extra, serials: ['C1', 'C2'] } });
    await shop.pickAll(id);
    const { outputBinId } = await server.call(api.build, { params: { id } });
    const screws = await server.call(api.build, { params: { id } });
    const line = screws.lines.find(({ item }) => item?.code === 'SCREW');
    await server.call(api.addPart, {
      params: { id },
      body: { itemId: screw?.id ?? 0, quantity: '5', because: 'More of them', binId: shop.bin(0) },
    });
    const finish = { good: '2', outputBinId, serials: ['S1', 'S2'], lines: [] };
    const now = await server.call(api.build, { params: { id } });
    await server.call(api.finish, { params: { id }, body: { ...finish, version: now.version } });
    expect(line?.required).toBe('10');
    const built = await plan({ serials: 'S1' });
    // Two boards and ten screws with their waste, five more, two chips: 12 + 1 + 0.5 + 40 of parts that come back.
    expect(shown(built)).toEqual([
      ['BOARD', '2', '2', '22.43'],
      ['SCREW', '10', '2.5', '1.87'],
      ['CHIP', '2', '2', '74.77'],
      ['SCREW', '5', '2', '0.93'],
    ]);
    expect(built.asBuilt).toEqual({
      builds: ['B-0001'],
      never: [
        { text: 'The GLUE', cost: '1' },
        { text: 'Assemble', cost: '24' },
      ],
    });
    // Each is worth (54.5 + 24) / 2 = 39.25; of it a third is written off for what never comes back.
    const wrong = await server.refused(api.takeApart, await apart('S1', { writeOff: '100.5' }));
    expect(wrong).toMatchObject({ field: 'writeOff' });
    const document = await server.posted(api.takeApart, await apart('S1', { writeOff: '32', leftover: 'written-off' }));
    expect(document.values).toMatchObject([{ kind: 'written-off' }]);
    const back = document.movements.filter(({ quantity }) => Number(quantity) > 0);
    expect(back.map(({ code, quantity, serial }) => [code, quantity, serial])).toEqual([
      ['BOARD', '1', null],
      ['SCREW', '4', null],
      ['CHIP', '1', 'C1'],
      ['SCREW', '2', null],
    ]);
    const sum = document.movements.reduce((all, { value }) => all + Number(value), 0);
    expect(sum).toBeCloseTo(Number(document.values[0]?.amount), 6);
    await server.call(api.undoDocument, { params: { id: document.id }, body: {} });
    // Nobody says which unit: as the revision in use says.
    expect((await plan({})).asBuilt).toBeNull();
    expect(shown(await plan({})).map(([code]) => code)).toEqual(['BOARD', 'SCREW']);
    const named = (await plan({})).madeBy[0]?.buildId ?? 0;
    expect((await plan({ buildId: named })).asBuilt?.builds).toEqual(['B-0001']);
  });

  it('after a rework by what that left in it, and not by its build alone', async () => {
    await define('rework', [partLine(scale as Item, '1'), partLine(board as Item, '1')]);
    const { builds } = await server.call(api.planBuilds, {
      body: { builds: [{ itemId: scale?.id ?? 0, quantity: '1', due: null, purpose: 'rework' }] },
    });
    const id = builds[0]?.id ?? 0;
    await server.call(api.startBuild, { params: { id }, body: { version: builds[0]?.version ?? 0 } });
    const bench = await server.call(api.build, { params: { id } });
    await server.call(api.pick, {
      params: { id },
      body: {
        lines: bench.lines.map(({ id: lineId, item, open }) => ({
          lineId,
          binId: item?.code === 'SCALE' ? shop.bin(2) : shop.bin(0),
          quantity: open,
          serials: item?.code === 'SCALE' ? ['S2'] : [],
        })),
      },
    });
    const { version, outputBinId } = await server.call(api.build, { params: { id } });
    const out = [{ itemId: board?.id ?? 0, quantity: '1', went: 'scrap' as const, share: '10' }];
    const finish = { version, good: '1', outputBinId, serials: ['S2'], lines: [], out };
    await server.call(api.finish, { params: { id }, body: finish });
    const built = await plan({ serials: 'S2' });
    expect(built.asBuilt?.builds).toEqual(['B-0001', 'B-0002']);
    // The first board went to scrap, another came in its place.
    expect(shown(built).map(([code, quantity, output]) => [code, quantity, output])).toEqual([
      ['SCREW', '10', '2.5'],
      ['CHIP', '2', '2'],
      ['SCREW', '5', '2'],
      ['BOARD', '1', '1'],
    ]);
    const first = built.madeBy.find(({ build }) => build === 'B-0001')?.buildId ?? null;
    const refused = await server.refused(api.takeApart, await apart('S2', { buildId: first }));
    expect(refused).toMatchObject({ code: 'reworked-since', field: 'buildId', facts: { rework: 'B-0002' } });
    const document = await server.posted(api.takeApart, await apart('S2'));
    expect(document.values).toEqual([]);
    expect(document.movements.filter(({ code, quantity }) => code === 'BOARD' && quantity === '1')).toHaveLength(1);
  });
});

it('takes no kit as a part that is packed for its order', async () => {
  const kit = await shop.item('PACKED', { source: 'made' });
  await shop.define(kit, [[screw as Item, '1']]);
  await shop.behave(kit, { made: 'packed-per-order' });
  const { id } = await shop.start(scale as Item, '1');
  const body = { itemId: kit.id, quantity: '1', because: 'To try', binId: null };
  expect(await server.refused(api.addPart, { params: { id }, body })).toMatchObject({
    code: 'part-is-packed',
    field: 'itemId',
  });
  const { version } = await server.call(api.build, { params: { id } });
  await server.call(api.cancelBuild, { params: { id }, body: { version } } as never);
});
