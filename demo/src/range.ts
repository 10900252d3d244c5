import { api, type Item, type LineInput } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { DemoClient } from './client.ts';
import { type Asked, asked, bought, type Kit, products, ways } from './range-catalogue.ts';

const DAY = 24 * 60 * 60 * 1000;
const [MO, TOM, ADA] = [1, 2, 3] as const;
/** Fourteen months. */
export const WEEKS = 61;

/**
 * The kitchen and garden range of the demo business: bought, built and sold week by week over fourteen months, with
 * parcels, part shipments, orders built for and some that came to nothing.
 */
export class Range {
  private turn = 0;
  private readonly batches = products.filter((product) => product[6] > 0);
  /** Orders that are still to be sent, with the week in which they are. */
  private readonly waiting: { readonly id: number; readonly week: number }[] = [];

  constructor(
    private readonly client: DemoClient,
    private readonly time: { at: number },
    private readonly end: Date,
    private readonly random: () => number,
    private readonly items: Map<string, Item>,
    private readonly bin: (code: string) => number,
    private readonly customerId: (n: number) => number,
  ) {}

  async begin(): Promise<void> {
    await this.client.as(MO);
    const units = await this.client.call(api.units, {});
    const add = async (code: string, name: string, unit: string, bin: string, price: string | null) => {
      const item = await this.client.newItem({
        code,
        name,
        unitId: units.find((known) => known.code === unit)?.id ?? 1,
        source: price === null ? 'bought' : 'made',
        homeBinId: this.bin(bin),
        sellPrice: price,
        reorderPoint: null,
        standardCost: null,
        note: '',
      });
      this.items.set(code, item);
    };
    for (const [code, name, unit, bin] of bought) await add(code, name, unit, bin, null);
    for (const [code, name, bin, price] of products) await add(code, name, 'each', bin, price);
    for (const [code, , , , parts, minutes, , kit] of products) await this.define(code, parts, minutes, kit);
  }

  private async define(code: string, parts: readonly (readonly [string, string])[], minutes: string, kit?: Kit) {
    const draft = await this.client.call(api.createDefinition, { body: { itemId: this.item(code).id } });
    const lines: LineInput[] = parts.map(([part, quantity]) => ({
      kind: 'part',
      itemId: this.item(part).id,
      basis: 'per-output',
      quantity,
      waste: '0',
      taken: 'picked-first',
      share: null,
      fromBinId: null,
      alternates: [],
      comesBack: true,
    }));
    if (minutes) lines.push({ kind: 'labour', text: 'Make and pack', basis: 'per-output', minutes, rateId: 1 });
    const params = { id: draft.id };
    const body = { version: draft.version, outputQuantity: '1', lines };
    const { version } = await this.client.call(api.saveRevision, { params, body });
    await this.client.call(api.putInUse, { params, body: { version } });
    if (!kit) return;
    const id = draft.definitionId;
    const now = await this.client.call(api.definition, { params: { id } });
    await this.client.call(api.setBehaviour, {
      params: { id },
      body: {
        ...now.behaviour,
        made: 'packed-per-order',
        paperwork: kit.shown ? 'contents' : 'one-line',
        onOrder: kit.onOrder,
        swapFor: 'anything',
        price: kit.discount ? 'parts' : 'own',
        discount: kit.discount ?? '0',
        version: now.version,
      },
    });
  }

  /** @param week counted from the beginning of everything */
  async week(week: number): Promise<void> {
    if (week % 4 === 0) await this.buy(week);
    await this.build(week);
    await this.send(week);
    await this.take(week);
    if (week % 3 !== 0) await this.take(week, 3);
  }

  private async buy(week: number): Promise<void> {
    this.at(week, 0, 10);
    await this.client.as(MO);
    const lines = bought.map(([code, , , bin, cost, quantity]) => ({
      itemId: this.item(code).id,
      binId: this.bin(bin),
      quantity: String(quantity),
      unitCost: (cost * (0.95 + this.random() * 0.12 + week * 0.001)).toFixed(3),
    }));
    await this.client.call(api.receive, { body: { kind: 'receipt', remark: 'Kitchen and garden', lines } });
  }

