import { api, type Item } from '@yosegi/contract';
import { ApiProblem } from '@yosegi/contract/client';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

const CROWD = 200;

/** Many people, scanners and double clicks on the last units of one item, all at the same moment. */
describe(`${CROWD} postings at once on the last units`, () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterAll(() => server.close());

  /** Posts them all and tells winners from losers; whoever loses has to be told why, by a problem of ours. */
  const rush = async (post: (n: number) => Promise<unknown>, people = CROWD) => {
    const outcomes = await Promise.allSettled(Array.from({ length: people }, (_, n) => post(n)));
    const losers = outcomes.flatMap((outcome) => (outcome.status === 'rejected' ? [outcome.reason] : []));
    for (const loser of losers) {
      expect(loser).toBeInstanceOf(ApiProblem);
      const { status, detail } = (loser as ApiProblem).problem;
      expect(status, detail).toBeLessThan(500);
      expect(detail.length).toBeGreaterThan(20);
    }
    expect(await server.verify()).toEqual([]);
    return { won: people - losers.length, codes: new Set(losers.map((loser) => (loser as ApiProblem).problem.code)) };
  };
  const leave = (item: Item, quantity: string, named: { lot?: string; serials?: string[] } = {}) =>
    server.posted(api.adjust, {
      body: { reasonId: 1, lines: [{ itemId: item.id, binId: shop.bin(0), change: `-${quantity}`, ...named }] },
    });

  it('never sells one twice, and every unit goes to somebody', async () => {
    const item = await shop.item('LAST');
    await shop.receive(item, '37', '2');
    const { won, codes } = await rush(() => leave(item, '1'));
    expect([won, codes]).toEqual([37, new Set(['stock-short'])]);
    expect(await shop.stockOf(item)).toMatchObject({ onHand: '0', value: '0' });
  });

  it('gives each serial and each lot to one taker only', async () => {
    const serials = Array.from({ length: 20 }, (_, n) => `S${n}`);
    const scale = await shop.item('SCALE', { tracking: 'serial' });
    await shop.receive(scale, '20', '30', 0, { serials });
    const first = await rush((n) => leave(scale, '1', { serials: [`S${n % 20}`] }));
    expect([first.won, first.codes]).toEqual([20, new Set(['serial-not-there'])]);
    const wax = await shop.item('WAX', { tracking: 'lot', unitId: 2 });
    await shop.receive(wax, '10', '8', 0, { lot: 'A' });
    await shop.receive(wax, '10', '8', 0, { lot: 'B' });
    const second = await rush((n) => leave(wax, '0.3', { lot: n % 2 ? 'A' : 'B' }));
    // 33 times 0.3 of each lot; what is left is less than anyone asks for.
    expect([second.won, second.codes]).toEqual([66, new Set(['stock-short'])]);
    expect((await shop.stockOf(wax)).onHand).toBe('0.2');
  });

  it('loses no update between moves, receipts and takings', async () => {
    const item = await shop.item('BUSY');
    await shop.receive(item, '50', '2');
    const move = { itemId: item.id, fromBinId: shop.bin(0), toBinId: shop.bin(1), quantity: '1' };
    const counts = { in: 0, out: 0 };
    await rush(async (n) => {
      if (n % 4 === 0) await server.posted(api.transfer, { body: { lines: [move] } });
      else if (n % 4 === 1) await shop.receive(item, '1', '3').then(() => (counts.in += 1));
      else await leave(item, '1').then(() => (counts.out += 1));
    });
    expect(Number((await shop.stockOf(item)).onHand)).toBe(50 + counts.in - counts.out);
    expect(counts.in).toBe(CROWD / 4);
  });

  it('ships, packs and starts builds on the same last parts as often as they allow', async () => {
    const part = await shop.item('SCARCE', { sellPrice: '5' });
    const product = await shop.item('MADE', { source: 'made', sellPrice: '20', bin: 2 });
    await shop.define(product, [[part, '1']], '10');
    await shop.receive(part, '37', '2');
    const customerId = await shop.customer('CROWD');
    const orders: Awaited<ReturnType<typeof shop.sell>>[] = [];
    const builds: number[] = [];
    for (let n = 0; n < 100; n += 1)
      if (n % 3 === 2) builds.push((await shop.plan(product, '1', '2026-12-01')).id);
      else orders.push(await shop.sell(customerId, [{ itemId: part.id, quantity: '1' }]));
    // What nobody can be sure of has been said of it before: 37 of the hundred stand ready.
    const ready = (await server.call(api.promisedTo, { params: { id: part.id } })).filter(({ now }) => now === '1');
    expect(ready).toHaveLength(37);
    const done = { ship: 0, pack: 0, start: 0, pick: 0 };
    const take = async (n: number) => {
      if (n % 3 === 2) {
        const id = builds[Math.floor(n / 3)] ?? 0;
        const { version } = await server.call(api.build, { params: { id } });
        await server.call(api.startBuild, { params: { id }, body: { version } });
        done.start += 1;
        await shop.pickAll(id);
        done.pick += 1;
        return;
      }
      const order = orders[Math.floor(n / 3) * 2 + (n % 3)];
      const { id, version } = await server.call(api.order, { params: { id: order?.id ?? 0 } });
      const [line] = order?.lines ?? [];
      if (n % 3 === 0) {
        const lines = [{ lineId: line?.id ?? 0, quantity: '1' }];
        await server.call(api.shipOrder, { params: { id }, body: { version, lines } });
        done.ship += 1;
      } else {
        const lines = [{ partId: line?.parts[0]?.id ?? 0, binId: shop.bin(0), quantity: '1' }];
        await server.call(api.packOrder, { params: { id }, body: { lines } });
        done.pack += 1;
      }
    };
    const { won, codes } = await rush(take, 100);
    expect([won, done.ship + done.pack + done.pick]).toEqual([37, 37]);
    for (const code of codes) expect(['stock-short', 'parts-short']).toContain(code);
    expect(Math.min(done.ship, done.pack)).toBeGreaterThan(0);
    // Whoever was told that it can start has it on the bench, or is told what is missing; nothing is ready for anybody.
    const after = await server.call(api.promisedTo, { params: { id: part.id } });
    expect(after.filter(({ now }) => now !== '0')).toEqual([]);
    expect(after).toHaveLength(100 - 37);
  });
});
