import { api, type Behaviour, type Definition, type Item, type LineInput } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

const clock = { at: '2026-11-23T09:00:00', now: () => new Date(clock.at) };
let server: TestServer;
let shop: Workshop;
let part: Item;
let other: Item;
beforeAll(async () => {
  server = await TestServer.start(undefined, clock);
  shop = await Workshop.open(server);
  part = await shop.item('PART', { sellPrice: '5' });
  other = await shop.item('OTHER', { unitId: 2 });
  await shop.receive(part, '40', '2');
  await shop.receive(other, '20', '8');
});
afterAll(() => server.close());

const newest = (definition: Definition) => {
  const [first] = definition.revisions;
  if (!first) throw new Error('no revision');
  return first;
};
const start = (definition: Definition) =>
  server.did('definition', api.startRevision, { params: { id: definition.id }, body: {} });
const save = (definition: Definition, lines: LineInput[]) => {
  const { id, version } = newest(definition);
  return server.did('definition', api.saveRevision, { params: { id }, body: { version, outputQuantity: '1', lines } });
};
const putInUse = (definition: Definition, from: string | null = null) => {
  const { id, version } = newest(definition);
  return { params: { id }, body: { version, from } };
};
const read = (definition: Definition) => server.call(api.definition, { params: { id: definition.id } });
const states = ({ revisions }: Definition) => revisions.map(({ number, state }) => `${number} ${state}`);

describe('revisions', () => {
  it('keep alternates in order and the bin a part comes from, down to the build', async () => {
    const product = await shop.item('ALT', { source: 'made' });
    const made = await server.did('definition', api.createDefinition, { body: { itemId: product.id } });
    const alternates = [
      { itemId: other.id, ratio: '0.25' },
      { itemId: (await shop.item('THIRD')).id, ratio: '2' },
    ];
    const refused = async (lines: LineInput[]) => {
      const { id, version } = newest(made);
      return server.refused(api.saveRevision, { params: { id }, body: { version, outputQuantity: '1', lines } });
    };
    expect(await refused([partLine(part, '1', { alternates: [{ itemId: part.id, ratio: '1' }] })])).toMatchObject({
      code: 'alternate-is-part',
      field: 'lines.0.alternates.0.itemId',
    });
    expect(await refused([partLine(part, '1', { alternates: [...alternates, ...alternates] })])).toMatchObject({
      code: 'alternate-twice',
    });
    expect(await refused([partLine(part, '1', { fromBinId: 999 })])).toMatchObject({
      code: 'unknown-bin',
      field: 'lines.0.fromBinId',
    });
    const saved = await save(made, [partLine(part, '1', { alternates, fromBinId: shop.bin(2) })]);
    const used = await server.did('definition', api.putInUse, putInUse(saved));
    const copy = await start(used);
    expect(newest(copy).lines).toMatchObject([{ alternates, fromBinId: shop.bin(2) }]);
    expect(newest(copy).lines).toEqual(used.revisions[0]?.lines);
    await shop.receive(part, '5', '2', 2);
    const build = await shop.plan(product, '2');
    expect(build.lines[0]?.bins.map(({ binId }) => binId)).toEqual([shop.bin(2), shop.bin(0)]);
    await expect(server.database.write((tx) => tx.run('DELETE FROM revision_line_alternate'))).rejects.toThrow(
      'frozen',
    );
  });

  it('keep their parts until they come into use', async () => {
    const product = await shop.item('LATER', { source: 'made' });
    const only = await shop.item('ONLY');
    const draft = await save(await start(await shop.define(product, [[part, '1']])), [partLine(only, '2')]);
    const waits = await server.did('definition', api.putInUse, putInUse(draft, '2026-12-24'));
    const archive = { params: { id: only.id }, body: { archived: true, version: only.version } };
    expect(await server.refused(api.archiveItem, archive)).toMatchObject({
      code: 'archive-comes-into-use',
      facts: { product: 'LATER', day: '2026-12-24' },
    });
    await server.call(api.holdBack, { params: { id: newest(waits).id }, body: { version: newest(waits).version } });
    await server.call(api.archiveItem, archive);
  });

  it('come into use on their day: frozen until then, held back when the owner thinks again', async () => {
    const product = await shop.item('DAY', { source: 'made' });
    const first = await shop.define(product, [[part, '1']]);
    const second = await save(await start(first), [partLine(part, '2')]);
    expect(await server.refused(api.putInUse, putInUse(second, '2026-11-22'))).toMatchObject({
      code: 'day-passed',
      field: 'from',
    });
    const waits = await server.did('definition', api.putInUse, putInUse(second, '2026-11-26'));
    expect(states(waits)).toEqual(['2 draft', '1 in-use']);
    expect(newest(waits).inUseFrom).toBe('2026-11-26');
    const { id, version } = newest(waits);
    const typed = { params: { id }, body: { version, outputQuantity: '1', lines: [] } };
    expect(await server.refused(api.saveRevision, typed)).toMatchObject({
      code: 'revision-waits',
      facts: { day: '2026-11-26' },
    });
    const held = await server.did('definition', api.holdBack, { params: { id }, body: { version } });
    expect(newest(held).inUseFrom).toBeNull();
    await server.call(api.putInUse, putInUse(held, '2026-11-26'));
    expect(await shop.plan(product, '1')).toMatchObject({ definition: { revision: 1 } });
    clock.at = '2026-11-25T23:59:00';
    expect(states(await read(first))).toEqual(['2 draft', '1 in-use']);
    clock.at = '2026-11-26T00:01:00';
    expect(states(await read(first))).toEqual(['2 in-use', '1 retired']);
    expect(await shop.plan(product, '1')).toMatchObject({ definition: { revision: 2 }, lines: [{ required: '2' }] });
    const audit = await server.database.reader.one("SELECT 1 FROM audit WHERE action = 'takeDueRevisions'");
    expect(audit).toBeDefined();
  });

  it('move planned builds after the fact, and leave what has started alone', async () => {
    const product = await shop.item('MOVE', { source: 'made' });
    const first = await shop.define(product, [[part, '1']]);
    const planned = await shop.plan(product, '3');
    const started = await shop.start(product, '2');
    const second = await server.did(
      'definition',
      api.putInUse,
      putInUse(await save(await start(first), [partLine(part, '2'), partLine(other, '0.1')])),
    );
    expect(second.openBuilds.map(({ id, revision }) => [id, revision])).toEqual([
      [planned.id, 1],
      [started.id, 1],
    ]);
    const move = (ids: number[]) => ({ params: { id: first.id }, body: { buildIds: ids } });
    expect(await server.refused(api.moveBuilds, move([planned.id, started.id]))).toMatchObject({
      code: 'wrong-state',
      field: 'buildIds.1',
    });
    expect((await server.call(api.build, { params: { id: planned.id } })).definition?.revision).toBe(1);
    await server.call(api.moveBuilds, move([planned.id]));
    expect(await server.call(api.build, { params: { id: planned.id } })).toMatchObject({
      definition: { revision: 2 },
      lines: [{ required: '6' }, { required: '0.3' }],
    });
    expect(await server.call(api.build, { params: { id: started.id } })).toMatchObject({
      definition: { revision: 1 },
      lines: [{ required: '2' }],
    });
    expect(await server.refused(api.moveBuilds, move([9999]))).toMatchObject({ code: 'unknown-line' });
    const { id, version } = newest(second);
    const retired = await server.did('definition', api.retireRevision, { params: { id }, body: { version } });
    expect(states(retired)).toEqual(['2 retired', '1 retired']);
    const plan = { body: { builds: [{ itemId: product.id, quantity: '1', due: null }] } };
    expect(await server.refused(api.planBuilds, plan)).toMatchObject({ code: 'no-definition-in-use' });
    expect(await server.verify()).toEqual([]);
  });
});

