import { api } from '@yosegi/contract';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { anyStep, undoLast, World } from './days.ts';
import { TestServer } from './harness.ts';
import { anyReturn, comeBack, decide } from './returns-days.ts';
import { anySale, sell, ship, stocked } from './sales-days.ts';

/**
 * Random days with customers: orders, parcels, builds for them, shipments, what comes back of them, announced or just here,
 * holds, and undoing in any order, beside everything else that happens in a workshop. The books add up, nothing stands in a parcel that no order has packed, nothing is promised or
 * built twice, and books kept slowly beside them say the same.
 */
describe('any sequence of orders, parcels and shipments', () => {
  let server: TestServer;
  let world: World;
  beforeAll(async () => {
    server = await TestServer.start();
    world = await World.open(server);
  });
  afterAll(() => server.close());

  /** Nothing that stands ready for an order is more than shelves have, all orders and builds together. */
  const promisedTwice = async () => {
    const { rows } = await server.call(api.items, { query: {} });
    for (const { id, onHand, held } of rows) {
      const promised = await server.call(api.promisedTo, { params: { id } });
      const now = promised.reduce((sum, row) => sum + Math.round(Number(row.now) * 1e6), 0);
      const there = Math.max(0, Math.round(Number(onHand) * 1e6) - Math.round(Number(held) * 1e6));
      expect(now).toBeLessThanOrEqual(there);
    }
  };

  const cents = (amount: number) => Math.round(amount + 1e-7);
  const micro = (amount: string) => Math.round(Number(amount) * 1e6);

  /** Lines cost what was agreed when they were sold, each is rounded once, and an order comes to the sum of what is printed. */
  const prices = async () => {
    const shows = (['open', 'quotes', 'shipped', 'cancelled'] as const).map((show) =>
      server.call(api.orders, { query: { show, limit: 200 } }),
    );
    for (const { id } of (await Promise.all(shows)).flatMap(({ rows }) => rows)) {
      const { lines, number } = await server.call(api.order, { params: { id } });
      for (const { id: lineId, itemId, price, quantity, dropped, amount } of lines) {
        const known = world.agreed.get(lineId);
        if (known?.itemId === itemId) expect([number, price]).toEqual([number, known.price]);
        expect([number, cents(((micro(quantity) - micro(dropped)) * micro(price)) / 1e10)]).toEqual([
          number,
          cents(micro(amount) / 1e4),
        ]);
      }
    }
  };

  /** What is owed for what comes back: its percentage of what was paid for what is kept; nothing once it was called off. */
  const owed = async () => {
    const { rows } = await server.call(api.returns, { query: { limit: 200 } });
    for (const { id } of rows) {
      const { lines, number, state } = await server.call(api.return, { params: { id } });
      for (const line of lines.filter(({ isKit }) => !isKit)) {
        const away = line.pieces.flatMap(({ outcomes }) => outcomes.filter(({ outcome }) => outcome === 'sent-back'));
        const kept = away.reduce((left, { quantity }) => left - micro(quantity), micro(line.quantity));
        const paid = cents((kept * micro(line.price)) / 1e10);
        const right = state === 'called-off' ? 0 : cents((paid * Number(line.credit)) / 100);
        expect([number, state, Number(line.owed)]).toEqual([number, state, right / 100]);
      }
    }
  };

  it('is carried out or refused, and the books add up', async () => {
    const steps = fc.array(fc.oneof(anySale, anySale, anyReturn, anyStep), { minLength: 45, maxLength: 65 });
    const morning = fc.tuple(...[sell, sell, sell, ship, ship, comeBack, comeBack, decide, undoLast]);
    await fc.assert(
      fc.asyncProperty(morning, steps, async (first, day) => {
        await world.live([...stocked, ...first, ...day], async () => {
          for (const { says, should } of await world.figures()) expect(says).toEqual(should);
          expect(await server.verify()).toEqual([]);
        });
        await promisedTwice();
        await prices();
        await owed();
      }),
      { numRuns: Number(process.env.DAYS ?? 4), endOnFailure: true },
    );
    // It has really been at work.
    const { done } = world;
    for (const kind of ['shipment', 'return', 'return-settled', 'undo'] as const)
      expect(done.get(kind) ?? 0, `${kind} of ${[...done].join()}`).toBeGreaterThan(0);
    expect(world.refused).toBeGreaterThan(0);
  });
});
