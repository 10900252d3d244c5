import { api, type RunDetail } from '@yosegi/contract';
import { type Fetch, send } from '@yosegi/contract/client';
import { groupBy } from '@yosegi/core/lists';
import { parseQuantity } from '@yosegi/core/number';
import { goalKey, type OnShelf, proposeRuns, type Wanted } from '@yosegi/core/picking';
import { replayed } from './replay.ts';
import { median, ms, type Result } from './result.ts';

const LINES = 12;
const BUILDS = 4;

/** One stop of a run for four builds, picked again and again. */
export const pickBench = () =>
  replayed({
    name: `pick at a stop that serves ${BUILDS} builds over HTTP`,
    rounds: 60,
    most: 2.5,
    prepare,
    post: (call, run) => {
      const [stop] = run.stops;
      if (!stop) throw new Error('nothing is left to pick');
      const lines = stop.lines.map(({ kind, id, lineId }) => ({ kind, id, lineId, binId: stop.binId, quantity: '1' }));
      return send(call, api.pickOnRun, { params: { id: run.id }, body: { lines } });
    },
    next: (call, run) => send(call, api.pickRun, { params: { id: run.id } }),
  });

/** Four builds of one product of twelve parts on their benches, each part in a bin of its own, and a run for all of them. */
async function prepare(call: Fetch): Promise<RunDetail> {
  const store = await send(call, api.createStore, { body: { code: 'S', name: 'Store' } });
  const bins = [];
  for (let n = 0; n < LINES; n += 1)
    bins.push(await send(call, api.createBin, { params: { id: store.id }, body: { code: `A${n}`, pickingOrder: n } }));
  const item = (code: string, homeBinId: number | null) => {
    const nothing = { sellPrice: null, reorderPoint: null, standardCost: null, note: '' };
    return send(call, api.createItem, {
      body: { code, name: code, unitId: 1, source: 'both', homeBinId, ...nothing },
    });
  };
  const parts = [];
  for (const [n, bin] of bins.entries()) parts.push({ ...(await item(`PART-${n}`, bin.id)), binId: bin.id });
  const product = await item('PRODUCT', bins[0]?.id ?? null);
  const lines = parts.map(({ id, binId }) => ({ itemId: id, binId, quantity: '100000', unitCost: '1.37' }));
  await send(call, api.receive, { body: { kind: 'receipt', lines } });
  const { id } = await send(call, api.createDefinition, { body: { itemId: product.id } });
  const part = { kind: 'part', basis: 'per-output', quantity: '2', waste: '0', share: null, comesBack: true } as const;
  const own = parts.map((one) => ({ ...part, itemId: one.id, taken: 'picked-first' as const }));
  const body = { version: 0, outputQuantity: '1', lines: own };
  const saved = await send(call, api.saveRevision, { params: { id }, body });
  await send(call, api.putInUse, { params: { id }, body: { version: saved.version } });
  const { builds } = await send(call, api.planBuilds, {
    body: { builds: Array.from({ length: BUILDS }, () => ({ itemId: product.id, quantity: '1000', due: null })) },
  });
  for (const build of builds)
    await send(call, api.startBuild, { params: { id: build.id }, body: { version: build.version } });
  const goals = builds.map((build) => ({ kind: 'build' as const, id: build.id }));
  const run = await send(call, api.makeRun, { body: { goals } });
  return send(call, api.pickRun, { params: { id: run.id } });
}

const [OPEN_LINES, GOALS, BINS, ITEMS] = [300, 30, 120, 90];
const ROUNDS = 60;
const MOST = 16;

/** Runs proposed over three hundred open lines, beside what only sorts the same lines by where they are. */
export function proposalBench(): Result {
  const wanted = Array.from(
    { length: OPEN_LINES },
    (_, n): Wanted => ({
      goal: { kind: n % 3 === 0 ? 'order' : 'build', id: n % GOALS },
      lineId: n,
      itemId: (n * 7) % ITEMS,
      open: parseQuantity(String(1 + (n % 9)), 0),
    }),
  );
  const shelves = Array.from(
    { length: BINS * 4 },
    (_, n): OnShelf => ({
      itemId: n % ITEMS,
      storeId: 1 + (n % 2),
      binId: Math.floor(n / 4),
      lotId: n % 5 === 0 ? n : null,
      serialId: null,
      quantity: parseQuantity(String(1 + (n % 6)), 0),
    }),
  );
  const [measured, bare]: [number[], number[]] = [[], []];
  let runs = 0;
  for (let round = 0; round < ROUNDS; round += 1) {
    const started = performance.now();
    runs = proposeRuns(wanted, shelves).length;
    const ended = performance.now();
    measured.push(ended - started);
    const begun = performance.now();
    const at = new Map(shelves.map((one) => [one.itemId, one.binId]));
    groupBy(
      wanted.toSorted((a, b) => (at.get(a.itemId) ?? 0) - (at.get(b.itemId) ?? 0)),
      ({ goal }) => goalKey(goal),
    );
    bare.push(performance.now() - begun);
  }
  const [all, sorted] = [median(measured), median(bare)];
  return {
    name: `${runs} runs proposed over ${OPEN_LINES} open lines of ${GOALS} builds and orders`,
    measured: `${ms(all)} in the core`,
    baseline: `${ms(sorted)} for sorting the same lines by bin and by goal`,
    ratio: `ratio ${(all / sorted).toFixed(2)}, ${(all / MOST).toFixed(2)} of ${MOST} ms`,
    promise: `under ${MOST} ms`,
    holds: all < MOST,
  };
}
