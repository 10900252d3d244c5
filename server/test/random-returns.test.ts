import { api, type Item, type Route } from '@yosegi/contract';
import { ApiProblem, type Input, type Output } from '@yosegi/contract/client';
import { conditions, settledBy } from '@yosegi/core/returns';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/**
 * Random shipments of goods, lots, serials, products and swapped kits; returns of parts of them, decided in every way and
 * taken apart; and all of it undone, the last first. Every undo comes back to the books as they were, to the last millionth;
 * where one of the others is undone, what becomes of the rest is worth exactly what came in.
 */
describe('any sequence of shipments and returns', () => {
  let server: TestServer;
  let shop: Workshop;
  let [jar, wax, scale, pot, kit]: Item[] = [];
  let [customerId, reasonId] = [0, 0];
  const done = new Map<string, number>();
  /** Documents and can be undone, with the books as they were before it. */
  const past: { readonly id: number; readonly books: string }[] = [];

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    jar = await shop.item('JAR');
    wax = await shop.item('WAX', { tracking: 'lot' });
    scale = await shop.item('SCALE', { tracking: 'serial', bin: 1 });
    pot = await shop.item('POT', { source: 'made' });
    kit = await shop.item('GIFT', { source: 'made', sellPrice: '20' });
    await shop.receive(jar, '300', '1.377');
    await shop.receive(wax, '37', '3.113', 0, { lot: 'L1', bestBefore: '2027-01-01' });
    await shop.receive(wax, '90', '3.529', 0, { lot: 'L2', bestBefore: '2027-02-01' });
    for (const [code, cost] of [
      ['S1', '80.01'],
      ['S2', '95.5'],
      ['S3', '101.333333'],
    ] as const)
      await shop.receive(scale, '1', cost, 1, { serials: [code] });
    await shop.receive(pot, '30', '9.999');
    await shop.define(pot, [
      [jar, '2'],
      [wax, '1'],
    ]);
    await shop.define(kit, [
      [jar, '2'],
      [wax, '3'],
    ]);
    await shop.behave(kit, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'anything' });
    customerId = await shop.customer('ANNA');
    reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'return')?.id ?? 0;
  });
  afterAll(() => server.close());

  /** Every quantity and value there is, by where and of what. */
  async function books(): Promise<string> {
    const { reader } = server.database;
    const standing = await reader.all(
      `SELECT item_id, bin_id, lot_id, serial_id, holder_kind, holder_id, sum(quantity) AS quantity FROM balance
        GROUP BY 1, 2, 3, 4, 5, 6 HAVING sum(quantity) <> 0 ORDER BY 1, 2, 3, 4, 5, 6`,
    );
    const worth = await reader.all('SELECT item_id, quantity, value FROM item_stock ORDER BY item_id');
    const waiting = await reader.all(
      'SELECT piece_id, quantity - settled AS left, value - settled_value AS worth FROM return_standing ORDER BY piece_id',
    );
    return JSON.stringify({ standing, worth, waiting: waiting.filter((one) => (one as { left: number }).left !== 0) });
  }

  /** Does something that can be undone, or is refused with a way out; anything else fails. */
  async function attempt<R extends Route>(what: string, route: R, input: Input<R>): Promise<Output<R> | null> {
    const before = await books();
    try {
      const answer = await server.call(route, input);
      done.set(what, (done.get(what) ?? 0) + 1);
      const { id, documentId, documents } = answer as {
        id?: number;
        documentId?: number;
        documents?: { id: number }[];
      };
      // Of several documents of one command, only the last is back at what was before the first when all are undone.
      if (documents && documents.length > 1) past.length = 0;
      else past.push({ id: documents?.[0]?.id ?? documentId ?? id ?? 0, books: before });
      return answer;
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.problem.status >= 500) throw error;
      expect(error.problem.detail.length).toBeGreaterThan(10);
      done.set('refused', (done.get('refused') ?? 0) + 1);
      expect(await books()).toBe(before);
      return null;
    }
  }

  const pickFrom = <T>(all: readonly T[], at: number): T | undefined => all[at % Math.max(1, all.length)];
  const units = () =>
    server.database.reader.all<{ serial: string; bin_id: number }>(
      `SELECT s.code AS serial, b.bin_id FROM balance b JOIN serial s ON s.id = b.serial_id
        WHERE b.quantity > 0 AND b.holder_kind IS NULL ORDER BY s.code`,
    );
  const waiting = async () =>
    (await server.call(api.waitingReturns, {})).returns.flatMap(({ lines }) =>
      lines.flatMap((line) =>
        line.pieces.filter((piece) => piece.waiting !== '0').map((piece) => ({ ...piece, line })),
      ),
    );

  const deeds: Record<string, (at: number, n: number) => Promise<unknown>> = {
    async ship(at, n) {
      const what = pickFrom([jar, wax, scale, pot, kit], at);
      const isKit = what === kit;
      const quantity = what === scale ? '1' : String(1 + (n % 4));
      const contents = isKit && n % 2 ? [{ position: 0, itemId: pot?.id ?? 0, amount: '1' }] : undefined;
      const line = { itemId: what?.id ?? 0, quantity, price: '20', ...(contents ? { contents } : {}) };
      const order = await shop.sell(customerId, [line]).catch(() => null);
      if (!order) return;
      const [unit] = what === scale ? await units() : [];
      const body = {
        version: order.version,
        lines: order.lines.map((one) => ({
          lineId: one.id,
          quantity: one.quantity,
          parts: unit ? one.parts.map((part) => ({ partId: part.id, serials: [unit.serial], binId: unit.bin_id })) : [],
        })),
      };
      await attempt('ship', api.shipOrder, { params: { id: order.id }, body });
    },
    async back(at, n) {
      const rows = await server.call(api.returnable, { query: { q: 'ANNA' } });
      const row = pickFrom(
        rows.filter(({ left }) => left !== '0'),
        at,
      );
      if (!row) return;
      const quantity = row.serials.length > 0 ? '1' : String(Math.max(1, Number(row.left) - (n % 3)));
      const taken = await attempt('back', api.announceReturn, {
        body: {
          arrived: true,
          lines: [
            {
              shipmentId: row.shipmentId,
              lineId: row.lineId,
              quantity,
              reasonId,
              condition: conditions[n % conditions.length] ?? 'used',
              serials: row.serials.slice(0, 1),
            },
          ],
        },
      });
      if (taken && quantity === row.shipped) await sameAsLeft(taken.documentId ?? 0, row.shipmentId, row.lineId);
    },
    async settle(at, n) {
      const piece = pickFrom(await waiting(), at);
      if (!piece) return;
      const quantity = n % 3 === 0 ? piece.waiting : String(Math.min(Number(piece.waiting), 1 + (n % 2)));
      const outcome = settledBy[n % settledBy.length] ?? 'shelf';
      await attempt(`settle ${outcome}`, api.settleReturns, {
        body: { deeds: [{ pieceId: piece.id, quantity, outcome, note: 'As seen', binId: n % 2 ? shop.bin(2) : null }] },
      });
    },
    async apart(at, n) {
      const piece = pickFrom(
        (await waiting()).filter(({ canApart, line }) => canApart && !line.isKit),
        at,
      );
      if (!piece) return;
      const plan = await server.call(api.apartPlan, { params: { id: piece.itemId }, query: { pieceId: piece.id } });
      await attempt('apart', api.takeApart, {
        body: {
          itemId: piece.itemId,
          revisionId: plan.revisionId,
          binId: shop.bin(0),
          pieceId: piece.id,
          quantity: '1',
          leftover: n % 2 ? 'written-off' : 'spread',
          lines: plan.lines.map(({ lineId, code }, index) => ({
            lineId,
            good: '1',
            damaged: code === 'JAR' && n % 3 === 0 ? '1' : '0',
            binId: shop.bin(0),
            share: index === 0 && n % 2 ? String(10 + (n % 80)) : null,
            ...(code === 'WAX' ? { lot: 'L2' } : {}),
          })),
        },
      });
    },
    async undo() {
      const last = past.pop();
      if (last) await undo(last);
    },
    /** One of those before the last, as far as nothing stands on it: what came after keeps what it was worth. */
    async undoEarlier(at) {
      const one = pickFrom(past.slice(0, -1), at);
      if (!one) return;
      const undone = await attempt('undo earlier', api.undoDocument, { params: { id: one.id }, body: {} });
      if (!undone) return;
      past.length = 0;
      await callOff();
    },
  };

  /** What was taken in is announced again, and holds on to its shipment until it is called off. */
  async function callOff(): Promise<void> {
    const { rows } = await server.call(api.returns, { query: { state: 'announced' } });
    for (const one of rows)
      await server.call(api.callOffReturn, {
        params: { id: one.id },
        body: { version: one.version, because: 'It did not come' },
      });
  }

  async function undo({ id, books: before }: (typeof past)[number]): Promise<void> {
    await server.call(api.undoDocument, { params: { id }, body: {} });
    await callOff();
    done.set('undo', (done.get('undo') ?? 0) + 1);
    expect(await books()).toBe(before);
  }

  /** Returns of a whole line is what left for it: item by item, lot by lot, and worth the same. */
  async function sameAsLeft(documentId: number, shipmentId: number, lineId: number): Promise<void> {
    const { reader } = server.database;
    const left = await reader.all(
      `SELECT m.item_id, m.lot_id, m.serial_id, -sum(m.quantity) AS quantity, -sum(m.value) AS value
         FROM movement m JOIN order_part p ON p.id = m.line_id
        WHERE m.document_id = $1 AND p.line_id = $2 GROUP BY 1, 2, 3 HAVING sum(m.quantity) <> 0 ORDER BY 1, 2, 3`,
      [shipmentId, lineId],
    );
    const back = await reader.all(
      `SELECT item_id, lot_id, serial_id, sum(quantity) AS quantity, sum(value) AS value FROM movement
        WHERE document_id = $1 GROUP BY 1, 2, 3 ORDER BY 1, 2, 3`,
      [documentId],
    );
    expect(left.length).toBeGreaterThan(0);
    expect(back).toEqual(left);
    done.set('same', (done.get('same') ?? 0) + 1);
  }

  it('is undone to the last millionth, and a returned line is what left for it', async () => {
    const deed = fc.tuple(
      fc.constantFrom('ship', 'back', 'settle', 'settle', 'settle', 'apart', 'apart', 'undo', 'undoEarlier'),
      fc.nat({ max: 60 }),
      fc.nat({ max: 60 }),
    );
    await fc.assert(
      fc.asyncProperty(fc.nat({ max: 60 }), fc.array(deed, { minLength: 4, maxLength: 14 }), async (first, work) => {
        past.length = 0;
        await deeds.ship?.(first, first);
        await deeds.back?.(0, first);
        // A pot that comes back at once, so that something can come apart.
        await deeds.ship?.(3, first);
        await deeds.back?.(0, 0);
        await deeds.apart?.(0, first);
        for (const [name, at, n] of work) await deeds[name]?.(at, n);
        expect(await server.verify()).toEqual([]);
        for (let last = past.pop(); last; last = past.pop()) await undo(last);
        expect(await server.verify()).toEqual([]);
      }),
      { numRuns: 25, endOnFailure: true },
    );
    for (const what of ['ship', 'back', 'same', 'settle shelf', 'apart', 'undo', 'undo earlier'])
      expect(done.get(what) ?? 0, what).toBeGreaterThan(2);
  });
});
