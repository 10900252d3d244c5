import type { Found } from '@yosegi/contract';
import { dayAfter } from '@yosegi/core/days';
import type { Reader } from '../db/database.ts';
import { containing } from '../db/pages.ts';

/** A lot expires soon when its day is no further than this. */
const SOON_DAYS = 30;

/** How many deliveries to be received and lots that expire soon there are. */
export async function needsAnEye(db: Reader, today: string) {
  const eye = await db.one<{ announced: number; expiring: number }>(
    `SELECT (SELECT count(*) FROM mail WHERE kind = 'despatch-advice' AND document_id IS NULL) AS announced,
       (SELECT count(*) FROM lot l WHERE best_before <= $1
         AND EXISTS (SELECT 1 FROM balance WHERE lot_id = l.id AND quantity > 0)) AS expiring`,
    [dayAfter(today, SOON_DAYS)],
  );
  return eye ?? { announced: 0, expiring: 0 };
}

/** The best few of each kind; an exact code or number first. */
export async function find(db: Reader, text: string): Promise<Found[]> {
  if (text === '') return [];
  return db.all<Found>(
    `SELECT kind, id, code, name, tile FROM (
       SELECT 'item' AS kind, id, code, name, code AS tile, 1 AS turn, barcode FROM item WHERE archived_at IS NULL
       UNION ALL SELECT 'definition', d.id, i.code, i.name, i.code, 2, NULL FROM definition d JOIN item i ON i.id = d.item_id
       UNION ALL SELECT 'build', b.id, b.number, i.name, i.code, 3, NULL FROM build b JOIN item i ON i.id = b.item_id
       UNION ALL SELECT 'purchase', o.id, o.number, s.name, NULL, 4, NULL FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
       UNION ALL SELECT 'order', o.id, o.number, c.name, NULL, 4, NULL FROM sales_order o JOIN customer c ON c.id = o.customer_id
       UNION ALL SELECT 'parcel', p.order_id, p.number, c.name, NULL, 5, NULL FROM parcel p
         JOIN sales_order o ON o.id = p.order_id JOIN customer c ON c.id = o.customer_id
       UNION ALL SELECT 'customer', id, code, name, NULL, 5, NULL FROM customer
       UNION ALL SELECT 'supplier', id, code, name, NULL, 5, NULL FROM supplier
       UNION ALL SELECT 'document', d.id, d.number, d.kind, NULL, 6, NULL FROM document d
     ) WHERE code LIKE $1 ESCAPE '\\' OR name LIKE $1 ESCAPE '\\' OR barcode = $2
     ORDER BY code <> $2 COLLATE NOCASE, code NOT LIKE $3 ESCAPE '\\', turn, code LIMIT 20`,
    [containing(text), text, containing(text).slice(1)],
  );
}
