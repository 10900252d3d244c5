import { api, type BuildDetail, type Item } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { dayOf } from '@yosegi/core/days';
import { readSerials } from '@yosegi/core/tracking';
import type { DemoClient } from './client.ts';

type Rejects = Pick<Input<typeof api.finish>['body'], 'rejectReasonId' | 'rejectCost'> & { readonly rejected: string };

const DAY = 24 * 60 * 60 * 1000;
const [MO, TOM, ADA] = [1, 2, 3] as const;

const MINUTES_A_STOP = 2 * 60 * 1000;

/** What the people of the demo business do at the bench, by the real commands. */
export class Bench {
  constructor(
    private readonly client: DemoClient,
    private readonly time: { at: number },
    private readonly random: () => number,
    private readonly item: (code: string) => Item,
  ) {}

  /** Plans, starts, picks and finishes a build, as many as the parts allow; none when they allow none. */
  async make(code: string, quantity: number): Promise<void> {
    const planned = await this.plan(code, quantity, 4);
    const can = Number(planned.canStart);
    if (can < 1) {
      await this.client.call(api.cancelBuild, { params: { id: planned.id }, body: { version: planned.version } });
      return;
    }
    const body = can < quantity ? { quantity: String(can) } : {};
    const build = await this.start(planned, body);
    for (const rest of build.related) {
      const open = await this.client.call(api.build, { params: { id: rest.id } });
      await this.client.call(api.cancelBuild, { params: { id: open.id }, body: { version: open.version } });
    }
    await this.client.as(this.random() < 0.5 ? TOM : ADA);
    await this.pick(build, 1);
    this.time.at += 5 * 60 * 60 * 1000;
    await this.finish(build.id, build.quantity);
  }

  /** The same with something rejected, where the parts are there for all of it. */
  async makeWith(code: string, quantity: number, more: Rejects): Promise<void> {
    const planned = await this.plan(code, quantity, 2);
    const build = await this.start(planned, { override: { reason: 'For the fair, before anything else' } });
    await this.client.as(TOM);
    await this.pick(build, 1);
    await this.client.as(MO);
    await this.finish(build.id, String(quantity - Number(more.rejected)), more);
  }

  /** @param days until it is wanted */
  async plan(code: string, quantity: number, days: number): Promise<BuildDetail> {
    await this.client.as(MO);
    const due = dayOf(new Date(this.time.at + days * DAY));
    const body = { builds: [{ itemId: this.item(code).id, quantity: String(quantity), due }] };
    const { builds } = await this.client.call(api.planBuilds, { body });
    return this.client.call(api.build, { params: { id: builds[0]?.id ?? 0 } });
  }

  /** Sends a build to the bench. @returns it as it is then */
  async start({ id, version }: BuildDetail, more: { quantity?: string; override?: { reason: string } } = {}) {
    await this.client.call(api.startBuild, { params: { id }, body: { version, ...more } });
    return this.client.call(api.build, { params: { id } });
  }

  /** Brings the first `share` of the lines to be picked, each from the bins that have it. */
  async pick(build: BuildDetail, share: number, { onRun = false } = {}): Promise<void> {
    const open = build.lines.filter((line) => line.taken === 'picked-first');
    const lines = open.slice(0, Math.ceil(open.length * share)).flatMap((line) => {
      let left = Number(line.open);
      return line.bins.flatMap((bin) => {
        const quantity = Math.min(left, Number(bin.quantity));
        left -= quantity;
        return quantity > 0
          ? { lineId: line.id, binId: bin.binId, quantity: quantity.toFixed(line.item?.decimals ?? 0) }
          : [];
      });
    });
    if (lines.length === 0) return;
    if (onRun) await this.walk(build, lines);
    else await this.client.call(api.pick, { params: { id: build.id }, body: { lines } });
  }

  /** The same on a run of its own, with the minutes it takes to walk there. */
  private async walk(
    { id }: BuildDetail,
    picked: readonly { lineId: number; binId: number; quantity: string }[],
  ): Promise<void> {
    const goal = { kind: 'build' as const, id };
    const run = await this.client.call(api.makeRun, { body: { goals: [goal] } });
    const params = { id: run.id };
    const { stops } = await this.client.call(api.pickRun, { params });
    const first = stops.find(({ binId }) => picked.some((line) => line.binId === binId));
    if (first) await this.client.call(api.claimStop, { params, body: { stop: first.key } });
    this.time.at += picked.length * MINUTES_A_STOP;
    const serialsOf = (binId: number, lineId: number) =>
      stops
        .find((stop) => stop.binId === binId && stop.lines.some((line) => line.lineId === lineId))
        ?.pieces.flatMap(({ serial }) => serial ?? []) ?? [];
    const lines = picked.map((line) => {
      const serials = serialsOf(line.binId, line.lineId);
      return { ...goal, ...line, serials: serials.slice(0, serials.length > 0 ? Number(line.quantity) : 0) };
    });
    await this.client.call(api.pickOnRun, { params, body: { lines } });
    await this.client.call(api.endRun, { params, body: { version: run.version } });
  }

