import { afterEach, expect, it, vi } from 'vitest';
import { upload } from './upload.ts';

const megabyte = 1024 * 1024;
const file = (bytes: number) => ({ name: 'stock.csv', size: bytes }) as File;
const sends = (answer: () => Response) => {
  const sent: { url: string; init: RequestInit }[] = [];
  vi.stubGlobal('fetch', async (url: string, init: RequestInit) => {
    sent.push({ url, init });
    return answer();
  });
  return sent;
};
afterEach(() => vi.unstubAllGlobals());

it('sends a file as it is, up to the most that the server takes, and says what it answers', async () => {
  const sent = sends(() => new Response('{"id":7}'));
  const whole = file(2 * megabyte);
  const how = { method: 'PUT', most: 2 * megabyte, headers: { 'idempotency-key': 'k' } } as const;
  expect(await upload('/api/files', whole, how)).toEqual({ id: 7 });
  expect(sent).toHaveLength(1);
  expect(sent[0]).toMatchObject({ url: '/api/files', init: { method: 'PUT', body: whole } });
  const headers = new Headers(sent[0]?.init.headers);
  expect([headers.get('content-type'), headers.get('idempotency-key')]).toEqual(['application/octet-stream', 'k']);
});

it('sends nothing of what is larger, and says how large it is and what to do', async () => {
  const sent = sends(() => new Response('{}'));
  const refused = upload('/api/files', file(2 * megabyte + 1), { method: 'POST', most: 2 * megabyte });
  await expect(refused).rejects.toMatchObject({
    problem: { code: 'file-too-large', detail: expect.stringMatching(/^stock\.csv has 3 MB; the limit is 2 MB\./) },
  });
  expect(sent).toEqual([]);
});

it('says what the server refuses', async () => {
  const problem = { type: 'x', title: 'No', status: 409, code: 'key-reused', detail: 'It was used.' };
  sends(() => new Response(JSON.stringify(problem), { status: 409 }));
  await expect(upload('/api/files', file(1), { method: 'POST', most: 9 })).rejects.toMatchObject({ problem });
});