  private async build(week: number): Promise<void> {
    this.at(week, 1, 10);
    const product = this.batches[week % this.batches.length];
    if (!product) return;
    const quantity = Math.max(2, Math.round(product[6] * (1.6 + this.random() * 0.6)));
    await this.client.as(MO);
    const due = dayOf(new Date(this.time.at + 4 * DAY));
    const { builds } = await this.client.call(api.planBuilds, {
      body: { builds: [{ itemId: this.item(product[0]).id, quantity: String(quantity), due }] },
    });
    await this.finish(builds[0]?.id ?? 0);
  }

  /** Starts, picks and finishes a build whole; one that cannot start is given up. */
  private async finish(id: number): Promise<void> {
    const params = { id };
    const planned = await this.client.call(api.build, { params });
    if (planned.waiting.length > 0) {
      await this.client.call(api.cancelBuild, { params, body: { version: planned.version } });
      return;
    }
    const { version } = await this.client.call(api.startBuild, { params, body: { version: planned.version } });
    await this.client.as(this.random() < 0.5 ? TOM : ADA);
    const lines = planned.lines.flatMap((line) =>
      line.item ? [{ lineId: line.id, binId: line.bins[0]?.binId ?? 0, quantity: line.open }] : [],
    );
    await this.client.call(api.pick, { params, body: { lines } });
    this.time.at += 3 * 60 * 60 * 1000;
    const body = { version, good: planned.quantity, outputBinId: planned.outputBinId, lines: [] };
    await this.client.call(api.finish, { params, body });
  }

  /** Somebody orders; what is not there is built for it when it is made here. */
  private async take(week: number, day = 1): Promise<void> {
    this.at(week, day, 14);
    await this.client.as(MO);
    const lines = asked[this.turn % asked.length] ?? [];
    this.turn += 1;
    const customerId = this.customerId(Math.floor(this.random() * 15));
    const isLost = this.turn % 17 === 0;
    const body = {
      customerId,
      reference: this.turn % 2 ? `${2000 + this.turn}` : '',
      wantedOn: dayOf(new Date(this.time.at + (8 + (this.turn % 3) * 5) * DAY)),
      delivery: this.turn % 4 === 0 ? ('as-ready' as const) : ('whole' as const),
      confirm: !isLost,
      lines: lines.map(([code, quantity]) => ({ itemId: this.item(code).id, quantity: String(quantity) })),
    };
    const { id, version } = await this.client.call(api.createOrder, { body });
    if (isLost) {
      const reason = 'Too dear for them';
      await this.client.call(api.cancelOrder, { params: { id }, body: { version, reason } });
      return;
    }
    if (this.turn % 5 === 0) await this.buildFor(id);
    this.waiting.push({ id, week: week + 1 });
  }

  private async buildFor(orderId: number): Promise<void> {
    const { lines } = await this.client.call(api.lookToBuild, { body: { orderIds: [orderId] } });
    const chosen = lines.filter((line) => line.short !== '0').map(({ partId, short }) => ({ partId, quantity: short }));
    if (chosen.length === 0) return;
    const { builds } = await this.client.call(api.buildForOrders, { body: { chosen } });
    for (const { id } of builds) await this.finish(id);
  }

  /** What is ready of orders taken before leaves, some from a parcel; what is not waits for another week. */
  private async send(week: number): Promise<void> {
    this.at(week, 4, 9);
    for (const own of this.waiting.filter((one) => one.week <= week)) {
      await this.client.as(this.random() < 0.5 ? TOM : ADA);
      const params = { id: own.id };
      const order = await this.client.call(api.order, { params });
      const ready = order.lines.filter((line) => line.canShip !== '0');
      const isWhole = ready.length === order.lines.length && ready.every((line) => line.canShip === line.open);
      if (!isWhole && (order.delivery === 'whole' || ready.length === 0)) continue;
      let { version } = order;
      if (own.id % 6 === 0) version = await this.pack(own.id);
      const carrier = ways[own.id % ways.length] ?? '';
      const tracking = carrier === 'Parcel post' ? `PP ${4000 + own.id} ${1000 + week}` : '';
      const sent = ready.map((line) => ({ lineId: line.id, quantity: line.canShip }));
      await this.client.call(api.shipOrder, { params, body: { version, carrier, tracking, lines: sent } });
      if (isWhole) this.waiting.splice(this.waiting.indexOf(own), 1);
    }
  }

