import { api, type BuildDetail, type Item, type StockDocument } from '@yosegi/contract';
import { ApiProblem } from '@yosegi/contract/client';
import { formatDecimal } from '@yosegi/core/number';
import fc from 'fast-check';
import { expect } from 'vitest';
import { unanswered } from './every-get.ts';
import { type TestServer, Workshop } from './harness.ts';
import { disagreements } from './one-rule.ts';
import { type Said, SlowBooks } from './slow-books.ts';
import { from1, nat, step } from './step.ts';

/** Something a person does; what they say of it besides what its document shows. */
export type Step = (world: World) => Promise<Said | undefined>;

/** A small workshop in which anything may happen, with the books kept a second time beside it. */
export class World {
  readonly books = new SlowBooks();
  /** What one costs on lines of orders, as it was agreed; it stays so as long as the line is of the same item. */
  readonly agreed = new Map<number, { readonly itemId: number; readonly price: string }>();
  /** How many documents of each kind there were, and how often something was refused. */
  readonly done = new Map<string, number>();
  refused = 0;
  private days = 0;
  private seen = 0;

  private constructor(
    readonly server: TestServer,
    readonly shop: Workshop,
    /** A1, A2, B1 and, in another store, a quarantine bin and a shelf. */
    readonly bins: readonly number[],
    readonly items: Readonly<Record<'wood' | 'glue' | 'box' | 'wax' | 'scale' | 'kit', Item>>,
    readonly supplierIds: readonly number[],
    readonly holdReason: number,
    readonly customerId: number,
  ) {}

  static async open(server: TestServer): Promise<World> {
    const shop = await Workshop.open(server);
    const wood = await shop.item('WOOD', { reorderPoint: '20', sellPrice: '2.5' });
    const glue = await shop.item('GLUE', { unitId: 3 });
    const box = await shop.item('BOX', { source: 'made', bin: 2, sellPrice: '9.99' });
    const wax = await shop.item('WAX', { tracking: 'lot', unitId: 2 });
    const scale = await shop.item('SCALE', { tracking: 'serial', serialPattern: 'SC-###' });
    await shop.define(
      box,
      [
        [wood, '3'],
        [glue, '0.125', 'when-finished'],
      ],
      '7',
    );
    const kit = await shop.item('KIT', { source: 'made' });
    await shop.define(kit, [
      [wood, '2'],
      [wax, '0.3'],
    ]);
    await shop.behave(kit, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'anything' });
    const customerId = await shop.customer('LARK', { discount: '10' });
    const suppliers: number[] = [];
    for (const code of ['EAST', 'WEST']) {
      const body = { code, name: code, email: `a@${code}.example`, leadDays: code === 'EAST' ? 3 : 9 };
      suppliers.push((await server.call(api.createSupplier, { body })).id);
    }
    const { id } = await server.call(api.createStore, { body: { code: 'YARD', name: 'Yard' } });
    const bins = [...shop.bins];
    for (const [code, kind] of [
      ['Q1', 'quarantine'],
      ['Y1', 'shelf'],
    ] as const)
      bins.push((await server.call(api.createBin, { params: { id }, body: { code, kind, pickingOrder: 9 } })).id);
    const reasons = await server.call(api.reasons, {});
    const hold = reasons.find(({ usedFor }) => usedFor === 'hold')?.id ?? 0;
    return new World(server, shop, bins, { wood, glue, box, wax, scale, kit }, suppliers, hold, customerId);
  }

  get call() {
    return this.server.call;
  }
  bin = (index: number) => this.bins[index % this.bins.length] as number;
  plain = (index: number) => (index % 2 ? this.items.glue : this.items.wood);

  /** Whatever was posted since is entered in the slow books too. */
  async keepBooks(said: Said = {}): Promise<StockDocument[]> {
    const { rows } = await this.call(api.documents, { query: { limit: 10 } });
    const fresh = rows.filter(({ id }) => id > this.seen).reverse();
    const documents = [];
    for (const { id } of fresh) {
      const document = await this.call(api.document, { params: { id } });
      this.books.enter(document, said);
      documents.push(document);
      this.seen = id;
    }
    return documents;
  }

  /** What the list of items says, beside what the slow books do. */
  async figures(): Promise<{ says: unknown[]; should: unknown[] }[]> {
    const number = (amount: string | null) => (amount === null ? null : Number(amount));
    const text = (amount: bigint | null) => (amount === null ? null : Number(amount) / 1e6);
    const { rows } = await this.call(api.items, { query: {} });
    return rows.map(({ id, code, averageCost, costFrom, latestCost, ...item }) => {
      const slow = this.books.figures(id);
      const back = this.books.returned(id);
      // A standard stands in where nothing is known, and of what is made and used up what it is made of.
      const own = costFrom === 'standard' ? '0' : averageCost;
      const isMade = costFrom === 'built' || costFrom === 'at-least';
      const average = isMade && slow.onHand === 0n ? formatDecimal(Number(slow.averageCost ?? 0n)) : own;
      const there = Math.round(Number(item.onHand) * 1e6 + Number(item.onBench) * 1e6) / 1e6;
      const all = [slow.onHand + back.quantity, slow.value + back.value, slow.averageCost, this.books.latest(id)];
      return {
        says: [code, there, ...[item.value, average, latestCost, item.returned, item.returnedValue].map(number)],
        should: [code, ...[...all, back.quantity, back.value].map(text)],
      };
    });
  }

  /**
   * Lives a day: each step is carried out or refused with a problem, the slow books never quarrel with it, and in the
   * evening everything agrees.
   * @param after looked at after each step
   */
  async live(day: readonly Step[], after: () => Promise<void> = async () => {}): Promise<void> {
    await this.nextOwner();
    for (const step of day) {
      try {
        for (const { kind } of await this.keepBooks(await step(this)))
          this.done.set(kind, (this.done.get(kind) ?? 0) + 1);
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error;
        expect(error.problem.status, error.problem.detail).toBeLessThan(500);
        this.refused += 1;
        // A count half said is no document; nothing that was refused has left one.
        expect(await this.keepBooks()).toEqual([]);
      }
      expect(this.books.quarrels).toEqual([]);
      await after();
    }
    expect(await this.server.verify()).toEqual([]);
    expect(await disagreements(this.server)).toEqual([]);
    expect(await unanswered(this.server)).toEqual([]);
  }

  /** What one person may ask in a minute is bounded, so each day is another's. */
  private async nextOwner(): Promise<void> {
    this.days += 1;
    const person = { name: `Owner ${this.days}`, initials: `O${this.days}`, role: 'owner' };
    await this.server.signIn(await this.server.database.write((tx) => tx.driver.insert('person', person)));
  }

  async openBuild(n: number, state: 'planned' | 'on-bench'): Promise<BuildDetail | undefined> {
    const { rows } = await this.call(api.builds, { query: { state } });
    const row = rows[n % Math.max(1, rows.length)];
    return row && this.call(api.build, { params: { id: row.id } });
  }

  async someDocument(n: number, kind?: StockDocument['kind']) {
    const { rows } = await this.call(api.documents, { query: { limit: 40, ...(kind ? { kind } : {}) } });
    return rows[n % Math.max(1, rows.length)];
  }
}

