import { builtCosts, type CostKnown, type Line } from '@yosegi/core/definitions';
import { groupBy } from '@yosegi/core/lists';
import type { Money, Percent, Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { type Costs, ownCostOf } from './costs.ts';

interface MadeLine {
  item_id: number;
  output_quantity: Quantity;
  kind: 'part' | 'labour' | 'charge';
  part_id: number | null;
  decimals: number | null;
  basis: 'per-output' | 'per-run';
  amount: number;
  waste: Percent;
  per_hour: Money | null;
}

/** Definitions are never deeper than this by far. */
const MOST_LEVELS = 20;

/** Says of items that are made and of which nothing is in stock what they cost by their own bills of materials in use. */
export async function withBuiltCosts<T extends Costs & { id: number }>(
  db: Reader,
  rows: readonly T[],
): Promise<readonly T[]> {
  const asked = rows.filter(({ quantity }) => quantity <= 0);
  if (asked.length === 0) return rows;
  // Those that are asked about may be parts of one another.
  const known = new Map(asked.map((row): [number, CostKnown] => [row.id, { own: ownCostOf(row), revision: null }]));
  let next: readonly number[] = asked.map(({ id }) => id);
  for (let level = 0; next.length > 0 && level < MOST_LEVELS; level += 1) {
    const lines = groupBy(await linesOf(db, next), ({ item_id }) => item_id);
    const costs = await costsOf(db, [...new Set([...lines.values()].flat().flatMap(({ part_id }) => part_id ?? []))]);
    for (const id of next) {
      const own = lines.get(id);
      const before = known.get(id);
      const [first] = own ?? [];
      const revision = own && first ? { outputQuantity: first.output_quantity, lines: own.map(toLine) } : null;
      known.set(id, { own: before?.own ?? null, revision });
    }
    next = costs.flatMap((row) => {
      if (known.has(row.id)) return [];
      known.set(row.id, { own: ownCostOf(row), revision: null });
      return row.quantity <= 0 ? row.id : [];
    });
  }
  const built = builtCosts((id) => known.get(id));
  for (const row of rows) if (row.quantity <= 0) row.built = built(row.id);
  return rows;
}

const linesOf = (db: Reader, ids: readonly number[]) =>
  db.all<MadeLine>(
    `SELECT d.item_id, r.output_quantity, l.kind, l.item_id AS part_id, u.decimals, l.basis, l.amount, l.waste, t.per_hour
     FROM definition d JOIN revision r ON r.definition_id = d.id AND r.state = 'in-use' JOIN revision_line l ON l.revision_id = r.id
     LEFT JOIN item i ON i.id = l.item_id LEFT JOIN unit u ON u.id = i.unit_id LEFT JOIN rate t ON t.id = l.rate_id
     WHERE d.purpose = 'build' AND l.kind <> 'note' AND d.item_id IN (SELECT value FROM json_each($1)) ORDER BY l.position`,
    [JSON.stringify(ids)],
  );

const costsOf = (db: Reader, ids: readonly number[]) =>
  db.all<Costs & { id: number }>(
    `SELECT i.id, i.latest_cost, i.standard_cost, ifnull(s.quantity, 0) AS quantity, ifnull(s.value, 0) AS value,
       ifnull(s.last_cost, 0) AS last_cost
     FROM item i LEFT JOIN item_stock s ON s.item_id = i.id WHERE i.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
  );

function toLine(row: MadeLine): Line {
  const { kind, basis, amount } = row;
  if (kind === 'labour') return { kind, basis, minutes: amount as Quantity, ratePerHour: row.per_hour ?? (0 as Money) };
  if (kind === 'charge') return { kind, basis, amount: amount as Money };
  return {
    kind,
    basis,
    itemId: row.part_id ?? 0,
    quantity: amount as Quantity,
    waste: row.waste,
    taken: 'picked-first',
    decimals: row.decimals ?? 0,
  };
}
