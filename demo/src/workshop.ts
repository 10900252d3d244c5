import { api, type Item } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { dayOf } from '@yosegi/core/days';
import type { Bench } from './bench.ts';
import type { DemoClient } from './client.ts';

const HOUR = 60 * 60 * 1000;
const DAY = 24 * HOUR;
const [MO, TOM, ADA] = [1, 2, 3] as const;

type TakenIn = Input<typeof api.takeIn>['body'];

/** What goes wrong on a bench and comes back to it: rejects, and what customers bring to be mended. */
export class Workshop {
  constructor(
    private readonly client: DemoClient,
    private readonly time: { at: number },
    private readonly bench: Bench,
    private readonly item: (code: string) => Item,
    private readonly customer: (code: string) => number,
  ) {}

  /** Two builds with something that is no good: once the good ones carry it, once it is written off. */
  async rejects(): Promise<void> {
    const reasons = await this.client.call(api.reasons, {});
    const named = (name: string) => reasons.find((reason) => reason.name === name)?.id ?? null;
    await this.bench.makeWith('FEED-2L', 6, { rejected: '1', rejectReasonId: named('Broken on the bench') });
    await this.bench.makeWith('FRM-W', 30, {
      rejected: '2',
      rejectReasonId: named('Wrong measure'),
      rejectCost: 'written-off',
    });
  }

  /** Scales of customers: one mended under warranty and given back, one ready, one on the bench, one to be agreed. */
  async repairs(end: Date): Promise<void> {
    const day = (days: number) => dayOf(new Date(end.getTime() + days * DAY));
    const scale = this.item('SCALE-1').id;
    const sold = await this.soldScale();
    const free = await this.takeIn({
      customerId: sold?.customerId ?? this.customer('UPLAND'),
      itemId: scale,
      serial: sold?.code ?? 'OLD-001',
      fault: 'Shows 0 kg with any load',
      warranty: true,
    });
    await this.mend(free.buildId, 'SENS-40', '1', 'One sensor dead', 'Sensor changed, calibrated with 20 kg');
    await this.giveBack(free.id, '0');

    this.time.at += 2 * HOUR;
    const ready = await this.takeIn({
      customerId: this.customer('FERN'),
      itemId: scale,
      serial: 'OLD-318',
      fault: 'Battery box full of water',
      accessories: 'Strap',
      wantedOn: day(1),
      price: '38',
    });
    await this.mend(ready.buildId, 'CASE-SC', '1', 'The old one was cracked', 'New case and batteries, sealed');

    this.time.at += 2 * HOUR;
    const onBench = await this.takeIn({
      customerId: this.customer('ALDER'),
      itemId: scale,
      serial: 'OLD-402',
      fault: 'Jumps by two kilos when it gets warm',
      wantedOn: day(3),
      price: '45',
    });
    await this.start(onBench.buildId);
    await this.addPart(onBench.buildId, 'BATT-AA', '4', 'They were flat');
    await this.addTask(onBench.buildId, 'Find out what jumps', '30');

    this.time.at += 2 * HOUR;
    const asked = await this.takeIn({
      customerId: this.customer('WESTM'),
      itemId: scale,
      serial: 'OLD-077',
      fault: 'Run over by a tractor',
      accessories: 'Case in pieces',
    });
    await this.client.as(MO);
    const { version } = await this.client.call(api.repair, { params: { id: asked.id } });
    await this.client.call(api.estimateRepair, { params: { id: asked.id }, body: { version, estimate: '96' } });
  }

