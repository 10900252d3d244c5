import { api, type Item, type Route, type RunDetail } from '@yosegi/contract';
import { ApiProblem, type Input, type Output } from '@yosegi/contract/client';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

/**
 * Random people on random runs: lots, serials, alternates, too little and too much, bins that have less than the books say,
 * undoing and putting back. Never is more picked than was open or than was there, and nobody is served before their turn.
 */
describe('any sequence of picks on runs', () => {
  let server: TestServer;
  let shop: Workshop;
  let [oak, pine, wax, scale, table, hive]: Item[] = [];
  let customerId = 0;
  const cookies: string[] = [];
  const done = new Map<string, number>();
  const acts: number[] = [];

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    oak = await shop.item('OAK');
    pine = await shop.item('PINE', { bin: 1 });
    wax = await shop.item('WAX', { tracking: 'lot', bin: 2 });
    scale = await shop.item('SCALE', { tracking: 'serial', bin: 1 });
    table = await shop.item('TABLE', { source: 'made' });
    hive = await shop.item('HIVE', { source: 'made' });
    await shop.define(hive, [
      [oak, '2'],
      [wax, '1'],
      [oak, '1'],
    ]);
    await shop.receive(pine, '900', '0.8', 1);
    const { id, version } = await server.call(api.createDefinition, { body: { itemId: table.id } });
    const lines = [partLine(oak, '2', { alternates: [{ itemId: pine.id, ratio: '2' }] }), partLine(scale, '1')];
    const saved = await server.call(api.saveRevision, {
      params: { id },
      body: { version, outputQuantity: '1', lines },
    });
    await server.call(api.putInUse, { params: { id }, body: { version: saved.version } });
    customerId = await shop.customer('ANNA');
    for (const name of ['Ben', 'Cleo'])
      await server.call(api.createWorker, { body: { name, initials: name.slice(0, 2), role: 'bench' } });
    for (const person of [1, 2, 3]) {
      await server.signIn(person);
      cookies.push(server.cookie);
    }
  });
  afterAll(() => server.close());

  /** Does something, or is refused with a way out; anything else fails. */
  async function attempt<R extends Route>(what: string, route: R, input: Input<R>): Promise<Output<R> | null> {
    try {
      const answer = await server.call(route, input);
      done.set(what, (done.get(what) ?? 0) + 1);
      return answer;
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.problem.status >= 500) throw error;
      done.set('refused', (done.get('refused') ?? 0) + 1);
      return null;
    }
  }
  const pickFrom = <T>(all: readonly T[], at: number): T | undefined => all[at % Math.max(1, all.length)];
  const openRuns = async () => (await server.call(api.pickPlan, {})).runs;
  const someRun = async (at: number): Promise<RunDetail | null> => {
    const row = pickFrom(await openRuns(), at);
    return row ? server.call(api.pickRun, { params: { id: row.id } }) : null;
  };

  const someDay = (n: number) => (n % 3 === 0 ? null : `2026-12-0${1 + (n % 5)}`);

  const deeds: Record<string, (at: number, n: number) => Promise<unknown>> = {
    async receive(at, n) {
      const [item, more] =
        pickFrom(
          [
            [oak, {}],
            [pine, {}],
            [wax, { lot: `L${n % 4}`, bestBefore: `2027-0${1 + (n % 4)}-01` }],
            [scale, { serials: [`S-${done.get('receive') ?? 0}`] }],
          ] as const,
          at,
        ) ?? [];
      const quantity = item === scale ? '1' : String(2 + (n % 9));
      const line = { itemId: item?.id ?? 0, binId: shop.bin(n % 3), quantity, unitCost: '1.37', ...more };
      await attempt('receive', api.receive, { body: { kind: 'receipt', lines: [line] } });
    },
    async build(at, n) {
      const what = at % 2 ? hive : table;
      const { id, version } = await shop.plan(what as Item, String(1 + (n % 4)), someDay(n));
      const override = { reason: 'It is begun with what there is' };
      await attempt('build', api.startBuild, { params: { id }, body: { version, override } });
      if (n % 3 === 0) {
        const { version: next } = await server.call(api.build, { params: { id } });
        await attempt('spare', api.allowSpare, { params: { id }, body: { version: next, spare: true } });
      }
      return id;
    },
    async sell(at, n) {
      // Two lines of one thing, most of the time, that share its lots, serials or bins.
      const what = pickFrom([oak, wax, scale], at)?.id ?? 0;
      const line = (quantity: number, wantedOn: string | null = null) => {
        return { itemId: what, quantity: String(quantity), price: '9', wantedOn };
      };
      const lines = n % 3 === 0 ? [line(1 + (n % 5))] : [line(1 + (n % 4)), line(1 + (n % 2), someDay(n + 1))];
      await shop.sell(customerId, lines, { wantedOn: someDay(at) }).catch(() => null);
    },
    async run(at, n) {
      const { goals } = await server.call(api.pickPlan, {});
      const own = goals.slice(at % 3, (at % 3) + 1 + (n % 4)).map(({ kind, id }) => ({ kind, id }));
      if (own.length > 0) await attempt('run', api.makeRun, { body: { goals: own } });
    },
    async pick(at, n) {
      const run = await someRun(at);
      const stop = pickFrom(run?.stops ?? [], n);
      if (!run || !stop) return;
      const serials = stop.pieces.flatMap(({ serial }) => serial ?? []);
      let from = 0;
      const lines = stop.lines.map(({ kind, id, lineId, quantity }) => {
        const wanted = n % 7 === 0 ? Number(quantity) + 1 : Math.max(1, Number(quantity) - (n % 3));
        const own = stop.item.tracking === 'serial' ? serials.slice(from, from + wanted) : [];
        from += own.length;
        return { kind, id, lineId, binId: stop.binId, quantity: String(wanted), lot: stop.lot, serials: own };
      });
      const picked = await attempt('pick', api.pickOnRun, { params: { id: run.id }, body: { lines } });
      if (picked) acts.push(picked.id);
    },
    async claim(at, n) {
      const run = await someRun(at);
      const stop = pickFrom(run?.stops ?? [], n)?.key ?? null;
      if (run) await attempt('claim', api.claimStop, { params: { id: run.id }, body: { stop } });
    },
    async notThere(at, n) {
      const run = await someRun(at);
      const stop = pickFrom(run?.stops ?? [], n);
      if (!run || !stop || n % 3 > 0) return;
      const body = { binId: stop.binId, itemId: stop.item.id, lot: stop.lot };
      await attempt('notThere', api.notThere, { params: { id: run.id }, body });
    },
    async standIn(_, n) {
      const all = await Promise.all((await openRuns()).map(({ id }) => server.call(api.pickRun, { params: { id } })));
      const short = pickFrom(
        all.flatMap(({ missing }) => missing.filter(({ standIns }) => standIns.length > 0)),
        n,
      );
      if (short?.kind !== 'build') return;
      const body = { lineId: short.lineId, itemId: pine?.id ?? 0, quantity: n % 2 ? '1' : short.quantity };
      await attempt('standIn', api.standIn, { params: { id: short.id }, body });
    },
    async undo() {
      const last = acts.pop();
      if (last !== undefined) await attempt('undo', api.undoDocument, { params: { id: last }, body: {} });
    },
    async end(at, n) {
      const run = await someRun(at);
      if (run && n % 3 === 0)
        await attempt('end', api.endRun, { params: { id: run.id }, body: { version: run.version } });
    },
  };

  /** What is nowhere and what nobody asked for is nowhere picked. */
  async function never(): Promise<void> {
    const { reader } = server.database;
    expect(await reader.all('SELECT * FROM balance WHERE quantity < 0')).toEqual([]);
    expect(await reader.all('SELECT * FROM build_line WHERE open < 0')).toEqual([]);
    const { rows } = await server.call(api.builds, { query: { limit: 200 } });
    for (const row of rows.filter(({ state }) => state === 'on-bench')) {
      const build = await server.call(api.build, { params: { id: row.id } });
      for (const line of build.lines)
        if (!build.spare)
          expect(Number(line.onBench), `${build.number} ${line.item?.code}`).toBeLessThanOrEqual(Number(line.required));
    }
    expect(await reader.all('SELECT * FROM order_part WHERE open < 0')).toEqual([]);
    await namedOnce();
    expect(await server.verify()).toEqual([]);
  }

  /** What stands on a bench or in a parcel of lots and serials is told of one line each, as much as the line has. */
  async function namedOnce(): Promise<void> {
    for (const { id } of await openRuns()) {
      const { brought, number } = await server.call(api.pickRun, { params: { id } });
      const serials = brought.flatMap(({ pieces }) => pieces.flatMap(({ serial }) => serial ?? []));
      expect(new Set(serials).size, number).toBe(serials.length);
      for (const { item, quantity, pieces } of brought)
        if (item.tracking !== 'none')
          expect(
            pieces.reduce((sum, piece) => sum + Number(piece.quantity), 0),
            `${number} ${item.code}`,
          ).toBe(Number(quantity));
    }
  }

  /** The turn of a line, as text that sorts: what is on a bench or in a parcel, then the day, then the older. */
  async function turnOf({ kind, id, lineId }: { kind: string; id: number; lineId: number }): Promise<string> {
    const params = { id };
    const read = async () => {
      if (kind === 'build') return { begun: true, on: (await server.call(api.build, { params })).due };
      const { lines, wantedOn } = await server.call(api.order, { params });
      const own = lines.find(({ parts }) => parts.some((part) => part.id === lineId));
      const begun = lines.some(({ parts }) => parts.some(({ packed }) => packed !== '0'));
      return { begun, on: own?.wantedOn ?? wantedOn };
    };
    const { begun, on } = await read();
    return [begun ? 0 : 1, on ?? '9999', String(id).padStart(6, '0'), String(lineId).padStart(6, '0')].join(' ');
  }

  /** Of what is scarce on a run nobody gets any while somebody before them lacks some. */
  async function inTurn(): Promise<void> {
    for (const { id } of await openRuns()) {
      const { stops, missing, number } = await server.call(api.pickRun, { params: { id } });
      const scarce = new Set(missing.map(({ item }) => item.id));
      const served = stops.flatMap((stop) =>
        stop.lines.map((line) => ({ ...line, itemId: stop.item.id, lacks: false })),
      );
      const all = [...served, ...missing.map((line) => ({ ...line, itemId: line.item.id, lacks: true }))];
      const turns = await Promise.all(all.map(turnOf));
      for (const itemId of scarce) {
        const own = all
          .map((line, at) => ({ ...line, turn: turns[at] ?? '' }))
          .filter((line) => line.itemId === itemId);
        const first =
          own
            .filter(({ lacks }) => lacks)
            .map(({ turn }) => turn)
            .sort()[0] ?? '';
        const after = own.filter(({ turn, lacks }) => !lacks && turn > first);
        expect(
          after.map(({ kind, id: of, lineId }) => [number, kind, of, lineId, itemId]),
          first,
        ).toEqual([]);
        if (own.length > 1) done.set('scarce', (done.get('scarce') ?? 0) + 1);
      }
    }
  }

  it('picks no more than is open, and no more than is there', async () => {
    const kinds = [
      'receive',
      'receive',
      'build',
      'sell',
      'run',
      'pick',
      'pick',
      'pick',
      'pick',
      'pick',
      'standIn',
      'claim',
      'notThere',
      'standIn',
      'undo',
      'end',
    ];
    const deed = fc.tuple(fc.constantFrom(...kinds), fc.nat({ max: 40 }), fc.nat({ max: 40 }), fc.nat({ max: 2 }));
    await fc.assert(
      fc.asyncProperty(fc.nat({ max: 40 }), fc.array(deed, { minLength: 8, maxLength: 24 }), async (first, work) => {
        const id = await deeds.build?.(0, first);
        await attempt('run', api.makeRun, { body: { goals: [{ kind: 'build', id: Number(id) }] } });
        await deeds.standIn?.(0, first);
        for (const [name, at, n, person] of work) {
          // Picks are for everybody; what is planned, sold and received is the owner's.
          server.cookie = cookies[['pick', 'claim', 'notThere'].includes(name) ? person : 0] ?? '';
          await deeds[name]?.(at, n);
        }
        server.cookie = cookies[0] ?? '';
        await never();
        await inTurn();
      }),
      { numRuns: 20, endOnFailure: true },
    );
    for (const what of ['receive', 'build', 'run', 'pick', 'claim', 'standIn', 'undo', 'refused', 'scarce'])
      expect(done.get(what) ?? 0, what).toBeGreaterThan(2);
  });
});
