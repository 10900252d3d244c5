import type { Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';

/** What may stand in for parts of builds, by line: what is listed in the revision they took. */
export const standInsOf = (db: Reader, lineIds: readonly number[]) =>
  db.all<{ line_id: number; item_id: number; ratio: Quantity; code: string; name: string; there: Quantity }>(
    `SELECT a.line_id, a.item_id, a.ratio, i.code, i.name,
       ifnull((SELECT sum(quantity) FROM usable WHERE item_id = a.item_id), 0) AS there
     FROM demand_alternate a JOIN item i ON i.id = a.item_id
     WHERE a.kind = 'build' AND a.line_id IN (SELECT value FROM json_each($1)) ORDER BY a.line_id, a.position`,
    [JSON.stringify(lineIds)],
  );

/** The same for parts of kits on orders, where the kit may be swapped in and nothing of the part stands in a parcel yet. */
export const swapsOf = (db: Reader, partIds: readonly number[]) =>
  db.all<{ line_id: number; item_id: number; ratio: Quantity; code: string; name: string; there: Quantity }>(
    `SELECT p.id AS line_id, a.item_id, a.ratio, i.code, i.name,
       ifnull((SELECT sum(quantity) FROM usable WHERE item_id = a.item_id), 0) AS there
     FROM order_part p JOIN order_line l ON l.id = p.line_id
     JOIN definition d ON d.item_id = l.item_id AND d.purpose = 'build' AND d.on_order = 'swaps'
     JOIN revision_line r ON r.revision_id = l.revision_id AND r.position = p.position
     JOIN revision_line_alternate a ON a.line_id = r.id JOIN item i ON i.id = a.item_id
     WHERE p.id IN (SELECT value FROM json_each($1)) AND p.packed = 0 AND l.shipped = 0 AND a.item_id <> p.item_id
       AND i.archived_at IS NULL ORDER BY p.id, a.position`,
    [JSON.stringify(partIds)],
  );

/** How much of an item does for one of the part of a build's line; null where it is not listed as an alternate. */
export const ratioOf = async (db: Reader, lineId: number, itemId: number): Promise<Quantity | null> =>
  (
    await db.one<{ ratio: Quantity }>(
      `SELECT a.ratio FROM build_line l JOIN build b ON b.id = l.build_id
       JOIN revision_line r ON r.revision_id = b.revision_id AND r.position = l.position
       JOIN revision_line_alternate a ON a.line_id = r.id WHERE l.id = $1 AND a.item_id = $2`,
      [lineId, itemId],
    )
  )?.ratio ?? null;
