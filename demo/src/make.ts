import { api, type Item, type LineInput, type PurchaseOrder } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { buildApp } from '@yosegi/server/app';
import { Database } from '@yosegi/server/db/database';
import { ensureCompany, migrate } from '@yosegi/server/db/migrate';
import { Bench } from './bench.ts';
import { Buying, type DeliveryLine } from './buying.ts';
import { lots, type Made, made, parts, serials, stores } from './catalogue.ts';
import { DemoClient } from './client.ts';
import { Details } from './details.ts';
import { Range, WEEKS } from './range.ts';
import { Returns } from './returns.ts';
import { Selling } from './selling.ts';
import { Workshop } from './workshop.ts';

const DAY = 24 * 60 * 60 * 1000;
/** How long the hives and what belongs to them have been built; the rest of the range is older. */
const DAYS_BACK = 182;
const HIVE_WEEKS = DAYS_BACK / 7;
const [MO, TOM, ADA] = [1, 2, 3] as const;

/** The same numbers in the same order for the same seed (mulberry32). */
function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * Makes Hollowmere Bee Supply in a new database: catalogue, definitions and fourteen months of receipts, builds, orders,
 * picks, finishes, shipments and take-aparts, all by the real commands, ending on the day of `end`.
 */
export async function makeDemo(file: string, end: Date): Promise<void> {
  const database = await Database.open(file, { durable: false });
  await migrate(database);
  await ensureCompany(database, {
    name: 'Hollowmere Bee Supply',
    currency: 'EUR',
    locale: 'en-GB',
    people: [
      { name: 'Mo Okafor', initials: 'MO', role: 'owner' },
      { name: 'Tom Birch', initials: 'TB', role: 'bench' },
      { name: 'Ada Quill', initials: 'AQ', role: 'bench' },
    ],
  });
  const time = { at: end.getTime() - WEEKS * 7 * DAY };
  const app = await buildApp({ database, clock: { now: () => new Date(time.at) } });
  const demo = new Demo(await new DemoClient(app).as(MO), time, end, seeded(1897));
  await demo.run();
  await app.close();
  await database.close();
}

/** What the winter fair costs and brings. */
const TAG = 'Winter fair';

class Demo {
  private readonly bins = new Map<string, number>();
  private readonly items = new Map<string, Item>();
  private readonly buying: Buying;
  private readonly details: Details;
  private readonly selling: Selling;
  private readonly range: Range;
  private readonly bench: Bench;
  private readonly workshop: Workshop;
  private readonly returns: Returns;
  /** The last order that came, for the invoice that follows it. */
  private lastOrder: PurchaseOrder | undefined;

  constructor(
    private readonly client: DemoClient,
    private readonly time: { at: number },
    private readonly end: Date,
    private readonly random: () => number,
  ) {
    this.bench = new Bench(client, time, random, (code) => this.item(code));
    const bin = (code: string) => this.bin(code);
    this.buying = new Buying(client, time, seeded(411), (code) => this.item(code), bin);
    const later = dayOf(new Date(end.getTime() + 9 * DAY));
    this.details = new Details(client, this.items, bin, later);
    this.selling = new Selling(client, (code) => this.item(code));
    const item = (code: string) => this.item(code);
    this.workshop = new Workshop(client, time, this.bench, item, (code) => this.selling.of(code));
    this.returns = new Returns(client, item, (code) => this.selling.of(code));
    this.range = new Range(client, time, end, seeded(733), this.items, bin, (n) => this.selling.nth(n));
  }

