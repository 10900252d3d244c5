import { brotliCompressSync, constants } from 'node:zlib';
import type { Snapshot } from '@yosegi/contract';
import { CoverageRows } from '@yosegi/contract/coverage-input';
import { cover, type Wanted, type World } from '@yosegi/core/coverage';
import { compile, plan } from '@yosegi/core/demand';
import { median, ms, type Result } from './result.ts';

/** How large a company is: items, definitions of twelve lines, builds and orders that are open, and deliveries. */
interface Size {
  readonly items: number;
  readonly definitions: number;
  readonly demands: number;
  readonly supplies: number;
}
const FULL: Size = { items: 20_000, definitions: 3_000, demands: 5_000, supplies: 2_000 };
const LINES = 12;
const FRAME = 16;
const MOST_BYTES = 400 * 1024;
const ROUNDS = 40;
const PRODUCTS = 50;

/**
 * What Cover costs at the size of a large company: a plan over everything that is promised, an answer to a key, and what a
 * browser loads. Growth over two orders of magnitude stands beneath.
 */
export function coverageBenches(): Result[] {
  const snapshot = makeSnapshot(FULL);
  const world = CoverageRows.of(snapshot, null).world();
  const table = [0.1, 1, 10].map((factor) => growth(factor));
  // As many lines of builds and orders are open as there are demands.
  const loaded = makeSnapshot({ ...FULL, demands: Math.round((2 * FULL.demands) / (LINES + 1)) });
  return [planBench(world), keystrokeBench(world, snapshot), sizeBench(loaded), growthBench(table)];
}

/** A plan over everything beside one bare pass over the same exploded lines in the same turn. */
function planBench(world: World): Result {
  const { whole, bare, lines } = measurePlan(world);
  const ratio = whole / bare;
  return {
    name: `a plan over ${lines.toLocaleString('en')} lines of ${FULL.demands.toLocaleString('en')} builds and orders`,
    measured: `${ms(whole)} with days, in turn, nothing twice`,
    baseline: `${ms(bare)} for a bare pass over typed arrays`,
    ratio: `ratio ${ratio.toFixed(1)}`,
    promise: 'at most 5 times',
    holds: ratio <= 5,
  };
}

function measurePlan(world: World) {
  const compiled = compile(world.picture());
  const { need, turn, demands, indexOf, supplies } = compiled;
  const item = Int32Array.from(demands, ({ itemId }) => indexOf.get(itemId) ?? 0);
  const free = new Float64Array(indexOf.size);
  for (const { itemId, quantity, on } of supplies) {
    const at = indexOf.get(itemId);
    if (at !== undefined && on === '') free[at] = (free[at] ?? 0) + quantity;
  }
  const [whole, bare]: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round += 1) {
    const started = performance.now();
    plan(compiled);
    whole.push(performance.now() - started);
    const begun = performance.now();
    barePass(turn, item, need, free);
    bare.push(performance.now() - begun);
  }
  return { whole: median(whole), bare: median(bare), lines: need.length };
}

/** The plainest pass: every line in turn takes what is left of its item, rounded up to whole ones. */
function barePass(turn: Int32Array, item: Int32Array, need: Float64Array, free: Float64Array): Float64Array {
  const left = free.slice();
  const short = new Float64Array(need.length);
  for (const line of turn) {
    const wanted = Math.ceil((need[line] as number) / 1e6) * 1e6;
    const at = item[line] as number;
    const taken = Math.min(left[at] as number, wanted);
    left[at] = (left[at] as number) - taken;
    short[line] = wanted - taken;
  }
  return short;
}

/** The answer to a key that changed one of fifty products, in the computation that the web worker runs. */
function keystrokeBench(world: World, snapshot: Snapshot): Result {
  world.doneOn();
  const answers: number[] = [];
  const floats: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const wanted = snapshot.definitions
      .slice(0, PRODUCTS)
      .map(({ itemId }, n): Wanted => ({ itemId, quantity: ((n + 3 + round) * 1e6) as Wanted['quantity'] }));
    const started = performance.now();
    cover(world, { wanted });
    answers.push(performance.now() - started);
    const begun = performance.now();
    plainFloats(snapshot, wanted);
    floats.push(performance.now() - begun);
  }
  const [exact, plain] = [median(answers), median(floats)];
  return {
    name: `a key in Cover with ${PRODUCTS} products over ${FULL.items.toLocaleString('en')} items`,
    measured: `${ms(exact)} exact (slowest ${ms(Math.max(...answers))})`,
    baseline: `${ms(plain)} in plain floats`,
    ratio: `ratio ${(exact / plain).toFixed(1)}, ${(exact / FRAME).toFixed(2)} of a frame`,
    promise: `within one frame of ${FRAME} ms`,
    holds: exact <= FRAME,
  };
}

function plainFloats(snapshot: Snapshot, wanted: readonly Wanted[]): number {
  const definitions = new Map(snapshot.definitions.map((definition) => [definition.itemId, definition]));
  const needed = new Map<number, number>();
  for (const { itemId, quantity } of wanted)
    for (const [part, amount, , waste] of definitions.get(itemId)?.parts ?? [])
      needed.set(part, (needed.get(part) ?? 0) + (Number(amount) * (1 + Number(waste) / 100) * quantity) / 1e6);
  return needed.size;
}

