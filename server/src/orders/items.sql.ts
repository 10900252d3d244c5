import type { PromisedTo } from '@yosegi/contract';
import { sourceKey } from '@yosegi/core/demand';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import { readPegging } from '../demand/index.ts';
import { earnedBy } from '../earned/index.ts';

/** To whom an item is promised, in turn, and what each of them gets of it as everything stands. */
export async function promisedTo(db: Reader, itemId: number, today: string): Promise<PromisedTo[]> {
  const shown = (await readPegging(db, today)).pegged.filter(
    ({ demand }) => demand.itemId === itemId && (demand.source.kind === 'build' || demand.source.kind === 'order'),
  );
  const names = await db.all<{ kind: 'build' | 'order'; id: number; number: string; who: string }>(
    `SELECT 'build' AS kind, b.id, b.number, i.name AS who FROM build b JOIN item i ON i.id = b.item_id
       WHERE b.id IN (SELECT value FROM json_each($1))
     UNION ALL SELECT 'order', o.id, o.number, c.name FROM sales_order o JOIN customer c ON c.id = o.customer_id
       WHERE o.id IN (SELECT value FROM json_each($2))`,
    ['build', 'order'].map((kind) =>
      JSON.stringify(shown.flatMap(({ demand }) => (demand.source.kind === kind ? demand.source.id : []))),
    ),
  );
  const nameOf = new Map(names.map((row) => [`${row.kind}:${row.id}`, row]));
  return shown.flatMap(({ demand, now, completeOn }) => {
    const name = nameOf.get(sourceKey(demand.source));
    if (!name) return [];
    return {
      ...name,
      quantity: decimal(demand.quantity),
      now: decimal(now),
      wantedOn: demand.turn.wantedOn,
      completeOn,
    };
  });
}

/** The most customers of an item that are listed. */
const MOST_CUSTOMERS = 12;

/** What was shipped of an item and came back, for how much, and what it cost; the customer who brought most first. */
export async function salesOf(db: Reader, itemId: number) {
  const { customers, ...all } = await earnedBy(db, 'item', itemId);
  return { ...all, customers: customers.sort((a, b) => Number(b.earned) - Number(a.earned)).slice(0, MOST_CUSTOMERS) };
}
