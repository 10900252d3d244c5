import { api, type Item } from '@yosegi/contract';
import { ApiProblem } from '@yosegi/contract/client';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/**
 * Random days in a workshop, by the real commands over HTTP: whatever is asked in whatever order, it is carried out or
 * refused with a problem, and the books add up.
 */
describe('any sequence of commands', () => {
  let server: TestServer;
  let shop: Workshop;
  let parts: Item[];
  let product: Item;
  let wax: Item;
  let scale: Item;
  let supplierId = 0;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    parts = [await shop.item('WOOD'), await shop.item('GLUE', { unitId: 3 })];
    product = await shop.item('BOX', { source: 'made', bin: 2 });
    const [wood, glue] = parts as [Item, Item];
    await shop.define(
      product,
      [
        [wood, '3'],
        [glue, '0.125', 'when-finished'],
      ],
      '7',
    );
  });
  beforeAll(async () => {
    wax = await shop.item('WAX', { tracking: 'lot', unitId: 2 });
    scale = await shop.item('SCALE', { tracking: 'serial', serialPattern: 'SC-###' });
    const supplier = { code: 'SUP', name: 'Supplier', email: 'a@supplier.example' };
    supplierId = (await server.call(api.createSupplier, { body: supplier })).id;
  });
  afterAll(() => server.close());

  type Step = () => Promise<unknown>;
  const nat = (max: number) => fc.integer({ min: 0, max });
  const openBuild = async (n: number, state: 'planned' | 'on-bench') => {
    const { rows } = await server.call(api.builds, { query: { state } });
    const row = rows[n % Math.max(1, rows.length)];
    return row ? server.call(api.build, { params: { id: row.id } }) : undefined;
  };
  const override = (on: boolean) => (on ? { override: { reason: 'the owner said so' } } : {});

  const receive = fc.tuple(nat(1), fc.integer({ min: 1, max: 40 }), nat(500)).map(
    ([part, n, cost]): Step =>
      () =>
        shop.receive(parts[part] as Item, String(n), (cost / 100).toFixed(2), part),
  );
  const plan = nat(9).map(
    (n): Step =>
      () =>
        shop.plan(product, String(n + 1)),
  );
  const start = fc.tuple(nat(9), fc.boolean(), nat(5)).map(
    ([n, force, some]): Step =>
      async () => {
        const build = await openBuild(n, 'planned');
        if (!build) return;
        const quantity = some > 0 && some <= Number(build.quantity) ? { quantity: String(some) } : {};
        await server.call(api.startBuild, {
          params: { id: build.id },
          body: { version: build.version, ...quantity, ...override(force) },
        });
      },
  );
  const pick = fc.tuple(nat(9), fc.integer({ min: 1, max: 12 }), fc.boolean()).map(
    ([n, quantity, force]): Step =>
      async () => {
        const build = await openBuild(n, 'on-bench');
        const line = build?.lines[0];
        if (!build || !line) return;
        const lines = [{ lineId: line.id, binId: shop.bin(0), quantity: String(quantity) }];
        await server.call(api.pick, { params: { id: build.id }, body: { lines, ...override(force) } });
      },
  );
  const finish = fc.tuple(nat(9), fc.integer({ min: 1, max: 6 }), nat(2000), fc.boolean(), fc.boolean()).map(
    ([n, good, used, close, force]): Step =>
      async () => {
        const build = await openBuild(n, 'on-bench');
        const glue = build?.lines[1];
        if (!build || !glue) return;
        const lines = used > 1000 ? [{ lineId: glue.id, actual: ((used - 1000) / 1000).toFixed(3) }] : [];
        const body = {
          version: build.version,
          good: String(good),
          outputBinId: shop.bin(2),
          lines,
          close,
          ...override(force),
        };
        await server.call(api.finish, { params: { id: build.id }, body });
      },
  );
  const apart = fc.tuple(fc.integer({ min: 1, max: 3 }), nat(9), fc.boolean()).map(
    ([units, good, spread]): Step =>
      async () => {
        const { revisionId, lines } = await server.call(api.apartPlan, { params: { id: product.id } });
        const back = lines.map((line) => ({
          lineId: line.lineId,
          good: line.decimals > 0 ? '0.1' : String(good),
          damaged: '0',
          binId: shop.bin(1),
        }));
        const leftover = spread ? 'spread' : 'written-off';
        await server.call(api.takeApart, {
          body: { itemId: product.id, revisionId, binId: shop.bin(2), quantity: String(units), leftover, lines: back },
        });
      },
  );
  const cancel = nat(9).map(
    (n): Step =>
      async () => {
        const build = await openBuild(n, n % 2 ? 'on-bench' : 'planned');
        if (build) await server.call(api.cancelBuild, { params: { id: build.id }, body: { version: build.version } });
      },
  );
  const move = fc.tuple(nat(1), fc.integer({ min: 1, max: 9 }), nat(1)).map(
    ([part, n, to]): Step =>
      () =>
        server.call(api.transfer, {
          body: {
            lines: [
              {
                itemId: (parts[part] as Item).id,
                fromBinId: shop.bin(part),
                toBinId: shop.bin(to + 1),
                quantity: String(n),
              },
            ],
          },
        }),
  );
  const adjust = fc.tuple(nat(1), fc.integer({ min: -5, max: 5 }), fc.option(nat(300)), fc.boolean()).map(
    ([part, n, cost, force]): Step =>
      () =>
        server.call(api.adjust, {
          body: {
            reasonId: 1,
            lines: [
              {
                itemId: (parts[part] as Item).id,
                binId: shop.bin(part),
                change: String(n),
                unitCost: cost === null ? null : (cost / 100).toFixed(2),
              },
            ],
            ...override(force),
          },
        }),
  );
  const lots = fc.tuple(nat(3), fc.integer({ min: 1, max: 9 }), nat(900)).map(
    ([lot, n, cost]): Step =>
      () =>
        shop.receive(wax, `${n}.5`, (cost / 100).toFixed(2), lot % 3, { lot: `L${lot}` }),
  );
  const serials = fc.tuple(nat(40), fc.integer({ min: 1, max: 3 }), nat(9000)).map(
    ([first, n, cost]): Step =>
      () =>
        shop.receive(scale, String(n), (cost / 100).toFixed(2), 0, {
          serials: Array.from({ length: n }, (_, index) => `SC-${String(first + index).padStart(3, '0')}`),
        }),
  );
  const tracked = fc.tuple(nat(3), nat(40), nat(2), fc.boolean(), fc.boolean()).map(
    ([lot, serial, to, byLot, isMove]): Step =>
      () => {
        const named = byLot ? { lot: `L${lot}` } : { serials: [`SC-${String(serial).padStart(3, '0')}`] };
        const itemId = byLot ? wax.id : scale.id;
        const move = { itemId, fromBinId: shop.bin(lot % 3), toBinId: shop.bin(to), quantity: '1', ...named };
        const change = { itemId, binId: shop.bin(lot % 3), change: '-1', ...named };
        return isMove
          ? server.call(api.transfer, { body: { lines: [move] } })
          : server.call(api.adjust, { body: { reasonId: 1, lines: [change] } });
      },
  );
  const price = fc.tuple(nat(20), nat(900)).map(
    ([n, cost]): Step =>
      async () => {
        const { rows } = await server.call(api.documents, { query: { kind: 'receipt', limit: 30 } });
        const row = rows[n % Math.max(1, rows.length)];
        if (!row) return;
        const { lines } = await server.call(api.receiptPrices, { params: { id: row.id } });
        const body = { lines: lines.map(({ lineId }) => ({ lineId, unitCost: (cost / 100).toFixed(2) })) };
        await server.call(api.postPrices, { params: { id: row.id }, body });
      },
  );
  const revalue = fc.tuple(nat(3), nat(900)).map(
    ([n, cost]): Step =>
      () => {
        const item = [...parts, wax, scale][n] as Item;
        const lines = [{ itemId: item.id, unitCost: (cost / 100).toFixed(2) }];
        return server.call(api.revalue, { body: { lines } });
      },
  );
  const count = fc.tuple(nat(2), nat(9)).map(
    ([bin, n]): Step =>
      async () => {
        const begun = await server.call(api.beginCount, { body: { binIds: [shop.bin(bin)] } });
        const plain = begun.sheet.filter((line) => line.tracking !== 'serial');
        for (const line of plain)
          await server.call(api.countLine, { params: { id: line.id }, body: { counted: String(n) } });
        const { version } = await server.call(api.count, { params: { id: begun.id } });
        await server.call(api.approveCount, { params: { id: begun.id }, body: { version } });
      },
  );
  const buy = fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 12 }), fc.boolean()).map(
    ([ordered, came, more]): Step =>
      async () => {
        const part = parts[0] as Item;
        const order = { supplierId, lines: [{ itemId: part.id, quantity: String(ordered), price: '2' }] };
        const { orders } = await server.call(api.createOrders, { body: { orders: [order], send: 'mailbox' } });
        const [line] = orders[0]?.lines ?? [];
        const own = { lineId: line?.id ?? 0, binId: shop.bin(0), quantity: String(came), unitCost: '2.1' };
        await server.call(api.receiveOrder, {
          params: { id: orders[0]?.id ?? 0 },
          body: { acceptOver: more, lines: [own] },
        });
      },
  );
  const undo = nat(30).map(
    (n): Step =>
      async () => {
        const { rows } = await server.call(api.documents, { query: { limit: 40 } });
        const row = rows[n % Math.max(1, rows.length)];
        if (row) await server.call(api.undoDocument, { params: { id: row.id }, body: {} });
      },
  );

  it('is carried out or refused, and the books add up', { timeout: 120_000 }, async () => {
    let [done, refused] = [0, 0];
    const day = fc.array(
      fc.oneof(
        ...[receive, plan, start, pick, pick, finish, finish, apart, move, adjust, cancel, undo, undo],
        ...[lots, serials, tracked, tracked, price, revalue, count, buy],
      ),
      {
        minLength: 25,
        maxLength: 40,
      },
    );
    await fc.assert(
      fc.asyncProperty(day, async (steps) => {
        for (const step of steps) {
          try {
            await step();
            done += 1;
          } catch (error) {
            if (!(error instanceof ApiProblem)) throw error;
            expect(error.problem.status, error.problem.detail).toBeLessThan(500);
            refused += 1;
          }
        }
        expect(await server.verify()).toEqual([]);
      }),
      { numRuns: 8, endOnFailure: true },
    );
    // Both must really have happened for the property to mean anything.
    expect(done).toBeGreaterThan(60);
    expect(refused).toBeGreaterThan(5);
  });
});
