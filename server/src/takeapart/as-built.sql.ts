import type { Money, Percent, Quantity } from '@yosegi/core/number';
import type { TookOut, WentIn } from '@yosegi/core/takeapart';
import type { Reader } from '../db/database.ts';
import type { Units } from './made-by.sql.ts';
import { finishesOf } from './sql.ts';

/** What really went into units and was taken out again, as far as anybody wrote it down. */
export interface Built {
  readonly wentIn: readonly WentIn[];
  readonly tookOut: readonly TookOut[];
  /** Numbers of the builds that did it, the first first. */
  readonly builds: readonly string[];
  readonly isReworked: boolean;
  /** What went in and never comes back: labour, charges, glue. */
  readonly never: readonly { readonly text: string; readonly cost: Money }[];
}

/** The finishes that made these units or refreshed them, or all of the build that is named. */
async function finishesFor(db: Reader, itemId: number, units: Units, buildId: number | null): Promise<number[]> {
  if (units.lot !== null || units.serials.length > 0)
    return [...(await finishesOf(db, itemId, units.lot, units.serials))];
  if (buildId === null) return [];
  const rows = await db.all<{ id: number }>(
    `SELECT f.document_id AS id FROM finish f WHERE f.build_id = $1
       AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = f.document_id)`,
    [buildId],
  );
  return rows.map(({ id }) => id);
}

/** What is known of how units were built; null where nobody knows. @param buildId the build that somebody named, or that made them */
export async function builtAs(db: Reader, itemId: number, units: Units, buildId: number | null): Promise<Built | null> {
  const documents = JSON.stringify(await finishesFor(db, itemId, units, buildId));
  const rows = await db.all<{
    build_id: number;
    number: string;
    purpose: string | null;
    line_id: number;
    kind: string;
    text: string;
    item_id: number | null;
    name: string | null;
    waste: Percent;
    share: Percent | null;
    back: 0 | 1;
    used: Quantity;
    cost: Money;
    units: Quantity;
  }>(
    `SELECT b.id AS build_id, b.number, d.purpose, l.id AS line_id, l.kind, l.text, l.item_id, i.name, l.waste, l.share,
       l.kind = 'part' AND (l.comes_back = 1 OR l.added_by IS NOT NULL) AS back, sum(f.actual) AS used, sum(f.cost) AS cost,
       (SELECT sum(n.good + n.rejected) FROM finish n WHERE n.build_id = b.id
         AND n.document_id IN (SELECT value FROM json_each($1))) AS units
     FROM finish_line f JOIN build_line l ON l.id = f.build_line_id JOIN build b ON b.id = l.build_id
     LEFT JOIN revision r ON r.id = b.revision_id LEFT JOIN definition d ON d.id = r.definition_id
     LEFT JOIN item i ON i.id = l.item_id
     WHERE f.document_id IN (SELECT value FROM json_each($1))
     GROUP BY l.id ORDER BY min(f.document_id), l.position`,
    [documents],
  );
  // The unit that a rework takes in is what is taken apart.
  const parts = rows.filter((row) => row.item_id !== itemId);
  if (parts.length === 0) return null;
  const charges = await db.all<{ text: string; cost: Money }>(
    `SELECT l.text, sum(v.amount) AS cost FROM document_value v JOIN build_line l ON l.id = v.line_id
     WHERE v.kind = 'charge' AND v.document_id IN (SELECT value FROM json_each($1)) GROUP BY l.id`,
    [documents],
  );
  const tookOut = await db.all<{ item_id: number; quantity: Quantity; units: Quantity }>(
    `SELECT o.item_id, sum(o.quantity) AS quantity, sum(f.good + f.rejected) AS units FROM finish_out o
     JOIN finish f ON f.document_id = o.document_id
     WHERE o.went <> 'back-in' AND o.document_id IN (SELECT value FROM json_each($1)) GROUP BY o.item_id`,
    [documents],
  );
  return {
    wentIn: parts.flatMap(({ line_id, item_id, used, cost, units: made, waste, share, back }) =>
      item_id === null
        ? []
        : [{ lineId: line_id, itemId: item_id, used, cost, units: made, waste, share, comesBack: back === 1 }],
    ),
    tookOut: tookOut.map(({ item_id, ...out }) => ({ itemId: item_id, ...out })),
    builds: [...new Set(rows.map(({ number }) => number))],
    isReworked: rows.some(({ purpose }) => purpose === 'rework'),
    never: [
      ...parts
        .filter(({ back, used }) => back === 0 && used > 0)
        .map(({ name, text, cost }) => ({ text: name ?? text, cost })),
      ...charges,
    ],
  };
}

/** The rework that refreshed one of these units last after a build made it; undefined where none did. */
export const reworkSince = (db: Reader, itemId: number, serials: readonly string[]) =>
  db.one<{ number: string; code: string }>(
    `SELECT b.number, s.code FROM movement m JOIN document d ON d.id = m.document_id AND d.kind = 'finish'
     JOIN finish f ON f.document_id = d.id JOIN build b ON b.id = f.build_id JOIN revision r ON r.id = b.revision_id
     JOIN definition n ON n.id = r.definition_id AND n.purpose = 'rework' JOIN serial s ON s.id = m.serial_id
     WHERE m.item_id = $1 AND m.quantity > 0 AND s.code IN (SELECT value FROM json_each($2))
       AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) ORDER BY d.id DESC LIMIT 1`,
    [itemId, JSON.stringify(serials)],
  );