const oneOf = (...some: number[]) => fc.constantFrom(...some);
const money = nat(900).map((cents) => (cents / 100).toFixed(2));
const override = (on: boolean) => (on ? { override: { reason: 'the owner said so' } } : {});
const serial = (n: number) => `SC-${String(n).padStart(3, '0')}`;

const receive = step(
  fc.tuple(nat(3), from1(40), money, nat(40)),
  async ({ shop, plain, items }, [kind, n, cost, first]) => {
    if (kind < 2) await shop.receive(plain(kind), String(n), cost, kind);
    else if (kind === 2) await shop.receive(items.wax, `${n % 9}.5`, cost, n % 3, { lot: `L${first % 4}` });
    else {
      const serials = Array.from({ length: (n % 3) + 1 }, (_, index) => serial(first + index));
      await shop.receive(items.scale, String(serials.length), cost, 0, { serials });
    }
    return { unitCost: cost };
  },
);

const plan = step(fc.tuple(nat(9), nat(20)), async ({ shop, items }, [n, days]) => {
  const due = days > 15 ? null : `2026-12-${String(days + 1).padStart(2, '0')}`;
  await shop.plan(items.box, String(n + 1), due);
});

const start = step(fc.tuple(nat(9), fc.boolean(), nat(5)), async (world, [n, force, some]) => {
  const build = await world.openBuild(n, 'planned');
  if (!build) return;
  const quantity = some > 0 && some <= Number(build.quantity) ? { quantity: String(some) } : {};
  const body = { version: build.version, ...quantity, ...override(force) };
  await world.call(api.startBuild, { params: { id: build.id }, body });
});

const pick = step(
  fc.tuple(nat(9), from1(12), fc.boolean(), oneOf(0, 1, 4)),
  async (world, [n, quantity, force, bin]) => {
    const build = await world.openBuild(n, 'on-bench');
    const line = build?.lines[0];
    if (!build || !line) return;
    const lines = [{ lineId: line.id, binId: world.bin(bin), quantity: String(quantity) }];
    await world.call(api.pick, { params: { id: build.id }, body: { lines, ...override(force) } });
  },
);