  async run(): Promise<void> {
    await this.places();
    await this.buying.addSuppliers();
    await this.catalogue();
    await this.details.describeItems(this.buying);
    await this.selling.addCustomers();
    await this.range.begin();
    for (let week = 0; week <= WEEKS - HIVE_WEEKS; week += 1) await this.range.week(week);
    await this.history();
    await this.range.settle();
    await this.addDetails();
    await this.workshop.rejects();
    await this.workshop.repairs(this.end);
    await this.today();
    await this.client.as(MO);
    await this.buying.openOrders(this.end.getTime());
    await this.buying.corrections(this.lastOrder);
    await this.selling.orders(this.end.getTime());
    await this.range.today();
    await this.bench.shareTasks();
    await this.workshop.job(TAG);
    await this.bench.shareDays(this.end);
    await this.client.as(MO);
    await this.returns.make(this.end);
  }

  private async places(): Promise<void> {
    const { company } = await this.client.call(api.session, {});
    const address = 'Old Dairy, Mill Lane 4\n4402 Hollowmere';
    await this.client.call(api.updateCompany, {
      body: { name: company.name, address, email: 'office@hollowmere.example', version: company.version },
    });
    await this.client.call(api.createRate, { body: { name: 'Bench hour', perHour: '24' } });
    await this.client.call(api.createRate, { body: { name: 'Finishing hour', perHour: '28.5' } });
    for (const store of stores) {
      const { id } = await this.client.call(api.createStore, { body: { code: store.code, name: store.name } });
      for (const [index, code] of store.bins.entries()) {
        const bin = await this.client.call(api.createBin, {
          params: { id },
          body: { code, pickingOrder: (index + 1) * 10 },
        });
        this.bins.set(code, bin.id);
      }
    }
  }

  private async catalogue(): Promise<void> {
    const units = await this.client.call(api.units, {});
    const add = async (
      code: string,
      name: string,
      unit: string,
      bin: string,
      source: 'bought' | 'made',
      price: number | null,
      reorder: number | null,
    ) => {
      const item = await this.client.newItem({
        code,
        name,
        unitId: units.find((known) => known.code === unit)?.id ?? 1,
        source,
        homeBinId: this.bin(bin),
        sellPrice: price === null ? null : String(price),
        reorderPoint: reorder === null ? null : String(reorder),
        standardCost: null,
        note: '',
        tracking: lots[code] ? 'lot' : serials[code] ? 'serial' : 'none',
        serialPattern: serials[code] ?? null,
      });
      this.items.set(code, item);
    };
    for (const [code, name, unit, bin, , order] of parts)
      await add(code, name, unit, bin, 'bought', null, Math.ceil(order / 4));
    for (const [code, name, bin, price] of made) await add(code, name, 'each', bin, 'made', price, null);
    await this.client.call(api.receive, {
      body: {
        kind: 'opening',
        remark: 'Opening stock',
        lines: parts.map(([code, , , bin, cost, order]) => ({
          itemId: this.item(code).id,
          binId: this.bin(bin),
          quantity: String(order),
          unitCost: String(cost),
          ...this.openingLot(code),
        })),
      },
    });
    for (const product of made) await this.define(product);
  }

  private async define([code, , , , output, lines]: Made): Promise<void> {
    const draft = await this.client.call(api.createDefinition, { body: { itemId: this.item(code).id } });
    const input = lines.map((line): LineInput => {
      if (line[0] === 'note') return { kind: 'note', text: line[1] };
      if (line[0] === 'charge') return { kind: 'charge', text: line[1], basis: 'per-output', amount: String(line[2]) };
      if (line[0] === 'labour') {
        return {
          kind: 'labour',
          text: line[1],
          basis: line[3] ? 'per-run' : 'per-output',
          minutes: String(line[2]),
          rateId: 1,
        };
      }
      const more = line[3] ?? {};
      return {
        kind: 'part',
        itemId: this.item(line[1]).id,
        basis: more.run ? 'per-run' : 'per-output',
        quantity: String(line[2]),
        waste: String(more.waste ?? 0),
        taken: more.finished ? 'when-finished' : 'picked-first',
        share: null,
        fromBinId: null,
        alternates: [],
        comesBack: more.back ?? true,
      };
    });
    const body = { version: draft.version, outputQuantity: String(output), lines: input };
    const params = { id: draft.id };
    const { version } = await this.client.call(api.saveRevision, { params, body });
    await this.client.call(api.putInUse, { params, body: { version } });
  }

