import type { CoverSource } from '@yosegi/contract';
import type { Pegged } from '@yosegi/core/demand';
import type { Reader } from '../db/database.ts';

/** What people know something by. */
export interface Named {
  readonly id: number;
  readonly number: string;
  readonly who: string;
}

/** The lines of a purchase order. */
export async function linesOf(db: Reader, orderId: number): Promise<Set<number>> {
  const rows = await db.all<{ id: number }>('SELECT id FROM purchase_order_line WHERE order_id = $1', [orderId]);
  return new Set(rows.map(({ id }) => id));
}

/** Stores, orders by their lines and builds, as people know them. */
export async function suppliesOf(db: Reader, needing: readonly Pegged[]): Promise<Map<string, Named>> {
  const froms = needing.flatMap(({ given }) => given.map(({ supply }) => supply.from));
  const ids = (kind: string) => JSON.stringify(froms.flatMap((from) => (from.kind === kind ? from.id : [])));
  const rows = await db.all<Named & { key: string }>(
    `SELECT 'shelf' || id AS key, id, name AS number, '' AS who FROM store WHERE id IN (SELECT value FROM json_each($1))
     UNION ALL SELECT 'purchase' || l.id, o.id, o.number, '' FROM purchase_order_line l
       JOIN purchase_order o ON o.id = l.order_id WHERE l.id IN (SELECT value FROM json_each($2))
     UNION ALL SELECT 'build' || id, id, number, '' FROM build WHERE id IN (SELECT value FROM json_each($3))`,
    ['shelf', 'purchase', 'build'].map(ids),
  );
  return new Map(rows.map(({ key, ...named }) => [key, named]));
}

/** Builds, orders and lines of orders to suppliers, by kind and id. */
export async function sourcesOf(
  db: Reader,
  sources: readonly { readonly kind: string; readonly id: number }[],
): Promise<Map<string, Named & { readonly kind: CoverSource['kind'] }>> {
  const ids = (kind: string) => JSON.stringify(sources.flatMap((source) => (source.kind === kind ? source.id : [])));
  const rows = await db.all<Named & { kind: CoverSource['kind'] }>(
    `SELECT 'build' AS kind, b.id, b.number, i.name AS who FROM build b JOIN item i ON i.id = b.item_id
       WHERE b.id IN (SELECT value FROM json_each($1))
     UNION ALL SELECT 'order', o.id, o.number, c.name FROM sales_order o
       JOIN customer c ON c.id = o.customer_id WHERE o.id IN (SELECT value FROM json_each($2))
     UNION ALL SELECT 'purchase', l.id, o.number, s.name FROM purchase_order_line l
       JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
       WHERE l.id IN (SELECT value FROM json_each($3))`,
    ['build', 'order', 'purchase'].map(ids),
  );
  return new Map(rows.map((row) => [`${row.kind}${row.id}`, row]));
}
