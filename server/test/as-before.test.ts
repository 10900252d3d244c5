import { api, type Route } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Deed, deeds } from './deeds.ts';
import { everyQuestion } from './every-get.ts';
import { Ground } from './ground.ts';
import { partLine, TestServer } from './harness.ts';

let server: TestServer;
let ground: Ground;

/** Deeds that post what can be undone; what was put back is picked again instead. */
const posting: readonly Deed[] = [
  'receive',
  'receivePurchase',
  'transfer',
  'adjust',
  'revalue',
  'pick',
  'pickOnRun',
  'finish',
  'packOrder',
  'shipOrder',
  'takeApart',
  'settleReturns',
  'approveCount',
  'postPrices',
];
/** What tells what happened, undone or not. */
const HISTORY: readonly (keyof typeof api)[] = [
  'documents',
  'document',
  'movements',
  'receiptPrices',
  'shipment',
  'serialUnit',
  'find',
];
/** What a change moves on although what it changed is as before: lists of what was posted, and a parcel that was opened for it. */
const PASSING = new Set([
  'version',
  'step',
  'hasHistory',
  'documents',
  'receipts',
  'picks',
  'parcels',
  'place',
  'codes',
]);
const read = async (url: string) =>
  JSON.parse(await (await server.fetch(url)).text(), (key, value) => (PASSING.has(key) ? undefined : value));

interface Done {
  readonly id: number;
  readonly documentId?: number | null;
  readonly documents?: readonly { readonly id: number }[];
}

/** Where two answers differ, as paths into them. */
function differences(one: unknown, other: unknown, path = ''): string[] {
  if (JSON.stringify(one) === JSON.stringify(other)) return [];
  if (!one || !other || typeof one !== 'object' || typeof other !== 'object')
    return [`${path}: ${JSON.stringify(one)} → ${JSON.stringify(other)}`];
  const names = new Set([...Object.keys(one), ...Object.keys(other)]);
  return [...names].flatMap((name) => differences(one[name as never], other[name as never], `${path}.${name}`));
}

/** The same of what is known piece by piece: two of a part, and one of what is made of it. */
async function pieces(tracking: 'lot' | 'serial') {
  const part = await ground.item({ tracking });
  const made = await ground.item({ source: 'made', tracking });
  await ground.define(made, [partLine(part, '1')]);
  const named = (one: string, ...more: string[]) =>
    tracking === 'lot' ? { lot: `L-${one}` } : { serials: [one, ...more].map((code) => `S-${code}`) };
  await ground.shop.receive(part, '2', '5', 0, named(part.code, `${part.code}b`));
  await ground.shop.receive(made, '1', '9', 0, named(made.code));
  return { part, made, one: named(part.code), other: named(`${part.code}c`), unit: named(made.code), named };
}

type Pieces = Awaited<ReturnType<typeof pieces>>;
const ofPieces: Partial<Record<Deed, (of: Pieces) => Promise<object>>> = {
  receive: async ({ part, other }) => ({
    body: {
      kind: 'receipt',
      lines: [{ itemId: part.id, binId: ground.bin(), quantity: '1', unitCost: '8', ...other }],
    },
  }),
  transfer: async ({ part, one }) => ({
    body: { lines: [{ itemId: part.id, fromBinId: ground.bin(), toBinId: ground.bin(1), quantity: '1', ...one }] },
  }),
  adjust: async ({ part, one }) => ({
    body: { reasonId: 1, lines: [{ itemId: part.id, binId: ground.bin(), change: '-1', ...one }] },
  }),
  revalue: async ({ part }) => ({ body: { asStandard: false, lines: [{ itemId: part.id, unitCost: '4' }] } }),
  pick: async ({ made, one }) => {
    const { id, lines } = await ground.shop.start(made, '1');
    return {
      params: { id },
      body: { lines: [{ lineId: lines[0]?.id, binId: ground.bin(), quantity: '1', ...one }] },
    };
  },
  finish: async ({ made, one, named }) => {
    const { id, lines } = await ground.shop.start(made, '1');
    const line = { lineId: lines[0]?.id ?? 0, binId: ground.bin(), quantity: '1', ...one };
    await server.call(api.pick, { params: { id }, body: { lines: [line] } });
    const { version, outputBinId } = await ground.read('build', id);
    return { params: { id }, body: { version, good: '1', outputBinId, lines: [], ...named(`${made.code}b`) } };
  },
  packOrder: async ({ made, unit }) => {
    const { id, lines } = await ground.order(made, '1');
    const line = { partId: lines[0]?.parts[0]?.id, binId: ground.bin(), quantity: '1', ...unit };
    return { params: { id }, body: { lines: [line] } };
  },
  shipOrder: async ({ made, unit }) => {
    const { id, version, lines } = await ground.order(made, '1');
    const parts = [{ partId: lines[0]?.parts[0]?.id, ...unit }];
    return { params: { id }, body: { version, lines: [{ lineId: lines[0]?.id, quantity: '1', parts }] } };
  },
  takeApart: async ({ made, unit, other }) => {
    const { lines, revisionId } = await server.call(api.apartPlan, { params: { id: made.id } });
    const back = lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '0', binId: ground.bin(), ...other }));
    const whole = { binId: ground.bin(), quantity: '1', leftover: 'spread', ...unit };
    return { body: { itemId: made.id, revisionId, lines: back, ...whole } };
  },
};

const kinds = Object.keys(ofPieces) as (keyof typeof ofPieces)[];
const piecewise = (tracking: 'lot' | 'serial') =>
  kinds.map((name) => [name, async () => ofPieces[name]?.(await pieces(tracking)) ?? {}] as const);
const whole = posting.map((name) => [name, () => deeds[name](ground)] as const);
const all: Readonly<Record<string, readonly (readonly [Deed, () => Promise<object>])[]>> = {
  'of anything': whole,
  'of lots': piecewise('lot'),
  'of serials': piecewise('serial'),
};

// Each has a server of its own: everything is asked, and nobody may ask without end.
describe.each(Object.keys(all))('deeds %s', (of) => {
  beforeAll(async () => {
    server = await TestServer.start();
    ground = await Ground.of(server);
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  it.each(all[of] ?? [])('%s, undone: every answer is as it was before', async (name, begin) => {
    const input = await begin();
    const ids = JSON.stringify(input).match(/\d+/g)?.map(Number) ?? [];
    const was: [string, unknown][] = [];
    for (const { name: asked, url } of await everyQuestion(server, 1, ids))
      if (!HISTORY.includes(asked)) was.push([url, await read(url)]);
    const done = (await server.call(api[name] as Route, input as never)) as Done;
    const id = done.documents?.[0]?.id ?? done.documentId ?? done.id;
    await server.call(api.undoDocument, { params: { id }, body: {} });
    const found: string[] = [];
    for (const [url, before] of was) found.push(...differences(before, await read(url)).map((one) => `${url} ${one}`));
    expect(found).toEqual([]);
  });
});