  /** Orders, a build, a purchase and a loss that belong together. */
  async job(jobTag: string): Promise<void> {
    await this.client.as(MO);
    const tag = async (kind: 'build' | 'order' | 'purchase', id: number | undefined) => {
      if (id !== undefined) await this.client.call(api.setJobTag, { body: { kind, id, jobTag } });
    };
    const orders = await this.client.call(api.orders, { query: { limit: 200 } });
    await tag('order', orders.rows.find(({ customer }) => customer.startsWith('Larkfield'))?.id);
    const shipped = await this.client.call(api.orders, { query: { show: 'shipped', limit: 200 } });
    for (const row of shipped.rows.slice(0, 2)) await tag('order', row.id);
    const finished = await this.client.call(api.builds, { query: { state: 'finished', limit: 20 } });
    await tag('build', finished.rows.find(({ rejected }) => rejected !== '0')?.id);
    const bought = await this.client.call(api.purchases, { query: { limit: 20 } });
    for (const { id } of bought.rows) {
      const { receipts } = await this.client.call(api.purchase, { params: { id } });
      if (receipts.length === 0) continue;
      await tag('purchase', id);
      break;
    }
    const box = this.item('BOX-TRIO');
    const bins = await this.client.call(api.itemBins, { params: { id: box.id } });
    const from = bins.find(({ kind, build }) => kind === 'shelf' && !build);
    const reason = (await this.client.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'adjustment');
    if (!from || !reason) return;
    const lines = [{ itemId: box.id, binId: from.binId, change: '-3' }];
    const body = { reasonId: reason.id, remark: 'Boxes got wet at the stall', jobTag, lines };
    await this.client.call(api.adjust, { body });
  }

  /** A scale that a customer of ours has, and whose it is. */
  private async soldScale() {
    const { rows } = await this.client.call(api.serials, {
      params: { id: this.item('SCALE-1').id },
      query: { state: 'sold', limit: 20 },
    });
    for (const { code, sold } of rows) {
      const order = sold && (await this.client.call(api.order, { params: { id: sold.orderId } }));
      if (order) return { code, customerId: order.customerId };
    }
    return null;
  }

  private async takeIn(body: TakenIn) {
    await this.client.as(ADA);
    return this.client.call(api.takeIn, { body });
  }

  private async start(buildId: number): Promise<void> {
    await this.client.as(TOM);
    const { version } = await this.client.call(api.build, { params: { id: buildId } });
    await this.client.call(api.startBuild, { params: { id: buildId }, body: { version } });
  }

  private async addPart(buildId: number, code: string, quantity: string, because: string): Promise<void> {
    const item = this.item(code);
    const bins = await this.client.call(api.itemBins, { params: { id: item.id } });
    const from = bins.find(
      ({ kind, build, quantity: there }) => kind === 'shelf' && !build && Number(there) >= Number(quantity),
    );
    const body = { itemId: item.id, quantity, because, binId: from?.binId ?? null };
    await this.client.call(api.addPart, { params: { id: buildId }, body });
  }

  private async addTask(buildId: number, text: string, amount: string): Promise<void> {
    const body = {
      kind: 'labour' as const,
      text,
      amount,
      rateId: 1,
      because: 'Needed to find the fault',
      personId: TOM,
    };
    await this.client.call(api.addTask, { params: { id: buildId }, body });
  }

  private async mend(buildId: number, part: string, quantity: string, because: string, report: string): Promise<void> {
    await this.start(buildId);
    await this.addPart(buildId, part, quantity, because);
    await this.addTask(buildId, 'Repair and test', '25');
    const build = await this.client.call(api.build, { params: { id: buildId } });
    const id = build.repair?.id ?? 0;
    const { version, fault, accessories, wantedOn, warranty, price } = await this.client.call(api.repair, {
      params: { id },
    });
    const said = { fault, accessories, wantedOn, warranty, price, report };
    await this.client.call(api.changeRepair, { params: { id }, body: { version, ...said } });
    const now = await this.client.call(api.build, { params: { id: buildId } });
    const body = { version: now.version, good: '1', outputBinId: now.outputBinId, lines: [] };
    await this.client.call(api.finish, { params: { id: buildId }, body });
  }

  private async giveBack(id: number, charged: string): Promise<void> {
    await this.client.as(MO);
    const { version } = await this.client.call(api.repair, { params: { id } });
    await this.client.call(api.giveBack, { params: { id }, body: { version, charged } });
  }
}
