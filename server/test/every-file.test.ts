import { type FileRoute, files } from '@yosegi/contract';
import { can } from '@yosegi/core/people';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { Ground } from './ground.ts';
import { TestServer } from './harness.ts';

let server: TestServer;
let ground: Ground;
/** Of nobody, the owner and a builder. */
const cookies = [''];
beforeAll(async () => {
  server = await TestServer.start();
  for (const personId of [1, 2]) {
    await server.signIn(personId);
    cookies.push(server.cookie);
  }
  await server.signIn(1);
  ground = await Ground.of(server);
});
afterAll(() => server.close());

/** Every file that is kept under a key, with the address of something that has none yet. */
const kept = {
  setPicture: async () => files.setPicture.path.replace(':id', String((await ground.item()).id)),
  setReturnPicture: async () => files.setReturnPicture.path.replace(':id', String((await ground.returned(true)).id)),
  setLogo: async () => files.setLogo.path,
};
const picture = (background: string) =>
  sharp({ create: { width: 9, height: 9, channels: 3, background } })
    .png()
    .toBuffer();
const moved = async () =>
  (await server.database.reader.one<{ data_version: number }>('PRAGMA data_version'))?.data_version;

it('no file that is kept is left out', () => {
  const commands = Object.entries(files as Record<string, FileRoute>).filter(([, route]) => route.isCommand);
  expect(Object.keys(kept).sort()).toEqual(commands.map(([name]) => name).sort());
});

it.each(Object.keys(kept) as (keyof typeof kept)[])(
  '%s is kept once under its key, by whom may, and for nobody else',
  async (name) => {
    server.cookie = cookies[1] ?? '';
    const url = await kept[name]();
    const [red, blue] = [await picture('#a33'), await picture('#33a')];
    const send = async (body: Buffer, key: string | null, personId = 1) => {
      server.cookie = cookies[personId] ?? '';
      const headers = { 'content-type': 'application/octet-stream', ...(key ? { 'idempotency-key': key } : {}) };
      const answer = await server.fetch(url, { method: files[name].method, body: new Uint8Array(body), headers });
      return [answer.status, await answer.json()];
    };
    const code = async (...sent: Parameters<typeof send>) => (await send(...sent))[1].code;
    const key = crypto.randomUUID();
    const before = await moved();
    expect([await code(red, null), await code(red, 'short'), await code(red, key, 0)]).toEqual([
      'key-missing',
      'key-missing',
      'sign-in',
    ]);
    if (!can({ role: 'bench' }, files[name].right)) expect(await code(red, key, 2)).toBe('owner-only');
    expect(await code(Buffer.from('no picture'), key)).toBe('picture-unreadable');
    expect(await moved(), 'what was refused moved nothing').toBe(before);

    const done = await send(red, key);
    expect(done[0]).toBe(200);
    const after = await moved();
    expect(after).not.toBe(before);
    expect(await send(red, key)).toEqual(done);
    expect(await code(blue, key)).toBe('key-reused');
    if (can({ role: 'bench' }, files[name].right)) expect(await code(red, key, 2)).toBe('key-reused');
    expect(await moved(), 'sent again it moved nothing').toBe(after);
    server.cookie = cookies[1] ?? '';
    const shown = await server.fetch(url);
    expect([shown.status, shown.headers.get('content-type')]).toEqual([200, 'image/webp']);
    const { dominant } = await sharp(Buffer.from(await shown.arrayBuffer())).stats();
    expect(dominant.r).toBeGreaterThan(dominant.b);
  },
);