describe('kits', () => {
  const behave = (definition: Definition, change: Partial<Behaviour>) => ({
    params: { id: definition.id },
    body: { ...definition.behaviour, ...change, version: definition.version },
  });

  it('are packed per order only while nothing contradicts it, and are then neither built nor received nor built from', async () => {
    const kit = await shop.item('KIT', { source: 'made' });
    const definition = await shop.define(kit, [[part, '1']]);
    const packed = { made: 'packed-per-order' } as const;
    await shop.receive(kit, '1', '9');
    expect(await server.refused(api.setBehaviour, behave(definition, packed))).toMatchObject({
      code: 'kit-has-stock',
      field: 'made',
      status: 409,
    });
    await server.posted(api.undoDocument, {
      params: { id: (await server.call(api.documents, {})).rows[0]?.id ?? 0 },
      body: {},
    });
    const build = await shop.plan(kit, '1');
    expect(await server.refused(api.setBehaviour, behave(definition, packed))).toMatchObject({
      code: 'kit-has-builds',
      detail: expect.stringContaining(build.number),
    });
    await server.call(api.cancelBuild, { params: { id: build.id }, body: { version: build.version } });
    expect(await server.refused(api.setBehaviour, behave(definition, { onOrder: 'swaps' }))).toMatchObject({
      code: 'kit-no-alternates',
      field: 'onOrder',
    });
    const change = { ...packed, onOrder: 'swaps', swapFor: 'anything', price: 'parts', discount: '12.5' } as const;
    const set = await server.did('definition', api.setBehaviour, behave(definition, change));
    expect(set.behaviour).toMatchObject(change);
    const plan = { body: { builds: [{ itemId: kit.id, quantity: '1', due: null }] } };
    expect(await server.refused(api.planBuilds, plan)).toMatchObject({ code: 'packed-not-built' });
    const goods = { itemId: kit.id, binId: shop.bin(0), quantity: '1', unitCost: '1' };
    expect(await server.refused(api.receive, { body: { kind: 'receipt', lines: [goods] } })).toMatchObject({
      code: 'packed-not-stocked',
    });
    const big = await shop.item('BIG', { source: 'made' });
    const parent = await server.did('definition', api.createDefinition, { body: { itemId: big.id } });
    const { id, version } = newest(parent);
    const lines = { params: { id }, body: { version, outputQuantity: '1', lines: [partLine(kit, '1')] } };
    expect(await server.refused(api.saveRevision, lines)).toMatchObject({
      code: 'part-is-packed',
      field: 'lines.0.itemId',
    });
  });

  it('rework takes in what it gives back, and is built; a record never is', async () => {
    const scale = await shop.item('SCALE', { source: 'both' });
    await shop.receive(scale, '3', '10');
    const rework = await server.did('definition', api.createDefinition, {
      body: { itemId: scale.id, purpose: 'rework' },
    });
    expect(newest(rework).lines).toMatchObject([{ kind: 'part', itemId: scale.id, quantity: '1' }]);
    const without = await save(rework, [partLine(part, '1')]);
    expect(await server.refused(api.putInUse, putInUse(without))).toMatchObject({ code: 'rework-without-itself' });
    await server.call(api.putInUse, putInUse(await save(without, [partLine(scale, '1'), partLine(part, '2')])));
    // How many can be made is said of what is made.
    expect((await server.call(api.definitions, { query: { q: 'SCALE' } })).rows).toMatchObject([
      { purpose: 'rework', inUse: 1, canMakeNow: null },
    ]);
    const { builds } = await server.call(api.planBuilds, {
      body: { builds: [{ itemId: scale.id, purpose: 'rework', quantity: '2', due: null }] },
    });
    const id = builds[0]?.id ?? 0;
    const { version } = await server.call(api.build, { params: { id } });
    await server.call(api.startBuild, { params: { id }, body: { version } });
    await shop.pickAll(id);
    const ready = await server.call(api.build, { params: { id } });
    const finished = await server.withBuild(api.finish, {
      params: { id },
      body: { version: ready.version, good: '2', outputBinId: shop.bin(0), lines: [] },
    });
    expect(finished.unitCost).toBe('14');
    expect(await shop.stockOf(scale)).toMatchObject({ onHand: '3', value: '38' });
    const record = await server.did('definition', api.createDefinition, {
      body: { itemId: scale.id, purpose: 'record' },
    });
    await server.call(api.putInUse, putInUse(await save(record, [partLine(part, '3')])));
    const plan = { body: { builds: [{ itemId: scale.id, quantity: '1', due: null }] } };
    expect(await server.refused(api.planBuilds, plan)).toMatchObject({ code: 'no-definition-in-use' });
    expect(await server.refused(api.setBehaviour, behave(record, { made: 'packed-per-order' }))).toMatchObject({
      code: 'kit-purpose',
    });
    expect(await server.verify()).toEqual([]);
  });
});