const finish = step(
  fc.tuple(nat(9), from1(6), nat(2000), fc.boolean(), fc.boolean()),
  async (world, [n, good, used, close, force]) => {
    const build = await world.openBuild(n, 'on-bench');
    const glue = build?.lines[1];
    if (!build || !glue) return;
    const lines = used > 1000 ? [{ lineId: glue.id, actual: ((used - 1000) / 1000).toFixed(3) }] : [];
    const { version } = build;
    const body = { version, good: String(good), outputBinId: world.bin(2), lines, close, ...override(force) };
    await world.call(api.finish, { params: { id: build.id }, body });
  },
);

const cancel = step(nat(9), async (world, n) => {
  const build = await world.openBuild(n, n % 2 ? 'on-bench' : 'planned');
  if (build) await world.call(api.cancelBuild, { params: { id: build.id }, body: { version: build.version } });
});

const apart = step(fc.tuple(from1(3), nat(9), fc.boolean()), async (world, [units, good, spread]) => {
  const { id } = world.items.box;
  const { revisionId, lines } = await world.call(api.apartPlan, { params: { id } });
  const back = lines.map((line) => ({
    lineId: line.lineId,
    good: line.decimals > 0 ? '0.1' : String(good),
    damaged: '0',
    binId: world.bin(1),
  }));
  const leftover = spread ? ('spread' as const) : ('written-off' as const);
  const body = { itemId: id, revisionId, binId: world.bin(2), quantity: String(units), leftover, lines: back };
  await world.call(api.takeApart, { body });
});

/** From where some stands, most of the time, to anywhere. */
const move = step(fc.tuple(nat(3), from1(9), nat(9), nat(4), nat(40)), async ({ items, plain, bin, call }, drawn) => {
  const [kind, n, from, to, named] = drawn;
  const item = kind < 2 ? plain(kind) : kind === 2 ? items.wax : items.scale;
  const places = (await call(api.itemBins, { params: { id: item.id } })).filter((place) => place.kind !== 'bench');
  const place = places[from % Math.max(1, places.length)];
  const piece = place?.pieces[named % Math.max(1, place.pieces.length)];
  const which = {
    none: { quantity: String(n) },
    lot: { quantity: '1', ...(named % 2 && piece ? { lot: piece.lot ?? '' } : {}) },
    serial: { quantity: '1', serials: [piece?.serial ?? serial(named)] },
  }[item.tracking];
  const fromBinId = from > 7 ? bin(from) : (place?.binId ?? bin(from));
  await call(api.transfer, { body: { lines: [{ itemId: item.id, ...which, fromBinId, toBinId: bin(to) }] } });
});

const adjust = step(
  fc.tuple(nat(3), fc.integer({ min: -9, max: 5 }), fc.option(money), fc.boolean(), nat(40)),
  async ({ plain, items, bin, call }, [kind, n, cost, force, named]) => {
    const unitCost = n > 0 ? cost : null;
    const own =
      kind < 2
        ? { itemId: plain(kind).id, change: String(n), binId: bin(kind) }
        : kind === 2
          ? { itemId: items.wax.id, change: `${n}.25`, binId: bin(named % 3), lot: `L${named % 4}` }
          : { itemId: items.scale.id, change: n > 0 ? '1' : '-1', binId: bin(n > 0 ? 1 : 0), serials: [serial(named)] };
    await call(api.adjust, { body: { reasonId: 1, lines: [{ ...own, unitCost }], ...override(force) } });
    return { unitCost };
  },
);

/** Of serials, lost here and found there. */
const lose = step(fc.tuple(nat(9), nat(1)), async ({ items, call, bin, shop }, [n, there]) => {
  const { rows } = await call(api.serials, { params: { id: items.scale.id } });
  const row = rows[n % Math.max(1, rows.length)];
  if (!row) return;
  const places = await call(api.itemBins, { params: { id: items.scale.id } });
  const from = places.find(({ pieces }) => pieces.some((piece) => piece.serial === row.code))?.binId;
  const change = row.inStock ? { change: '-1', binId: from ?? shop.bin(0) } : { change: '1', binId: bin(there) };
  const line = { itemId: items.scale.id, serials: [row.code], ...change };
  await call(api.adjust, { body: { reasonId: 1, lines: [line] } });
});

