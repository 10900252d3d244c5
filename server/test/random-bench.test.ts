import { api, type BuildDetail, type Item, type Route } from '@yosegi/contract';
import { ApiProblem, type Input, type Output } from '@yosegi/contract/client';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

/**
 * Random days on the bench: builds with tasks, extra parts, rejects of both kinds, part finishes, reworks and repairs, and
 * undoing in any order. Whatever is carried out, value in is value out, what is a customer's changes nothing of ours, and
 * minutes are booked once.
 */
describe('any sequence of work on the bench', () => {
  let server: TestServer;
  let shop: Workshop;
  let [board, glue, shelf, scale]: Item[] = [];
  let [reasonId, anna] = [0, 0];
  const done = new Map<string, number>();
  const finishes: number[] = [];
  const given: number[] = [];
  /** What was written down of tasks: minutes, and prices as they were said last. */
  const minutes = new Map<number, number>();
  const prices = new Map<number, string>();

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    board = await shop.item('BOARD');
    glue = await shop.item('GLUE', {
      unitId: (await server.call(api.units, {})).find(({ code }) => code === 'kg')?.id ?? 1,
    });
    shelf = await shop.item('SHELF', { source: 'made' });
    scale = await shop.item('SCALE', { source: 'both', tracking: 'serial' });
    await shop.receive(board, '400', '2.37');
    await shop.receive(glue, '50', '7.113');
    await shop.receive(scale, '4', '51.07', 0, { serials: ['S-1', 'S-2', 'S-3', 'S-4'] });
    anna = await shop.customer('ANNA');
    reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'reject')?.id ?? 0;
    await define(shelf, 'build', [
      partLine(board, '2', { waste: '3' }),
      partLine(glue, '0.017', { taken: 'when-finished' }),
      { kind: 'labour', text: 'Saw', basis: 'per-output', minutes: '7', rateId: 1 },
      { kind: 'charge', text: 'Varnish', basis: 'per-run', amount: '11.1' },
    ]);
    await define(scale, 'rework', [partLine(scale, '1'), partLine(board, '1')]);
  });
  afterAll(() => server.close());

  async function define(item: Item, purpose: 'build' | 'rework', lines: object[]) {
    const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: item.id, purpose } });
    const params = { id: revisions[0]?.id ?? 0 };
    const body = { version: revisions[0]?.version ?? 0, outputQuantity: '1', lines };
    const saved = await server.did('definition', api.saveRevision, { params, body } as never);
    await server.call(api.putInUse, { params, body: { version: saved.revisions[0]?.version ?? 0 } });
  }

  /** Does something, or is refused with a way out; anything else fails. */
  async function attempt<R extends Route>(what: string, route: R, input: Input<R>): Promise<Output<R> | null> {
    try {
      const answer = await server.call(route, input);
      done.set(what, (done.get(what) ?? 0) + 1);
      return answer;
    } catch (error) {
      if (error instanceof ApiProblem && error.problem.status < 500) {
        done.set('refused', (done.get('refused') ?? 0) + 1);
        return null;
      }
      throw error;
    }
  }

  const openBuilds = async () => (await server.call(api.builds, { query: { limit: 200 } })).rows;
  const detail = (id: number) => server.call(api.build, { params: { id } });
  const pickFrom = <T>(all: readonly T[], at: number): T | undefined => all[at % Math.max(1, all.length)];
  const onBench = async (at: number): Promise<BuildDetail | null> => {
    const row = pickFrom(
      (await openBuilds()).filter(({ state }) => state === 'on-bench'),
      at,
    );
    return row ? detail(row.id) : null;
  };

  const deeds: Record<string, (at: number, n: number) => Promise<unknown>> = {
    plan: (_, n) =>
      attempt('plan', api.planBuilds, {
        body: { builds: [{ itemId: shelf?.id ?? 0, quantity: String(1 + (n % 6)), due: null }] },
      }),
    rework: () =>
      attempt('plan', api.planBuilds, {
        body: { builds: [{ itemId: scale?.id ?? 0, quantity: '1', due: null, purpose: 'rework' }] },
      }),
    takeIn: (_, n) =>
      attempt('takeIn', api.takeIn, {
        body: { customerId: anna, itemId: scale?.id ?? 0, serial: `C-${n % 5}`, fault: 'Broken' },
      }),
    async start(at) {
      const row = pickFrom(
        (await openBuilds()).filter(({ state }) => state === 'planned'),
        at,
      );
      if (row) await attempt('start', api.startBuild, { params: { id: row.id }, body: { version: row.version } });
    },
    async pick(at, n) {
      const build = await onBench(at);
      const lines = (build?.lines ?? []).flatMap((line) => {
        const bin = line.bins[0];
        if (!bin || Number(line.open) === 0 || line.taken !== 'picked-first') return [];
        const serials = line.item?.tracking === 'serial' ? [bin.pieces[n % bin.pieces.length]?.serial ?? ''] : [];
        return [{ lineId: line.id, binId: bin.binId, quantity: line.open, serials }];
      });
      if (build && lines.length > 0) await attempt('pick', api.pick, { params: { id: build.id }, body: { lines } });
    },
    async extra(at, n) {
      const build = await onBench(at);
      const body = {
        itemId: (n % 2 ? board : glue)?.id ?? 0,
        quantity: n % 2 ? '1' : '0.105',
        because: 'Loose',
        binId: shop.bin(0),
      };
      if (build) await attempt('extra', api.addPart, { params: { id: build.id }, body });
    },
    async back(at, n) {
      const build = await onBench(at);
      const line = pickFrom(
        (build?.lines ?? []).filter(({ onBench: there }) => Number(there) > 0),
        n,
      );
      const serials =
        line?.item?.tracking === 'serial' ? line.pieces.slice(0, 1).flatMap(({ serial }) => serial ?? []) : [];
      if (build && line)
        await attempt('back', api.takeBack, {
          params: { id: build.id },
          body: { lineId: line.id, quantity: line.onBench, serials },
        });
    },
    async task(at, n) {
      const build = await onBench(at);
      const body = {
        kind: n % 2 ? ('labour' as const) : ('charge' as const),
        text: 'More',
        amount: String(n % 13),
        rateId: 1,
        because: 'It came up',
      };
      if (build) await attempt('task', api.addTask, { params: { id: build.id }, body });
    },
    async minutes(at, n) {
      const task = pickFrom((await onBench(at))?.tasks ?? [], n);
      if (!task) return;
      const added = 1 + (n % 40);
      const body = { minutes: String(added), day: '2026-11-23' };
      if (await attempt('minutes', api.addTime, { params: { id: task.id }, body }))
        minutes.set(task.id, (minutes.get(task.id) ?? 0) + added);
    },
    async state(at, n) {
      const task = pickFrom((await onBench(at))?.tasks ?? [], n);
      const change =
        n % 3 === 0
          ? { state: 'skipped' as const, because: 'Not needed' }
          : n % 3 === 1
            ? { state: 'done' as const }
            : { price: String(n % 20) };
      if (!task) return;
      const body = { tasks: [{ id: task.id, version: task.version }], change };
      if ((await attempt('state', api.changeTasks, { body })) && change.price !== undefined)
        prices.set(task.id, change.price);
    },
    async finish(at, n) {
      const build = await onBench(at);
      if (!build) return;
      const left = Number(build.quantity) - Number(build.finished) - Number(build.rejected);
      const good = n % (left + 1);
      const rejected = build.repair ? 0 : Math.min(left - good, n % 3);
      const itself = build.lines.filter(({ item }) => item?.id === build.itemId).flatMap(({ pieces }) => pieces);
      const serials = build.isRework ? itself.flatMap(({ serial }) => serial ?? []).slice(0, good) : [];
      const out =
        build.isRework && n % 2
          ? [
              {
                itemId: board?.id ?? 0,
                quantity: '1',
                went: n % 4 === 1 ? ('stock' as const) : ('scrap' as const),
                share: String(n % 30),
              },
            ]
          : [];
      const posted = await attempt('finish', api.finish, {
        params: { id: build.id },
        body: {
          version: build.version,
          good: String(build.repair ? 1 : good),
          ...(rejected > 0
            ? {
                rejected: String(rejected),
                rejectReasonId: reasonId,
                rejectCost: n % 2 ? ('carried' as const) : ('written-off' as const),
              }
            : {}),
          outputBinId: build.outputBinId,
          lines: [],
          serials,
          out,
          close: n % 7 === 0,
        },
      });
      if (posted) finishes.push(posted.id);
    },
    async undo(at) {
      const id = pickFrom(finishes, at);
      if (id !== undefined) await attempt('undo', api.undoDocument, { params: { id }, body: {} });
    },
    async giveBack(at, n) {
      const { rows } = await server.call(api.repairs, { query: {} });
      const repair = pickFrom(rows, at);
      if (!repair) return;
      const body = { version: repair.version };
      const went = await attempt('giveBack', api.giveBack, {
        params: { id: repair.id },
        body: { ...body, charged: String(n % 50) },
      });
      if (went) given.push(repair.id);
      else if (n % 5 === 0)
        await attempt('decline', api.declineRepair, {
          params: { id: repair.id },
          body: { ...body, because: 'Too dear' },
        });
    },
    async takeBack(at) {
      const id = pickFrom(given, at);
      if (id === undefined) return;
      const { version } = await server.call(api.repair, { params: { id } });
      await attempt('takeBack', api.takeRepairBack, { params: { id }, body: { version } });
    },
  };

  /** What is a customer's is neither on hand nor coming nor promised to anybody. */
  const ours = async () => {
    const rows = await server.database.reader.all<{ there: number }>(
      `SELECT count(*) AS there FROM balance b JOIN serial s ON s.id = b.serial_id WHERE s.code LIKE 'C-%'`,
    );
    expect(rows).toEqual([{ there: 0 }]);
    const [reworks] = await server.database.reader.all<{ coming: number }>(
      `SELECT count(*) AS coming FROM build b JOIN item i ON i.id = b.item_id AND i.code = 'SCALE'
       WHERE b.state IN ('planned', 'on-bench') AND b.repair_id IS NULL`,
    );
    expect(Number((await shop.stockOf(scale as Item)).coming)).toBe(reworks?.coming);
  };

  /** No minute is booked twice: what finishes that stand have booked of a task is never more than was written down or planned. */
  const booked = async () => {
    const twice = await server.database.reader.all(
      `SELECT l.id FROM build_line l JOIN task t ON t.id = l.id WHERE l.kind = 'labour' AND l.used > max(
         ifnull((SELECT sum(minutes) FROM task_time WHERE task_id = t.id), 0),
         l.amount * iif(l.basis = 'per-run', 1, (SELECT quantity / output_quantity FROM build WHERE id = l.build_id)))`,
    );
    expect(twice).toEqual([]);
  };

  /** What was written down stays written down on every task, whatever was finished, undone or called off since. */
  const written = async () => {
    for (const row of (await server.call(api.builds, { query: { limit: 500 } })).rows)
      for (const { id, taken, price, kind } of (await detail(row.id)).tasks) {
        expect([row.number, id, taken]).toEqual([row.number, id, String(minutes.get(id) ?? 0)]);
        const said = prices.get(id);
        if (kind === 'charge' && said !== undefined) expect([row.number, id, price]).toEqual([row.number, id, said]);
      }
  };

  it('is carried out or refused; value in is value out, and what is a customer’s is not ours', async () => {
    const names = Object.keys(deeds);
    const weighted = [
      ...names,
      'plan',
      'start',
      'start',
      'pick',
      'pick',
      'finish',
      'finish',
      'minutes',
      'takeIn',
      'undo',
    ];
    const step = fc.tuple(fc.constantFrom(...weighted), fc.nat(50), fc.nat(200));
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 50, maxLength: 70 }), async (steps) => {
        for (const [name, at, n] of steps) await deeds[name]?.(at, n);
        expect(await server.verify()).toEqual([]);
        await ours();
        await booked();
        await written();
      }),
      { numRuns: Number(process.env.DAYS ?? 4), endOnFailure: true },
    );
    for (const what of ['finish', 'extra', 'takeIn', 'undo', 'refused', 'pick'])
      expect(done.get(what) ?? 0, `${what} of ${[...done].join()}`).toBeGreaterThan(0);
  });
});
