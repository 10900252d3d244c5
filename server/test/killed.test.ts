import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api } from '@yosegi/contract';
import { send } from '@yosegi/contract/client';
import { afterAll, describe, expect, it } from 'vitest';
import { Database } from '../src/db/database.ts';
import { verifyDatabase } from '../src/db/verify.ts';
import { TestServer, Workshop } from './harness.ts';

describe('a killed server', () => {
  const [folder, orders] = [mkdtempSync(join(tmpdir(), 'yosegi-')), mkdtempSync(join(tmpdir(), 'yosegi-'))] as const;
  let running: ChildProcess | undefined;
  afterAll(() => {
    running?.kill('SIGKILL');
    for (const one of [folder, orders]) rmSync(one, { recursive: true, force: true });
  });

  /** Starts the real server process and resolves with its address once it listens. */
  const start = (data: string) =>
    new Promise<string>((resolve, reject) => {
      const env = { ...process.env, YOSEGI_DATA: data, PORT: '0', YOSEGI_LOG: 'silent' };
      const child = spawn('node', ['--import', 'tsx', 'server/src/main.ts'], {
        env,
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      running = child;
      child.stdout?.on('data', (text) => {
        const address = /http:\S+/.exec(String(text))?.[0];
        if (address) resolve(address);
      });
      child.once('exit', () => reject(new Error('the server ended')));
    });

  const stop = () => running?.kill('SIGKILL');

  it('has posted all of a document or nothing, and nothing that was acknowledged is lost', async () => {
    const preparing = await TestServer.start(folder);
    const shop = await Workshop.open(preparing);
    const parts = await Promise.all(Array.from({ length: 6 }, (_, index) => shop.item(`P${index}`)));
    const { cookie } = preparing;
    const binId = shop.bin(0);
    await preparing.close(true);

    const acknowledged: string[] = [];
    const lines = parts.map((part) => ({ itemId: part.id, binId, quantity: '1', unitCost: '1.1' }));
    const [runs, atOnce] = [3, 40];
    for (let round = 0; round < runs; round += 1) {
      const address = await start(folder);
      const call = (url: string, init: RequestInit) =>
        fetch(address + url, { ...init, headers: { ...init.headers, cookie } });
      // Killed at any moment of what the server is doing for the others: some answers and some milliseconds in.
      const killAfter = 1 + Math.floor(Math.random() * (atOnce - 10));
      let answered = 0;
      const post = async () => {
        const document = await send(call, api.receive, { body: { kind: 'receipt', lines } });
        acknowledged.push(document.number);
        if (++answered === killAfter) setTimeout(() => running?.kill('SIGKILL'), Math.random() * 12);
      };
      await Promise.allSettled(Array.from({ length: atOnce }, post));
      running?.kill('SIGKILL');
      const database = await Database.open(join(folder, 'yosegi.sqlite'));
      expect(await verifyDatabase(database.reader)).toEqual([]);
      const documents = await database.reader.all<{ number: string; n: number }>(
        'SELECT number, (SELECT count(*) FROM movement WHERE document_id = document.id) AS n FROM document',
      );
      expect(documents.map(({ number }) => number)).toEqual(expect.arrayContaining(acknowledged));
      expect(new Set(documents.map(({ n }) => n))).toEqual(new Set([parts.length]));
      await database.close();
    }
    expect(acknowledged.length).toBeGreaterThanOrEqual(runs);
    expect(acknowledged.length).toBeLessThan(runs * atOnce);
  });

  it('has finished and shipped an order or done neither', async () => {
    const preparing = await TestServer.start(orders);
    const shop = await Workshop.open(preparing);
    const part = await shop.item('PART');
    const product = await shop.item('PRODUCT', { source: 'made', sellPrice: '9', bin: 2 });
    await shop.receive(part, '500', '2');
    await shop.define(product, [[part, '3']], '10');
    const customerId = await shop.customer('LARK');
    const [rounds, each] = [3, 14];
    const sold: { id: number; partId: number; lineId: number; buildId: number }[] = [];
    for (let n = 0; n < rounds * each; n += 1) {
      const { id, lines } = await shop.sell(customerId, [{ itemId: product.id, quantity: '1' }]);
      const [lineId, partId] = [lines[0]?.id ?? 0, lines[0]?.parts[0]?.id ?? 0];
      const { builds } = await preparing.call(api.buildForOrders, { body: { chosen: [{ partId, quantity: '1' }] } });
      sold.push({ id, partId, lineId, buildId: builds[0]?.id ?? 0 });
    }
    const { cookie } = preparing;
    const outputBinId = shop.bin(2);
    await preparing.close(true);
    let shipped = 0;
    for (let round = 0; round < rounds; round += 1) {
      const address = await start(orders);
      const call = (url: string, init: RequestInit) =>
        fetch(address + url, { ...init, headers: { ...init.headers, cookie } });
      const killAfter = 1 + Math.floor(Math.random() * (each - 4));
      let answered = 0;
      const ship = async ({ id, lineId, buildId }: (typeof sold)[number]) => {
        const { version } = await send(call, api.order, { params: { id } });
        const build = await send(call, api.build, { params: { id: buildId } });
        const finish = { buildId, version: build.version, good: '1', outputBinId, lines: [] };
        const body = { version, lines: [{ lineId, quantity: '1' }], finishes: [finish] };
        await send(call, api.shipOrder, { params: { id }, body });
        if (++answered === killAfter) setTimeout(stop, Math.random() * 12);
      };
      await Promise.allSettled(sold.slice(round * each, (round + 1) * each).map(ship));
      stop();
      const database = await Database.open(join(orders, 'yosegi.sqlite'));
      expect(await verifyDatabase(database.reader)).toEqual([]);
      const rows = await database.reader.all<{ state: string; left: number; kept: number }>(
        `SELECT b.state, l.shipped / 1000000 AS left, f.kept / 1000000 AS kept FROM build_for f
         JOIN build b ON b.id = f.build_id JOIN order_part p ON p.id = f.part_id JOIN order_line l ON l.id = p.line_id`,
      );
      const done = rows.filter(({ left }) => left === 1);
      expect(done.length).toBeGreaterThanOrEqual(shipped + answered);
      shipped = done.length;
      // Whatever left was finished for it, and nothing was finished or begun that did not leave.
      for (const { state, left, kept } of rows)
        expect({ state, kept, left }).toEqual({ state: left === 1 ? 'finished' : 'planned', kept: left, left });
      await database.close();
    }
    expect(shipped).toBeGreaterThanOrEqual(rounds);
    expect(shipped).toBeLessThan(rounds * each);
  });
});