  /** Finishes some of a build, with what was weighed and how long it took a little off what was planned. */
  async finish(id: number, good: string, more: Partial<Rejects> = {}): Promise<void> {
    const build = await this.client.call(api.build, { params: { id } });
    const weighed = build.lines.filter((line) => line.taken === 'when-finished' && (line.item?.decimals ?? 0) > 1);
    // Waxing frames always takes longer than its bill of materials says.
    const drift = build.code === 'FRM-W' ? 1.18 : 1;
    const lines = weighed.map((line) => ({
      lineId: line.id,
      actual: (Number(line.open) * (Number(good) / Number(build.quantity)) * (0.98 + this.random() * 0.08)).toFixed(
        line.item?.decimals,
      ),
    }));
    const labour = build.lines.filter((line) => line.kind === 'labour');
    const minutes = labour.map((line) => ({
      lineId: line.id,
      actual: (
        Number(line.amount) *
        (line.basis === 'per-run' ? 1 : Number(good) / Number(build.outputQuantity)) *
        (0.9 + this.random() * 0.3) *
        drift
      ).toFixed(0),
    }));
    const check = { params: { id: build.itemId }, body: { codes: [], count: Number(good) } };
    const named =
      build.tracking === 'serial' ? readSerials((await this.client.call(api.checkSerials, check)).nextFree ?? '') : [];
    const body = {
      version: build.version,
      good,
      outputBinId: build.outputBinId,
      lines: [...lines, ...minutes],
      serials: named,
      ...more,
    };
    await this.client.call(api.finish, { params: { id }, body });
  }

  /** Who does what of what is open, and what of it was begun. */
  async shareTasks(): Promise<void> {
    await this.client.as(MO);
    const { rows } = await this.client.call(api.tasks, { query: { limit: 50 } });
    for (const [index, personId] of [TOM, ADA, TOM, null, ADA, TOM].entries()) {
      const task = rows[index];
      if (!task) continue;
      const change = { personId };
      await this.client.call(api.changeTasks, { body: { tasks: [{ id: task.id, version: task.version }], change } });
    }
    const begun = rows.find(({ isOnBench, kind }) => isOnBench && kind === 'labour');
    if (!begun) return;
    const body = { minutes: '20', day: dayOf(new Date(this.time.at)), personId: ADA };
    await this.client.call(api.addTime, { params: { id: begun.id }, body });
  }

  /** What the owner has put on a day: today's and tomorrow's work, and nobody's for the rest. */
  async shareDays(end: Date): Promise<void> {
    await this.client.as(MO);
    const { cards, days } = await this.client.call(api.board, {});
    const day = (index: number) => days[index] ?? dayOf(new Date(end));
    const plan: readonly (readonly [code: string, personId: number, day: string])[] = [
      ['SMK-1', MO, day(1)],
      ['HIVE-10', TOM, day(2)],
      ['CANDLE-2', ADA, day(1)],
    ];
    for (const [code, personId, on] of plan) {
      const card = cards.find((one) => one.code === code && one.isWhole);
      if (!card) continue;
      const build = { id: card.buildId, version: card.version };
      const tasks = card.tasks.map(({ id, version }) => ({ id, version }));
      await this.client.call(api.moveOnBoard, { body: { build, tasks, personId, day: on } });
    }
  }

  /** Takes one of a product apart, with one part damaged. */
  async takeApart(code: string): Promise<void> {
    await this.client.as(ADA);
    const plan = await this.client.call(api.apartPlan, { params: { id: this.item(code).id } });
    const from = plan.bins.find((bin) => Number(bin.quantity) >= 1);
    if (!from) return;
    await this.client.call(api.takeApart, {
      body: {
        itemId: plan.itemId,
        revisionId: plan.revisionId,
        binId: from.binId,
        quantity: '1',
        leftover: 'written-off',
        remark: 'Show kit, box torn',
        lines: plan.lines.map((line, index) => ({
          lineId: line.lineId,
          good: index === 2 ? '0' : line.quantity,
          damaged: index === 2 ? line.quantity : '0',
          binId: line.homeBinId ?? from.binId,
        })),
      },
    });
  }
}
