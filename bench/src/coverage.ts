import type { Snapshot } from '@yosegi/contract';
import { CoverageWorld } from '@yosegi/contract/coverage-input';
import { cover, type Wanted } from '@yosegi/core/coverage';
import { median, ms, type Result } from './result.ts';

const ITEMS = 2000;
const PRODUCTS = 50;
const FRAME = 16;

/**
 * Coverage of 50 products over 2,000 items, in the computation that the web worker runs. The baseline beside it is the
 * plainest float arithmetic over the same lines: what exactness, rounding and sharing cost.
 */
export async function coverageBench(): Promise<Result> {
  const snapshot = makeSnapshot();
  const world = new CoverageWorld(snapshot);
  const wanted = snapshot.definitions
    .slice(0, PRODUCTS)
    .map(({ itemId }, n): Wanted => ({ itemId, quantity: ((n + 3) * 1e6) as Wanted['quantity'] }));
  const answers: number[] = [];
  const floats: number[] = [];
  for (let round = 0; round < 60; round += 1) {
    const started = performance.now();
    cover(world.input(wanted));
    answers.push(performance.now() - started);
    const begun = performance.now();
    plainFloats(snapshot, wanted);
    floats.push(performance.now() - begun);
  }
  const [exact, plain] = [median(answers), median(floats)];
  return {
    name: `coverage of ${PRODUCTS} products over ${ITEMS} items`,
    measured: `${ms(exact)} exact (slowest ${ms(Math.max(...answers))})`,
    baseline: `${ms(plain)} in plain floats`,
    ratio: `ratio ${(exact / plain).toFixed(1)}, ${(exact / FRAME).toFixed(2)} of a frame`,
    promise: `within one frame of ${FRAME} ms`,
    holds: exact <= FRAME,
  };
}

function makeSnapshot(): Snapshot {
  const items = Array.from({ length: ITEMS }, (_, n) => ({
    id: n + 1,
    code: `I${n}`,
    name: `Item ${n}`,
    unit: 'each',
    decimals: n % 3 === 0 ? 3 : 0,
    homeBin: null,
    measures: [],
    onHand: String(50 + ((n * 37) % 400)),
    promised: String((n * 13) % 60),
    averageCost: '1.5',
    definitionId: n < 400 ? n : null,
  }));
  const definitions = Array.from({ length: 400 }, (_, n) => ({
    itemId: n + 1,
    outputQuantity: '1',
    parts: Array.from({ length: 12 }, (_unused, line) => ({
      itemId: 401 + ((n * 31 + line * 127) % 1599),
      basis: 'per-output' as const,
      quantity: String(1 + (line % 4)),
      waste: line % 3 ? '0' : '4',
      taken: 'picked-first' as const,
      alternates: [],
    })),
    labour: [],
    charges: [],
  }));
  const coming = items
    .filter((item) => item.id % 5 === 0)
    .map((item) => ({ itemId: item.id, quantity: '20', date: '2026-12-01', from: 'B' }));
  return { items, definitions, coming };
}

function plainFloats(snapshot: Snapshot, wanted: readonly Wanted[]): number {
  const free = new Map(snapshot.items.map((item) => [item.id, Number(item.onHand) - Number(item.promised)]));
  const definitions = new Map(snapshot.definitions.map((definition) => [definition.itemId, definition]));
  const needed = new Map<number, number>();
  let made = 0;
  for (const { itemId, quantity } of wanted) {
    let can = Number.POSITIVE_INFINITY;
    for (const part of definitions.get(itemId)?.parts ?? []) {
      const per = Number(part.quantity) * (1 + Number(part.waste) / 100);
      needed.set(part.itemId, (needed.get(part.itemId) ?? 0) + (per * quantity) / 1e6);
      can = Math.min(can, Math.floor((free.get(part.itemId) ?? 0) / per));
    }
    made += can;
  }
  return made;
}
