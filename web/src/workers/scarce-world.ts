import { World } from '@yosegi/core/coverage';
import type { Demand, Source, Supply } from '@yosegi/core/demand';
import { type Quantity, SCALE, ZERO } from '@yosegi/core/number';

// Small worlds in which something is scarce, for tests.

export const TODAY = '2026-11-25';
export const q = (n: number) => (n * SCALE) as Quantity;
export const order = (id: number): Source => ({ kind: 'order', id });
export const build = (id: number): Source => ({ kind: 'build', id });
let lines = 0;
export const wants = (
  source: Source,
  itemId: number,
  n: number,
  wantedOn: string | null,
  begun = false,
  { priority = null, transport = 0 }: { priority?: number | null; transport?: number } = {},
): Demand => {
  lines += 1;
  const turn = { begun, priority, wantedOn, age: source.id };
  return { source, lineId: lines, itemId, quantity: q(n), decimals: 0, turn, transport, stores: null, alternates: [] };
};
export const bought = (id: number, itemId: number, n: number, on: string | null): Supply => ({
  from: { kind: 'purchase', id },
  itemId,
  quantity: q(n),
  on,
  storeId: null,
  only: null,
});
export const made = (id: number, itemId: number, n: number, bench: number, only: Source | null = null): Supply => ({
  from: { kind: 'build', id },
  itemId,
  quantity: q(n),
  on: null,
  bench,
  storeId: null,
  only,
});
export const world = (stock: Record<number, number>, demands: Demand[], supplies: Supply[]) =>
  new World({
    calendar: { today: TODAY, workDays: new Set([1, 2, 3, 4, 5]) },
    benchMinutes: 480,
    items: new Map(
      [1, 2, 3, 4, 5].map((id) => [
        id,
        { id, decimals: 0, averageCost: ZERO, stock: new Map([[1, q(stock[id] ?? 0)]]) },
      ]),
    ),
    definitions: new Map(),
    demands: new Map(demands.map((demand) => [String(demand.lineId), demand])),
    supplies: new Map(
      supplies.map((supply, at) => [String(at), { ...supply, isDraft: false, isPlanned: false, supplierId: null }]),
    ),
  });