/** What the browser's worker loads once. */
function sizeBench(snapshot: Snapshot): Result {
  const text = JSON.stringify(snapshot);
  const compressed = brotliCompressSync(text, { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } }).length;
  return {
    name: `what Cover loads at ${FULL.items.toLocaleString('en')} items and ${FULL.definitions.toLocaleString('en')} definitions`,
    measured: `${Math.round(compressed / 1024)} kB compressed`,
    baseline: `${Math.round(text.length / 1024)} kB as it is`,
    ratio: `ratio ${(compressed / text.length).toFixed(2)}`,
    promise: `at most ${MOST_BYTES / 1024} kB`,
    holds: compressed <= MOST_BYTES,
  };
}

interface Grown {
  readonly lines: number;
  readonly compiled: number;
  readonly planned: number;
}

function growth(factor: number): Grown {
  const size: Size = {
    items: FULL.items * factor,
    definitions: FULL.definitions * factor,
    demands: FULL.demands * factor,
    supplies: FULL.supplies * factor,
  };
  const world = CoverageRows.of(makeSnapshot(size), null).world();
  const picture = world.picture();
  const started = performance.now();
  const { need } = compile(picture);
  const compiled = performance.now() - started;
  return { lines: need.length, compiled, planned: measurePlan(world).whole };
}

function growthBench(table: readonly Grown[]): Result {
  const perLine = table.map(({ lines, compiled, planned }) => (compiled + planned) / (lines * Math.log2(lines)));
  const worst = Math.max(...perLine) / (perLine[0] ?? 1);
  return {
    name: 'how a plan grows, from a tenth to ten times',
    measured: table
      .map(
        ({ lines, compiled, planned }) =>
          `${lines.toLocaleString('en')} lines: made ready in ${ms(compiled)}, planned in ${ms(planned)}`,
      )
      .join('; '),
    baseline: 'the smallest of them, growing as n log n',
    ratio: `at most ${worst.toFixed(2)} of that`,
    promise: 'no more than 2 of it',
    holds: worst <= 2,
  };
}

/** The same every time: half of what is open are builds with their lines, half orders for what is built. */
function makeSnapshot({ items, definitions, demands, supplies }: Size): Snapshot {
  const partOf = (n: number, line: number) => definitions + 1 + ((n * 31 + line * 127) % (items - definitions));
  const day = (n: number) => `2026-12-${String(1 + (n % 28)).padStart(2, '0')}`;
  const builds = Math.floor(demands / 2);
  const turn = { begun: false, priority: null, age: 1, transport: 0, alternates: [] };
  return {
    version: 'bench',
    since: null,
    today: '2026-11-25',
    workDays: [1, 2, 3, 4, 5],
    benchMinutes: 480,
    gone: [],
    items: Array.from({ length: items }, (_, n) => [
      n + 1,
      n % 3 === 0 ? 3 : 0,
      String(((n * 7919) % 40_000) / 1000),
      n % 5 === 0 ? [] : [[1 + (n % 3), String((n * 37) % 400)]],
    ]),
    definitions: Array.from({ length: definitions }, (_, n) => ({
      itemId: n + 1,
      draft: false,
      output: '1',
      benchDays: null,
      parts: Array.from({ length: LINES }, (_unused, line) => [
        partOf(n, line),
        String(1 + (line % 4)),
        0 as const,
        line % 3 ? '0' : '4',
        [],
      ]),
      labour: [[String(10 + (n % 50)), 0, '24']],
      charges: [],
    })),
    demands: [
      ...Array.from({ length: builds * LINES }, (_, n): Snapshot['demands'][number] => {
        const build = Math.floor(n / LINES);
        const quantity = String((1 + (n % 4)) * (1 + (build % 9)));
        return {
          ...{ kind: 'build', id: build + 1, lineId: n + 1, itemId: partOf(build, n % LINES), quantity },
          ...{ ...turn, begun: build % 9 === 0, wantedOn: day(build) },
        };
      }),
      ...Array.from({ length: demands - builds }, (_, n): Snapshot['demands'][number] => ({
        ...{
          kind: 'order',
          id: n + 1,
          lineId: n + 1,
          itemId: 1 + ((n * 7) % definitions),
          quantity: String(1 + (n % 9)),
        },
        ...{ ...turn, wantedOn: day(n + 11) },
      })),
    ],
    supplies: [
      ...Array.from({ length: builds }, (_, n): Snapshot['supplies'][number] => ({
        ...{
          kind: 'build',
          id: n + 1,
          itemId: 1 + (n % definitions),
          quantity: String(1 + (n % 9)),
          on: null,
          bench: 1,
        },
        ...{ only: null, draft: false, planned: true, supplier: null },
      })),
      ...Array.from({ length: supplies }, (_, n): Snapshot['supplies'][number] => ({
        ...{ kind: 'purchase', id: n + 1, itemId: partOf(n, n % LINES), quantity: '50', on: day(n), bench: null },
        ...{ only: null, draft: false, planned: false, supplier: 1 },
      })),
    ],
  };
}