const hold = step(fc.tuple(nat(9), fc.boolean(), fc.boolean()), async (world, [n, byLot, release]) => {
  const { items, call, holdReason } = world;
  const { rows } = byLot
    ? await call(api.lots, { query: { itemId: items.wax.id } })
    : await call(api.serials, { params: { id: items.scale.id } });
  const id = rows[n % Math.max(1, rows.length)]?.id;
  if (id === undefined) return;
  const chosen = byLot ? { lotIds: [id] } : { serialIds: [id] };
  if (release) await call(api.release, { body: chosen });
  else await call(api.hold, { body: { reasonId: holdReason, ...chosen } });
});

const price = step(fc.tuple(nat(20), money), async (world, [n, unitCost]) => {
  const row = await world.someDocument(n, 'receipt');
  if (!row) return;
  const { lines } = await world.call(api.receiptPrices, { params: { id: row.id } });
  const body = { lines: lines.map(({ lineId }) => ({ lineId, unitCost })) };
  await world.call(api.postPrices, { params: { id: row.id }, body });
  return { price: { receipt: row.id, unitCost } };
});

const revalue = step(fc.tuple(nat(4), money, fc.boolean()), async ({ items, call }, [n, unitCost, asStandard]) => {
  const item = Object.values(items)[n] as Item;
  await call(api.revalue, { body: { lines: [{ itemId: item.id, unitCost }], asStandard } });
  return { unitCost };
});

/** Counts a bin now; approved is it some other time. */
const count = step(fc.tuple(oneOf(0, 1, 2, 4), nat(9), nat(40)), async ({ call, bin }, [index, n, extra]) => {
  const { id } = await call(api.beginCount, { body: { binIds: [bin(index)] } });
  const { sheet } = await call(api.count, { params: { id } });
  for (const line of sheet) {
    if (line.tracking !== 'serial') {
      await call(api.countLine, { params: { id: line.id }, body: { counted: String(n) } });
      continue;
    }
    const { rows } = await call(api.serials, { params: { id: line.itemId } });
    const seen = rows.filter((_, at) => (at + n) % 3 > 0).map(({ code }) => code);
    const serials = extra > 30 && !seen.includes(serial(extra)) ? [...seen, serial(extra)] : seen;
    await call(api.countLine, { params: { id: line.id }, body: { counted: String(serials.length), serials } });
  }
});

const approve = step(nat(9), async ({ call }, n) => {
  const open = (await call(api.counts, {})).filter(({ state }) => state === 'open');
  const chosen = open[n % Math.max(1, open.length)];
  if (!chosen) return;
  const { id, version } = await call(api.count, { params: { id: chosen.id } });
  await call(api.approveCount, { params: { id }, body: { version } });
});

const buy = step(fc.tuple(from1(9), from1(12), fc.boolean(), money), async (world, [ordered, came, more, unitCost]) => {
  const { supplierIds, items, call, bin } = world;
  const supplierId = supplierIds[came % 2] ?? 0;
  const order = { supplierId, lines: [{ itemId: items.wood.id, quantity: String(ordered), price: '2' }] };
  const { orders } = await call(api.createPurchases, { body: { orders: [order], send: 'mailbox' } });
  const params = { id: orders[0]?.id ?? 0 };
  const { lines } = await call(api.purchase, { params });
  const own = { lineId: lines[0]?.id ?? 0, binId: bin(0), quantity: String(came), unitCost };
  await call(api.receivePurchase, { params, body: { acceptOver: more, lines: [own] } });
  return { unitCost };
});

const settle = step(fc.tuple(nat(9), fc.boolean()), async ({ call, bin }, [n, found]) => {
  const open = await call(api.putRight, {});
  const row = open[n % Math.max(1, open.length)];
  if (!row) return;
  const by = found
    ? { by: 'adjustment' as const, reasonId: 1 }
    : { by: 'transfer' as const, fromBinId: row.elsewhere[0]?.binId ?? bin(1) };
  await call(api.settle, { params: { id: row.id }, body: by });
});

const undoOf = (which: fc.Arbitrary<number>) =>
  step(which, async (world, n) => {
    const row = await world.someDocument(n);
    if (row) await world.call(api.undoDocument, { params: { id: row.id }, body: {} });
  });
const undo = undoOf(nat(30));

/** Undoes what was posted last. */
export const undoLast = undoOf(fc.constant(0));

/** Whatever may happen on a day; undoing more often than anything else, in any order. */
export const anyStep: fc.Arbitrary<Step> = fc.oneof(
  ...[receive, receive, receive, plan, start, pick, pick, finish, finish, cancel, apart, move, move, adjust, adjust],
  ...[lose, lose, hold, price, price, revalue, count, approve, buy, settle, undo, undo, undo],
);