  /** Week by week beside the rest of the range: buy what runs low, build in turn, now and then take something apart or undo a slip. */
  private async history(): Promise<void> {
    const plan: readonly (readonly [string, number])[] = [
      ['FRM-W', 80],
      ['FEED-2L', 12],
      ['HIVE-10', 4],
      ['TASTE-3', 18],
      ['SMK-1', 8],
      ['FRM-W', 60],
      ['SUPER-10', 5],
      ['KIT-M', 2],
      ['CANDLE-2', 20],
      ['HIVE-10', 3],
      ['SCALE-1', 3],
      ['KIT-S', 1],
      ['SET-HARV', 2],
      ['KIT-L', 1],
    ];
    let turn = 0;
    for (let week = 1; week * 7 < DAYS_BACK - 6; week += 1) {
      await this.range.week(WEEKS - HIVE_WEEKS + week);
      await this.buyWhatIsLow(week);
      for (let job = 0; job < 2; job += 1) {
        const [code, quantity] = plan[turn++ % plan.length] as readonly [string, number];
        this.at(week, 1 + job * 2, 8);
        await this.bench.make(code, Math.max(1, Math.round(quantity * (0.8 + this.random() * 0.5))));
      }
      if (week % 6 === 0) {
        this.at(week, 4, 15);
        await this.bench.takeApart('KIT-M');
      }
      if (week % 9 === 0) await this.slip(week);
    }
  }

  private async buyWhatIsLow(week: number): Promise<void> {
    this.at(week, 0, 9);
    await this.client.as(MO);
    const low: DeliveryLine[] = [];
    for (const [code, , , bin, cost, order] of parts) {
      const item = await this.client.call(api.item, { params: { id: this.item(code).id } });
      if (Number(item.free) > order * 0.6) continue;
      const unitCost = (cost * (0.94 + this.random() * 0.14 + week * 0.001)).toFixed(3);
      low.push({
        itemId: item.id,
        binId: this.bin(bin),
        bin,
        quantity: String(order),
        unitCost,
        ...this.newLot(code, week),
      });
    }
    if (low.length === 0) return;
    this.lastOrder = (await this.buying.deliver(low, `${1000 + week * 7}`)).at(-1) ?? this.lastOrder;
  }

  /** What was there from the start; of two honeys it has to be used soon. */
  private openingLot(code: string) {
    if (!lots[code]) return {};
    const left = { 'HONEY-HEA': 12, 'HONEY-LIN': 25 }[code] ?? 400;
    return { lot: `${lots[code][1]}-000`, bestBefore: this.dayAfter(this.end.getTime(), left) };
  }

  private newLot(code: string, week: number) {
    const [keeps, prefix] = lots[code] ?? [];
    if (keeps === undefined) return {};
    return {
      lot: `${prefix}-${String(week).padStart(3, '0')}`,
      bestBefore: this.dayAfter(this.time.at, keeps),
    };
  }

  private dayAfter(at: number, days: number): string {
    return dayOf(new Date(at + days * DAY));
  }

  /** A delivery entered twice by mistake, and the second undone. */
  private async slip(week: number): Promise<void> {
    this.at(week, 4, 16);
    await this.client.as(MO);
    const line = { itemId: this.item('GUIDE').id, binId: this.bin('D1'), quantity: '50', unitCost: '3.1' };
    const receipt = await this.client.call(api.receive, { body: { kind: 'receipt', lines: [line] } });
    await this.client.call(api.undoDocument, { params: { id: receipt.id }, body: { remark: 'Entered twice' } });
  }

  /** What an owner adds once the business runs: kits, alternates, a rework, and loose ends. */
  private async addDetails(): Promise<void> {
    this.time.at = this.end.getTime() - 4 * DAY;
    await this.client.as(MO);
    await this.details.add();
  }

