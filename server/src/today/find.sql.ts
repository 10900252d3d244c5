import type { Found } from '@yosegi/contract';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import { containing } from '../db/pages.ts';

/** Read so many, to arrange and cut. */
const MOST_READ = 80;
const MOST_SHOWN = 24;
/** The most words of a question that are looked at. */
const MOST_WORDS = 6;
/** Of one thing: builds that are open, and that are not. */
const MOST_OPEN = 3;
const MOST_OVER = 1;

interface FoundRow extends Omit<Found, 'stock' | 'open'> {
  open: number;
  quantity: number | null;
  unit: string | null;
  /** The item it is, makes or is made of; null for everything else. */
  item_id: number | null;
}

/**
 * What has every word of a text in its code, its name or what else it is known by, thing by thing: an item with its stock, then its definitions, then its builds, open ones and newest
 * first; everything else after its kind. The thing whose code fits best comes first.
 */
export async function find(db: Reader, text: string): Promise<Found[]> {
  if (text.trim() === '') return [];
  const bind: string[] = [text, containing(text).slice(1)];
  // Every word has to be somewhere in it; which comes first does not matter.
  const words = text.split(/[\s,;]+/).filter((word) => word !== '');
  const holds = words.slice(0, MOST_WORDS).map((word) => {
    const put = `$${bind.push(containing(word))}`;
    return `(code LIKE ${put} ESCAPE '\\' OR name LIKE ${put} ESCAPE '\\' OR also LIKE ${put} ESCAPE '\\')`;
  });
  const rows = await db.all<FoundRow>(
    `SELECT kind, id, code, name, tile, state, open, item_id, quantity, unit FROM (
       SELECT 'item' AS kind, i.id, i.code, i.name, i.code AS tile, 1 AS turn, i.barcode, NULL AS state, 1 AS open, i.id AS item_id,
         ifnull((SELECT quantity + returned_quantity FROM item_stock WHERE item_id = i.id), 0) AS quantity, u.code AS unit, '' AS also
         FROM item i JOIN unit u ON u.id = i.unit_id WHERE i.archived_at IS NULL
       UNION ALL SELECT 'definition', d.id, i.code, i.name, i.code, 2, NULL, d.purpose, 1, i.id, NULL, NULL, ''
         FROM definition d JOIN item i ON i.id = d.item_id
       UNION ALL SELECT 'build', b.id, b.number, i.name, i.code, 3, NULL, b.state, b.state IN ('planned', 'on-bench'), i.id,
         b.quantity, u.code, i.code FROM build b JOIN item i ON i.id = b.item_id JOIN unit u ON u.id = i.unit_id
       UNION ALL SELECT 'order', o.id, o.number, c.name, NULL, 4, NULL, o.state, o.state <> 'cancelled' AND EXISTS
         (SELECT 1 FROM order_line l WHERE l.order_id = o.id AND l.shipped + l.dropped < l.quantity), NULL, NULL, NULL,
         o.reference || ' ' || o.job_tag FROM sales_order o JOIN customer c ON c.id = o.customer_id
       UNION ALL SELECT 'purchase', o.id, o.number, s.name, NULL, 4, NULL, o.state, o.state NOT IN ('closed', 'cancelled'),
         NULL, NULL, NULL, o.reference || ' ' || o.job_tag FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
       UNION ALL SELECT 'repair', r.id, r.number, c.name, NULL, 4, NULL, r.state, r.state <> 'given-back', NULL, NULL, NULL,
         i.name || ' ' || i.code || ' ' || ifnull((SELECT code FROM serial WHERE id = r.serial_id), '') || ' ' || r.job_tag
         FROM repair r JOIN customer c ON c.id = r.customer_id JOIN item i ON i.id = r.item_id
       UNION ALL SELECT 'return', r.id, r.number, c.name, NULL, 4, NULL, NULL, 1, NULL, NULL, NULL, r.remark
         FROM goods_return r JOIN customer c ON c.id = r.customer_id
       UNION ALL SELECT 'parcel', p.order_id, p.number, c.name, NULL, 5, NULL, NULL, 1, NULL, NULL, NULL, '' FROM parcel p
         JOIN sales_order o ON o.id = p.order_id JOIN customer c ON c.id = o.customer_id
       UNION ALL SELECT 'customer', id, code, name, NULL, 5, NULL, NULL, 1, NULL, NULL, NULL, contact || ' ' || email FROM customer
       UNION ALL SELECT 'supplier', id, code, name, NULL, 5, NULL, NULL, 1, NULL, NULL, NULL, email FROM supplier
       UNION ALL SELECT 'job', 1, tag, 'Job', NULL, 5, NULL, NULL, 1, NULL, NULL, NULL, '' FROM
         (SELECT job_tag AS tag FROM sales_order WHERE job_tag <> '' UNION SELECT job_tag FROM build WHERE job_tag <> '')
       UNION ALL SELECT 'serial', s.id, s.code, i.name, NULL, 6, NULL, NULL, 1, NULL, NULL, NULL, i.code
         FROM serial s JOIN item i ON i.id = s.item_id
       UNION ALL SELECT 'lot', l.id, l.code, i.name, NULL, 6, NULL, NULL, 1, NULL, NULL, NULL, i.code
         FROM lot l JOIN item i ON i.id = l.item_id
       UNION ALL SELECT 'document', d.id, d.number, d.kind, NULL, 7, NULL, NULL, 0, NULL, NULL, NULL, '' FROM document d
     ) WHERE ${holds.join(' AND ')} OR barcode = $1
     ORDER BY code <> $1 COLLATE NOCASE, ifnull(tile, code) NOT LIKE $2 ESCAPE '\\', turn, open DESC,
       CASE WHEN turn < 3 OR turn = 5 THEN code END, CASE WHEN turn < 3 THEN id ELSE -id END LIMIT ${MOST_READ}`,
    bind,
  );
  return arranged(rows)
    .slice(0, MOST_SHOWN)
    .map(({ item_id: _, open, quantity, unit, ...row }) => ({
      ...row,
      open: open === 1,
      stock: quantity === null || unit === null ? null : { quantity: decimal(quantity), unit },
    }));
}

/** Rows of one thing beside each other, in the turn in which the first of each was found. */
function arranged(rows: readonly FoundRow[]): FoundRow[] {
  const things = new Map<string, FoundRow[]>();
  for (const row of rows) {
    const thing = row.item_id === null ? row.kind : `item ${row.item_id}`;
    things.set(thing, [...(things.get(thing) ?? []), row]);
  }
  return [...things.values()].flatMap((thing) => {
    const of = (kind: Found['kind'], open = 1) => thing.filter((row) => row.kind === kind && row.open === open);
    if (thing[0]?.item_id == null) return thing;
    const builds = [...of('build').slice(0, MOST_OPEN), ...of('build', 0).slice(0, MOST_OVER)];
    const own = [...of('item'), ...of('definition'), ...builds];
    // A number that was typed whole is what is meant.
    const [meant] = thing;
    return own.includes(meant) ? own : [meant, ...own];
  });
}