describe('across definitions', () => {
  it('replace a part in many as drafts, after a preview that says what cannot be done', async () => {
    const bolt = await shop.item('BOLT');
    const cord = await shop.item('CORD', { unitId: 4 });
    await shop.receive(bolt, '100', '0.1');
    await shop.receive(cord, '100', '0.5');
    const one = await shop.define(await shop.item('ONE', { source: 'made' }), [
      [bolt, '3'],
      [part, '1'],
    ]);
    const two = await shop.define(await shop.item('TWO', { source: 'made' }), [[bolt, '4']]);
    await start(two);
    const query = { partId: bolt.id, byId: cord.id, ratio: '0.3335' };
    const preview = await server.call(api.replacements, { query });
    expect(preview).toEqual([
      {
        definitionId: one.id,
        code: 'ONE',
        name: 'The ONE',
        revision: 1,
        outputQuantity: '1',
        quantityBefore: '3',
        quantityAfter: '1.001',
        costBefore: '2.3',
        costAfter: '2.5005',
        problem: null,
      },
      expect.objectContaining({ code: 'TWO', problem: 'Revision 2 is a draft already. Change the part there.' }),
    ]);
    const replace = (ids: number[]) => ({ body: { ...query, definitionIds: ids } });
    expect(await server.refused(api.replacePart, replace([one.id, two.id]))).toMatchObject({ code: 'draft-exists' });
    expect(states(await read(one))).toEqual(['1 in-use']);
    const { drafts } = await server.call(api.replacePart, replace([one.id]));
    expect(drafts).toEqual([{ definitionId: one.id, name: 'The ONE', revision: 2 }]);
    expect(newest(await read(one)).lines).toMatchObject([{ itemId: cord.id, quantity: '1.001' }, { itemId: part.id }]);
    const uses = await server.call(api.whereUsed, { params: { id: cord.id } });
    expect(uses).toMatchObject([{ code: 'ONE', revision: 2, state: 'draft', as: 'part', quantity: '1.001' }]);
    const circle = await server.call(api.replacements, { query: { ...query, byId: one.item.id } });
    expect(circle.find(({ code }) => code === 'ONE')?.problem).toContain('draft already');
    const ring = await shop.item('RING', { source: 'made' });
    await shop.define(ring, [[bolt, '1']]);
    const own = await server.call(api.replacements, { query: { ...query, byId: ring.id } });
    expect(own.find(({ code }) => code === 'RING')?.problem).toContain('itself');
    expect(await server.refused(api.replacements, { query: { ...query, byId: bolt.id } })).toMatchObject({
      field: 'byId',
    });
  });

  it('copy a revision to another product, refused where it would contain itself', async () => {
    const from = await shop.define(await shop.item('FROM', { source: 'made' }), [[part, '2']], '7');
    const to = await shop.item('TO', { source: 'made' });
    const copyOf = newest(from).id;
    const copy = await server.did('definition', api.createDefinition, { body: { itemId: to.id, copyOf } });
    expect(newest(copy)).toMatchObject({ number: 1, state: 'draft', lines: newest(from).lines });
    expect(await server.refused(api.createDefinition, { body: { itemId: part.id, copyOf } })).toMatchObject({
      code: 'contains-itself',
    });
    expect((await shop.stockOf(part)).definitionId).toBeNull();
  });

  it('say what another price of a part would do, before anything is saved', async () => {
    const wax = await shop.item('WAX-P');
    await shop.receive(wax, '10', '3');
    const lamp = await shop.item('LAMP', { source: 'made', sellPrice: '10' });
    await shop.define(lamp, [
      [wax, '2'],
      [part, '1'],
    ]);
    const effect = await server.call(api.costEffect, { params: { id: wax.id }, query: { cost: '4.5' } });
    expect(effect).toEqual([expect.objectContaining({ code: 'LAMP', before: '8', after: '11', sellPrice: '10' })]);
    expect(await server.refused(api.costEffect, { params: { id: wax.id }, query: { cost: '-1' } })).toMatchObject({
      field: 'cost',
    });
    const { version } = await shop.stockOf(lamp);
    const priced = await server.did('item', api.setPrices, {
      params: { id: lamp.id },
      body: { sellPrice: '12.5', version },
    });
    expect(priced).toMatchObject({ sellPrice: '12.5', name: 'The LAMP' });
    expect(
      await server.refused(api.setPrices, { params: { id: lamp.id }, body: { sellPrice: '13', version } }),
    ).toMatchObject({ code: 'stale-save' });
  });

  it('find what is to be put right, kind by kind', async () => {
    const free = await shop.item('UNPRICED');
    const old = await shop.item('OLD');
    await shop.define(await shop.item('LOSS', { source: 'made', sellPrice: '3' }), [[part, '2']]);
    await shop.define(await shop.item('MIXED', { source: 'made' }), [
      [free, '1'],
      [old, '1'],
    ]);
    const { version } = await shop.stockOf(old);
    await server.call(api.archiveItem, { params: { id: old.id }, body: { archived: true, version } });
    const faults = await server.call(api.definitionFaults, {});
    const of = (code: string) =>
      faults
        .find((row) => row.code === code)
        ?.faults.map(({ fault, parts }) => [fault, ...parts.map((one) => one.code)]);
    expect(of('LOSS')).toEqual([['below-cost']]);
    expect(of('MIXED')).toEqual([
      ['archived-part', 'OLD'],
      ['unpriced-part', 'UNPRICED', 'OLD'],
    ]);
    expect(of('BIG')).toEqual([['none-in-use']]);
    expect(of('ONE')).toBeUndefined();
    const again = await server.call(api.definitions, { query: { q: 'MIXED' } });
    const mixed = await server.call(api.definition, { params: { id: again.rows[0]?.id ?? 0 } });
    expect(await server.refused(api.putInUse, putInUse(await start(mixed)))).toMatchObject({
      code: 'item-archived',
      field: 'lines.1.itemId',
    });
  });
});