  /** What the owner finds this morning: something ready, something waiting, something on the bench, an override. */
  private async today(): Promise<void> {
    this.time.at = this.end.getTime() - 3 * DAY;
    await this.client.as(MO);
    const planned = await this.bench.plan('FEED-2L', 14, 3);
    const feeders = await this.bench.start(planned);
    await this.client.as(TOM);
    await this.bench.pick(feeders, 0.4, { onRun: true });
    const scales = await this.bench.plan('SCALE-1', 3, 2);
    const started = await this.bench.start(scales);
    await this.client.as(ADA);
    await this.bench.pick(started, 1, { onRun: true });
    await this.bench.finish(started.id, '1');
    await this.overdraw();
    await this.oldLot();
    this.time.at = this.end.getTime() - DAY;
    await this.bench.plan('TASTE-3', 24, -1);
    await this.bench.plan('FRM-W', 120, 4);
    await this.bench.plan('HIVE-10', 24, 11);
    await this.bench.plan('SMK-1', 60, 9);
    await this.bench.plan('KIT-M', 6, 16);
    await this.bench.plan('CANDLE-2', 40, 18);
    const definition = (await this.client.call(api.definitions, { query: { q: 'SMK-1' } })).rows[0];
    if (definition) await this.client.call(api.startRevision, { params: { id: definition.id }, body: {} });
    this.time.at = this.end.getTime();
  }

  /** A rest of honey that nobody used in time, and wax that somebody doubts. */
  private async oldLot(): Promise<void> {
    await this.client.as(MO);
    const line = { itemId: this.item('HONEY-CHE').id, binId: this.bin('K2'), quantity: '0.8', unitCost: '9.4' };
    const day = this.dayAfter(this.end.getTime(), -2);
    await this.client.call(api.receive, {
      body: {
        kind: 'receipt',
        remark: 'Left over from the autumn fair',
        lines: [{ ...line, lot: 'CH-FAIR', bestBefore: day }],
      },
    });
    const [wax] = (
      await this.client.call(api.lots, { query: { itemId: this.item('WAX-F').id, limit: 500 } })
    ).rows.slice(-1);
    const reason = (await this.client.call(api.reasons, {})).find(({ name }) => name === 'To be inspected');
    await this.client.as(ADA);
    await this.client.call(api.hold, {
      body: { reasonId: reason?.id ?? 0, remark: 'darker than the sample', lotIds: [wax?.id ?? 0] },
    });
  }

  /** Candles were poured before the wick delivery was entered: the owner let the wick go below zero. */
  private async overdraw(): Promise<void> {
    const wick = await this.client.call(api.item, { params: { id: this.item('WICK-3').id } });
    await this.client.as(MO);
    const planned = await this.bench.plan('CANDLE-2', 20, 1);
    const override = { reason: 'New wick is here, delivery note still missing' };
    const build = await this.bench.start(planned, { override });
    await this.bench.pick(build, 1);
    const line = build.lines.find((known) => known.item?.code === 'WICK-3');
    const now = await this.client.call(api.build, { params: { id: build.id } });
    await this.client.call(api.finish, {
      params: { id: build.id },
      body: {
        version: now.version,
        good: '20',
        outputBinId: now.outputBinId,
        lines: [{ lineId: line?.id ?? 0, actual: (Number(wick.onHand) + 2.4).toFixed(3) }],
        override,
      },
    });
  }

  private at(week: number, day: number, hour: number): void {
    const start = new Date(this.end.getTime() - DAYS_BACK * DAY);
    start.setHours(hour, 0, 0, 0);
    this.time.at = start.getTime() + (week * 7 + day) * DAY;
  }

  private bin(code: string): number {
    const id = this.bins.get(code);
    if (id === undefined) throw new Error(`no bin ${code}`);
    return id;
  }

  private item(code: string): Item {
    const item = this.items.get(code);
    if (!item) throw new Error(`no item ${code}`);
    return item;
  }
}