  /** Brings what is ready of an order into its parcel. @returns its version after that */
  async pack(id: number): Promise<number> {
    const params = { id };
    const { lines } = await this.client.call(api.order, { params });
    const parts = lines.flatMap((line) => line.parts).filter((part) => Number(part.ready) > 0);
    const picks = parts.flatMap((part) => {
      let left = Number(part.ready);
      return part.bins.flatMap((bin) => {
        const quantity = Math.min(left, Number(bin.quantity));
        left -= quantity;
        return quantity > 0 ? [{ partId: part.id, binId: bin.binId, quantity: String(quantity) }] : [];
      });
    });
    if (picks.length > 0) await this.client.call(api.packOrder, { params, body: { lines: picks } });
    return (await this.client.call(api.order, { params })).version;
  }

  /** What is there this morning of it: a gift that was changed, covers built for somebody, a parcel begun, the web shop. */
  async today(): Promise<void> {
    this.time.at = this.end.getTime();
    await this.client.as(MO);
    const day = (days: number) => dayOf(new Date(this.end.getTime() + days * DAY));
    const order = async (
      n: number,
      lines: readonly Asked[],
      wantedOn: string,
      more: object = {},
      contents?: object[],
    ) => {
      const body = {
        customerId: this.customerId(n),
        wantedOn,
        confirm: true,
        lines: lines.map(([code, quantity]) => ({
          itemId: this.item(code).id,
          quantity: String(quantity),
          ...(contents ? { contents: contents as never } : {}),
        })),
        ...more,
      };
      return (await this.client.call(api.createOrder, { body })).id;
    };
    const gift = [{ position: 1, itemId: this.item('HONEY-CR').id, amount: '2' }];
    await order(
      10,
      [['GIFT-GARD', 5]],
      day(5),
      { reference: 'Staff gifts', remark: 'No prices in the parcel, please.' },
      gift,
    );
    const covers = await order(
      13,
      [
        ['COVER-W', 60],
        ['STRAP-H', 20],
      ],
      day(16),
      { reference: 'Winter order', jobTag: 'WINTER' },
    );
    const { lines } = await this.client.call(api.lookToBuild, { body: { orderIds: [covers] } });
    const chosen = lines.filter(({ short }) => short !== '0').map(({ partId, short }) => ({ partId, quantity: short }));
    if (chosen.length > 0) await this.client.call(api.buildForOrders, { body: { chosen } });
    const parcel = await order(
      12,
      [
        ['SEED-BAG', 4],
        ['WINTER-S', 1],
      ],
      day(2),
      { reference: 'NT-55', delivery: 'as-ready' },
    );
    await this.client.as(ADA);
    await this.pack(parcel);
    await this.client.as(MO);
    await this.client.call(api.shopSends, {
      body: {
        does: 'order',
        buyer: 'Juna Keel',
        email: 'juna@keel.example',
        address: 'Harbour Steps 2\nStone Ferry',
        wantedOn: day(6),
        lines: [
          { itemId: this.item('HONEY-Q').id, quantity: '1' },
          { itemId: this.item('WRAP-3').id, quantity: '2' },
        ],
      },
    });
  }

  /** What is left open near the end is seen to, so that the morning begins with the orders that are meant to be there. */
  async settle(): Promise<void> {
    await this.client.as(MO);
    for (const { id } of this.waiting) {
      const { version, lines } = await this.client.call(api.order, { params: { id } });
      const left = lines.filter((line) => line.open !== '0').map((line) => line.id);
      if (left.length === 0) continue;
      const isBegun = lines.some((line) => line.shipped !== '0');
      const body = { version, reason: 'Took it elsewhere' };
      if (isBegun)
        await this.client.call(api.dropOrder, {
          params: { id },
          body: { ...body, lineIds: left },
        });
      else await this.client.call(api.cancelOrder, { params: { id }, body });
    }
  }

  private at(week: number, day: number, hour: number): void {
    const start = new Date(this.end.getTime() - WEEKS * 7 * DAY);
    start.setHours(hour, 0, 0, 0);
    this.time.at = start.getTime() + (week * 7 + day) * DAY;
  }

  private item(code: string): Item {
    const item = this.items.get(code);
    if (!item) throw new Error(`no item ${code}`);
    return item;
  }
}
