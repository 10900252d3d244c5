import { api, type Definition, type Item, type LineInput } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

describe('definitions', () => {
  let server: TestServer;
  let shop: Workshop;
  let part: Item;
  let other: Item;
  let product: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    part = await shop.item('PART');
    other = await shop.item('OTHER', { unitId: 2 });
    product = await shop.item('PRODUCT', { source: 'made', bin: 2 });
    await shop.receive(part, '10', '2');
    await shop.receive(other, '5', '8');
  });
  afterAll(() => server.close());

  const save = (definition: Definition, lines: LineInput[], outputQuantity = '1') => {
    const [draft] = definition.revisions;
    return server.did('definition', api.saveRevision, {
      params: { id: draft?.id ?? 0 },
      body: { version: draft?.version ?? 0, outputQuantity, lines },
    });
  };
  const use = (definition: Definition) => {
    const [draft] = definition.revisions;
    return server.did('definition', api.putInUse, {
      params: { id: draft?.id ?? 0 },
      body: { version: draft?.version ?? 0 },
    });
  };

  it('keep whatever else the owner wants to know beside them', async () => {
    const theirs = await shop.item('THEIRS');
    const { definitionId: id } = await server.call(api.createDefinition, {
      body: { itemId: theirs.id, purpose: 'record' },
    });
    const read = () => server.call(api.definition, { params: { id } });
    const { version, fields } = await read();
    expect(fields).toEqual([]);
    const put = (named: string[], at = version) =>
      ({ params: { id }, body: { version: at, fields: named.map((name) => ({ name, value: 'Larkfield' })) } }) as const;
    expect(await server.refused(api.setDefinitionFields, put(['Owner', 'owner']))).toMatchObject({
      code: 'twice',
      field: 'fields.1.name',
    });
    const saved = await server.call(api.setDefinitionFields, put(['Owner', 'Bought from']));
    expect((await read()).fields).toEqual([
      { name: 'Bought from', value: 'Larkfield' },
      { name: 'Owner', value: 'Larkfield' },
    ]);
    await server.call(api.setDefinitionFields, put([], saved.version));
    expect((await read()).fields).toEqual([]);
  });

  it('keep every kind of line as it was typed', async () => {
    const lines: LineInput[] = [
      partLine(part, '2', { waste: '4.5', share: '70' }),
      partLine(other, '0.125', { basis: 'per-run', taken: 'when-finished', comesBack: false }),
      { kind: 'labour', text: 'Glue', basis: 'per-run', minutes: '12.5', rateId: 1 },
      { kind: 'charge', text: 'Stamp', basis: 'per-output', amount: '0.85' },
      { kind: 'note', text: 'Mind the grain' },
    ];
    const started = await server.did('definition', api.createDefinition, { body: { itemId: product.id } });
    expect(await server.refused(api.createDefinition, { body: { itemId: product.id } })).toMatchObject({
      code: 'definition-exists',
    });
    const problem = await server.refused(api.saveRevision, {
      params: { id: started.revisions[0]?.id ?? 0 },
      body: { version: 0, outputQuantity: '1', lines },
    });
    expect(problem).toMatchObject({ code: 'shares-under', facts: { sum: '70' } });
    lines[0] = partLine(part, '2', { waste: '4.5', share: '100' });
    const saved = await save(started, lines, '4');
    expect(saved.revisions[0]).toMatchObject({ state: 'draft', outputQuantity: '4', lines });
    const [used] = (await use(saved)).revisions;
    expect(used).toMatchObject({ state: 'in-use', inUseFrom: '2026-11-23' });
    const frozen = { version: used?.version ?? 0, outputQuantity: '1', lines: [] };
    expect(await server.refused(api.saveRevision, { params: { id: used?.id ?? 0 }, body: frozen })).toMatchObject({
      code: 'wrong-state',
      status: 409,
    });
    await expect(server.database.write((tx) => tx.run('UPDATE revision_line SET amount = 1'))).rejects.toThrow(
      'frozen',
    );
  });

  it('a new revision reaches only what is planned after it; open builds keep what they took', async () => {
    const { definitionId } = await shop.stockOf(product);
    const before = await shop.plan(product, '4');
    expect(before.lines[0]).toMatchObject({ required: '3' });
    const params = { id: definitionId ?? 0 };
    const draft = await server.did('definition', api.startRevision, { params, body: {} });
    expect(draft.revisions.map(({ number, state }) => [number, state])).toEqual([
      [2, 'draft'],
      [1, 'in-use'],
    ]);
    expect(draft.revisions[0]?.lines).toEqual(draft.revisions[1]?.lines);
    expect(await server.refused(api.startRevision, { params, body: {} })).toMatchObject({ code: 'draft-exists' });
    const after = await use(await save(draft, [partLine(part, '1')]));
    expect(after.revisions.map(({ state }) => state)).toEqual(['in-use', 'retired']);
    expect((await server.call(api.build, { params: { id: before.id } })).lines).toHaveLength(5);
    expect(await shop.plan(product, '4')).toMatchObject({ definition: { revision: 2 }, lines: [{ required: '4' }] });
  });

  it('are listed with how many can be made from what nobody else needs', async () => {
    const { rows } = await server.call(api.definitions, { query: { q: 'prod' } });
    expect(rows).toEqual([expect.objectContaining({ code: 'PRODUCT', inUse: 2, draft: null, canMakeNow: '3' })]);
    expect(await server.call(api.whereUsed, { params: { id: part.id } })).toEqual([
      expect.objectContaining({ code: 'PRODUCT', quantity: '1' }),
    ]);
  });

  it('throw a draft away, and with the only one the bill of materials', async () => {
    const lone = await shop.item('LONE', { source: 'made' });
    const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: lone.id } });
    expect(await server.call(api.discardRevision, { params: { id: revisions[0]?.id ?? 0 } })).toEqual({
      definitionId: null,
    });
    expect((await shop.stockOf(lone)).definitionId).toBeNull();
    expect(await server.refused(api.apartPlan, { params: { id: lone.id } })).toMatchObject({
      code: 'no-definition-in-use',
    });
  });

  it('give the coverage of the browser the same figures as the server has', async () => {
    const snapshot = await server.call(api.snapshot, { query: {} });
    expect(snapshot.items.find(([id]) => id === part.id)).toEqual([part.id, 0, '2', [[expect.anything(), '10']]]);
    expect(
      snapshot.demands.filter(({ itemId }) => itemId === part.id).reduce((sum, row) => sum + Number(row.quantity), 0),
    ).toBe(7);
    expect(snapshot.definitions).toEqual([
      {
        itemId: product.id,
        draft: false,
        output: '1',
        benchDays: null,
        parts: [[part.id, '1', 0, '0', []]],
        labour: [],
        charges: [],
      },
    ]);
    expect(snapshot.supplies.map(({ itemId, quantity, kind, bench }) => [itemId, quantity, kind, bench])).toEqual([
      [product.id, '4', 'build', 1],
      [product.id, '4', 'build', 1],
    ]);
  });
});

