import { type Known, type KnownDefinition, type KnownItem, type KnownSupply, World } from '@yosegi/core/coverage';
import type { Basis } from '@yosegi/core/definitions';
import type { Demand } from '@yosegi/core/demand';
import { type Money, type Percent, type Quantity, readExact } from '@yosegi/core/number';
import type { Snapshot } from './coverage.ts';
import { keyOf } from './coverage-keys.ts';

const basisOf = (perRun: 0 | 1): Basis => (perRun === 1 ? 'per-run' : 'per-output');
const quantity = (text: string) => readExact(text) as Quantity;
const money = (text: string) => readExact(text) as Money;

/** Rows by their keys, as they came. */
interface Rows {
  readonly items: ReadonlyMap<string, Snapshot['items'][number]>;
  readonly definitions: ReadonlyMap<string, Snapshot['definitions'][number]>;
  readonly demands: ReadonlyMap<string, Snapshot['demands'][number]>;
  readonly supplies: ReadonlyMap<string, Snapshot['supplies'][number]>;
}

const KINDS = ['items', 'definitions', 'demands', 'supplies'] as const;

/** What the worker and the server reckon with: the rows of a snapshot and of the changes that came after it. */
export class CoverageRows {
  readonly version: string;
  private readonly head: Pick<Snapshot, 'today' | 'workDays' | 'benchMinutes'>;
  private readonly rows: Rows;

  private constructor(snapshot: Snapshot, rows: Rows) {
    this.version = snapshot.version;
    this.head = snapshot;
    this.rows = rows;
  }

  /** @param before what the changes are to; not looked at where the snapshot is whole */
  static of(snapshot: Snapshot, before: CoverageRows | null): CoverageRows {
    const start = snapshot.since === null ? null : before;
    const gone = new Set(snapshot.gone);
    const next = KINDS.map((kind) => {
      const all = new Map<string, unknown>(start?.rows[kind] ?? []);
      for (const key of gone) all.delete(key);
      for (const row of snapshot[kind]) all.set((keyOf[kind] as (row: unknown) => string)(row), row);
      return [kind, all];
    });
    return new CoverageRows(snapshot, Object.fromEntries(next) as unknown as Rows);
  }

  /** @param drafts whether drafts of definitions and of purchase orders count */
  world(drafts = false): World {
    return new World(this.known(), drafts);
  }

  private known(): Known {
    const { items, definitions, demands, supplies } = this.rows;
    const byId = new Map([...items.values()].map((row) => [row[0], itemOf(row)]));
    const decimalsOf = (itemId: number) => byId.get(itemId)?.decimals ?? 0;
    return {
      calendar: { today: this.head.today, workDays: new Set(this.head.workDays) },
      benchMinutes: this.head.benchMinutes,
      items: byId,
      definitions: new Map(
        [...definitions.values()].map((row) => [row.draft ? -row.itemId : row.itemId, definitionOf(row, decimalsOf)]),
      ),
      demands: new Map([...demands].map(([key, row]) => [key, demandOf(row, decimalsOf)])),
      supplies: new Map([...supplies].map(([key, row]) => [key, supplyOf(row)])),
    };
  }
}

/** A world of a snapshot that is whole. */
export const worldOf = (snapshot: Snapshot, drafts = false): World => CoverageRows.of(snapshot, null).world(drafts);

const itemOf = ([id, decimals, averageCost, stock]: Snapshot['items'][number]): KnownItem => ({
  id,
  decimals,
  averageCost: money(averageCost),
  stock: new Map(stock.map(([store, there]) => [store, quantity(there)])),
});

function definitionOf(row: Snapshot['definitions'][number], decimalsOf: (itemId: number) => number): KnownDefinition {
  return {
    itemId: row.itemId,
    isDraft: row.draft,
    benchDays: row.benchDays,
    outputQuantity: quantity(row.output),
    lines: [
      ...row.parts.map(([itemId, amount, perRun, waste, others]) => ({
        kind: 'part' as const,
        itemId,
        basis: basisOf(perRun),
        quantity: quantity(amount),
        waste: readExact(waste) as Percent,
        // Whether it is picked or taken at the end is nothing to coverage.
        taken: 'picked-first' as const,
        decimals: decimalsOf(itemId),
        alternates: alternatesOf(others, decimalsOf),
      })),
      ...row.labour.map(([minutes, perRun, rate]) => ({
        kind: 'labour' as const,
        basis: basisOf(perRun),
        minutes: quantity(minutes),
        ratePerHour: money(rate),
      })),
      ...row.charges.map(([amount, perRun]) => ({
        kind: 'charge' as const,
        basis: basisOf(perRun),
        amount: money(amount),
      })),
    ],
  };
}

const alternatesOf = (others: readonly (readonly [number, string])[], decimalsOf: (itemId: number) => number) =>
  others.map(([itemId, ratio]) => ({ itemId, ratio: quantity(ratio), decimals: decimalsOf(itemId) }));

function demandOf(row: Snapshot['demands'][number], decimalsOf: (itemId: number) => number): Demand {
  return {
    source: { kind: row.kind, id: row.id },
    lineId: row.lineId,
    itemId: row.itemId,
    quantity: quantity(row.quantity),
    decimals: decimalsOf(row.itemId),
    turn: { begun: row.begun, priority: row.priority, wantedOn: row.wantedOn, age: row.age },
    transport: row.transport,
    stores: null,
    alternates: alternatesOf(row.alternates, decimalsOf),
  };
}

const supplyOf = (row: Snapshot['supplies'][number]): KnownSupply => ({
  from: { kind: row.kind, id: row.id },
  itemId: row.itemId,
  quantity: quantity(row.quantity),
  on: row.on,
  ...(row.bench === null ? {} : { bench: row.bench }),
  storeId: null,
  only: row.only === null ? null : { kind: 'order', id: row.only },
  isDraft: row.draft,
  isPlanned: row.planned,
  supplierId: row.supplier,
});
