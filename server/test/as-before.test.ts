import { api, type Route } from '@yosegi/contract';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Deed, deeds } from './deeds.ts';
import { everyQuestion } from './every-get.ts';
import { Ground } from './ground.ts';
import { TestServer } from './harness.ts';

let server: TestServer;
let ground: Ground;
beforeAll(async () => {
  server = await TestServer.start();
  ground = await Ground.of(server);
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

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

it.each(posting)('%s, undone: every answer is as it was before', async (name) => {
  const input = (await deeds[name](ground)) as { params?: object; body?: object };
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
