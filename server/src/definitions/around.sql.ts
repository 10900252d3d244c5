import type { Reader, Writer } from '../db/database.ts';

/** Whether any of an item stands anywhere, also below zero. */
export const standsSomewhere = async (db: Reader, itemId: number) =>
  (await db.one('SELECT 1 FROM balance WHERE item_id = $1 AND quantity <> 0 LIMIT 1', [itemId])) !== undefined;

/** The numbers of builds of a definition that are not over. */
export async function openBuildsOf(db: Reader, definitionId: number): Promise<string[]> {
  const builds = await db.all<{ number: string }>(
    `SELECT b.number FROM build b JOIN revision r ON r.id = b.revision_id
     WHERE r.definition_id = $1 AND b.state IN ('planned', 'on-bench') ORDER BY b.id LIMIT 20`,
    [definitionId],
  );
  return builds.map(({ number }) => number);
}

/** The codes of products that an item is a part of, but for one definition. */
export async function partOf(db: Reader, itemId: number, exceptId: number): Promise<string[]> {
  const products = await db.all<{ code: string }>(
    `SELECT DISTINCT i.code FROM revision_line l JOIN revision r ON r.id = l.revision_id AND r.state <> 'retired'
     JOIN definition d ON d.id = r.definition_id AND d.purpose <> 'record' JOIN item i ON i.id = d.item_id
     WHERE l.item_id = $1 AND d.id <> $2 ORDER BY i.code LIMIT 20`,
    [itemId, exceptId],
  );
  return products.map(({ code }) => code);
}

/** Whether anything may stand in for a part in a definition. */
export const hasAlternates = async (db: Reader, definitionId: number) =>
  (await db.one(
    `SELECT 1 FROM revision_line_alternate a JOIN revision_line l ON l.id = a.line_id
     JOIN revision r ON r.id = l.revision_id AND r.state <> 'retired' WHERE r.definition_id = $1 LIMIT 1`,
    [definitionId],
  )) !== undefined;

/** The same of one revision. */
export const listsAlternates = async (db: Reader, revisionId: number) =>
  (await db.one(
    'SELECT 1 FROM revision_line_alternate a JOIN revision_line l ON l.id = a.line_id WHERE l.revision_id = $1 LIMIT 1',
    [revisionId],
  )) !== undefined;

/** One of these items that is a kit packed per order. */
export const packedAmong = (db: Reader, itemIds: readonly number[]) =>
  db.one<{ item_id: number; code: string }>(
    `SELECT d.item_id, i.code FROM definition d JOIN item i ON i.id = d.item_id
     WHERE d.made = 'packed-per-order' AND d.item_id IN (SELECT value FROM json_each($1)) LIMIT 1`,
    [JSON.stringify(itemIds)],
  );

/** What every other product is made of, by definitions that are not retired. */
export const linksBeside = (db: Reader, productId: number) =>
  db.all<{ item_id: number; part_id: number }>(
    `SELECT DISTINCT d.item_id, l.item_id AS part_id FROM definition d
     JOIN revision r ON r.definition_id = d.id AND r.state <> 'retired'
     JOIN revision_line l ON l.revision_id = r.id WHERE l.item_id IS NOT NULL AND d.purpose = 'build' AND d.item_id <> $1`,
    [productId],
  );

/** Takes an item out of what may stand in on the lines of a revision. */
export const dropAlternate = (tx: Writer, itemId: number, revisionId: number) =>
  tx.run(
    `DELETE FROM revision_line_alternate WHERE item_id = $1
         AND line_id IN (SELECT id FROM revision_line WHERE revision_id = $2)`,
    [itemId, revisionId],
  );