describe('builds', () => {
  let server: TestServer;
  let shop: Workshop;
  let part: Item;
  let product: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    part = await shop.item('PART');
    product = await shop.item('PRODUCT', { source: 'made', bin: 2 });
    await shop.receive(part, '12', '2');
    await shop.receive(part, '12', '3', 1);
    await shop.define(product, [[part, '2']]);
  });
  afterAll(() => server.close());

  it('change while planned, and only then', async () => {
    const build = await shop.plan(product, '3', '2026-12-01');
    const change = (quantity: string, version: number) => ({
      params: { id: build.id },
      body: { quantity, due: null, outputBinId: shop.bin(1), remark: 'for the fair', version },
    });
    const changed = await server.did('build', api.updateBuild, change('5', build.version));
    expect(changed).toMatchObject({
      quantity: '5',
      due: null,
      outputBin: 'A2',
      remark: 'for the fair',
      lines: [{ open: '10' }],
    });
    expect(await server.refused(api.updateBuild, change('6', build.version))).toMatchObject({
      code: 'stale-save',
      facts: { current: { quantity: '5' } },
    });
    expect(await server.refused(api.updateBuild, change('0', changed.version))).toMatchObject({
      code: 'not-positive',
      field: 'quantity',
    });
    const started = await server.did('build', api.startBuild, {
      params: { id: build.id },
      body: { version: changed.version },
    });
    expect(await server.refused(api.updateBuild, change('6', started.version))).toMatchObject({ code: 'wrong-state' });
    expect(
      await server.refused(api.startBuild, { params: { id: build.id }, body: { version: started.version } }),
    ).toMatchObject({
      code: 'wrong-state',
      detail: `Build ${build.number} is on the bench. Finish the build, or cancel it and plan a new one.`,
    });
  });

  it('put what stands on the bench back where it came from when cancelled', async () => {
    const [row] = (await server.call(api.builds, { query: { state: 'on-bench' } })).rows;
    const { build } = await shop.pickAll(row?.id ?? 0);
    expect(await server.call(api.itemBins, { params: { id: part.id } })).toEqual([
      expect.objectContaining({ bin: 'A1', quantity: '2' }),
      expect.objectContaining({ bin: 'A2', quantity: '12' }),
      expect.objectContaining({ bin: 'Bench', kind: 'bench', build: 'B-0001', quantity: '10' }),
    ]);
    const cancelled = await server.did('build', api.cancelBuild, {
      params: { id: build.id },
      body: { version: build.version },
    });
    expect(cancelled).toMatchObject({ state: 'cancelled', documents: [{ kind: 'pick' }, { kind: 'put-back' }] });
    expect(await shop.stockOf(part)).toMatchObject({ onHand: '24', onBench: '0', promised: '0', value: '60' });
    const putBack = cancelled.documents[1]?.id ?? 0;
    expect(await server.refused(api.undoDocument, { params: { id: putBack }, body: {} })).toMatchObject({
      code: 'undo-final',
    });
    expect(await server.verify()).toEqual([]);
  });

  it('take more than was picked from the shelves, the home bin first', async () => {
    const build = await shop.start(product, '4');
    const body = {
      version: build.version,
      good: '4',
      outputBinId: shop.bin(2),
      lines: [{ lineId: build.lines[0]?.id ?? 0, actual: '15' }],
    };
    const { id: documentId } = await server.withBuild(api.finish, { params: { id: build.id }, body });
    const { movements } = await server.call(api.document, { params: { id: documentId } });
    expect(movements.map(({ bin, quantity }) => [bin, quantity])).toEqual([
      ['MAIN · A1', '-12'],
      ['MAIN · A2', '-3'],
      ['MAIN · B1', '4'],
    ]);
  });

  it('come in lists by state, late ones marked', async () => {
    await shop.plan(product, '1', '2026-11-20');
    await shop.plan(product, '1', '2026-11-30');
    const list = async (state: 'open' | 'finished' | 'cancelled') =>
      (await server.call(api.builds, { query: { state } })).rows;
    expect((await list('open')).map(({ due, late }) => [due, late])).toEqual([
      ['2026-11-20', true],
      ['2026-11-30', false],
    ]);
    expect((await list('finished')).map(({ number }) => number)).toEqual(['B-0002']);
    expect((await list('cancelled')).map(({ number }) => number)).toEqual(['B-0001']);
    const first = await server.call(api.builds, { query: { state: 'open', limit: 1 } });
    const second = await server.call(api.builds, { query: { state: 'open', limit: 1, cursor: first.next ?? '' } });
    expect([...first.rows, ...second.rows].map(({ due }) => due)).toEqual(['2026-11-20', '2026-11-30']);
    expect(second.next).toBeNull();
  });
});
