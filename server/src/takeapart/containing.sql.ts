import type { Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';

/** The most products that are offered for one part. */
const MOST = 100;

/** Products that are free on shelves and made of these parts, by the revision in use; what holds most of a part first. */
export const productsContaining = (db: Reader, partIds: readonly number[]) =>
  db.all<{ itemId: number; code: string; name: string; free: Quantity; partId: number; each: Quantity }>(
    `SELECT * FROM (
      SELECT i.id AS itemId, i.code, i.name, l.item_id AS partId, CAST(sum(l.amount) * 1000000 / r.output_quantity AS INTEGER) AS each,
        ifnull((SELECT sum(quantity) FROM usable WHERE item_id = i.id), 0)
          - ifnull((SELECT sum(quantity) FROM demand WHERE item_id = i.id), 0) AS free
      FROM revision_line l JOIN revision r ON r.id = l.revision_id AND r.state = 'in-use'
      JOIN definition d ON d.id = r.definition_id AND d.purpose = 'build' JOIN item i ON i.id = d.item_id
      WHERE l.kind = 'part' AND l.comes_back = 1 AND l.basis = 'per-output' AND l.item_id IN (SELECT value FROM json_each($1))
      GROUP BY i.id, l.item_id)
     WHERE free > 0 AND each > 0 ORDER BY partId, each DESC, code LIMIT ${MOST}`,
    [JSON.stringify(partIds)],
  );
