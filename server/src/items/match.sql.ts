import type { Match } from '@yosegi/contract';
import type { Reader } from '../db/database.ts';
import { containing } from '../db/pages.ts';
import { itemRows, toItem } from './sql.ts';

const MOST_LIKELY = 6;

/**
 * Which items texts mean. A whole code, barcode, name or supplier's code decides when it is one item's alone; otherwise
 * a part of code or name does when only one item has it. What stays open comes with the likely ones.
 */
export async function matchItems(db: Reader, texts: readonly string[]): Promise<Match[]> {
  const asked = texts.map((raw) => raw.trim());
  const exact = await exactly(db, asked);
  const open = [...asked.entries()].filter(([at, text]) => text !== '' && !exact.has(at));
  const partial = await partly(db, new Map(open));
  const found = asked.map((_, at) => exact.get(at) ?? partial.get(at) ?? []);
  const items = await itemRows(db, found.flat());
  return texts.map((text, at) => {
    const likely = (found[at] ?? []).flatMap((id) => items.get(id) ?? []).map(toItem);
    return { text, item: likely.length === 1 ? (likely[0] ?? null) : null, likely };
  });
}

/** By the place of each text the items that it names whole: by code, else by barcode, by name, or by a supplier's code. */
async function exactly(db: Reader, texts: readonly string[]): Promise<ReadonlyMap<number, number[]>> {
  const rows = await db.all<{ at: number; by: number; id: number }>(
    `WITH text AS (SELECT key AS at, value AS said FROM json_each($1) WHERE value <> ''), hit AS (
       SELECT t.at, 0 AS "by", i.id FROM text t CROSS JOIN item i ON i.code = t.said COLLATE NOCASE
       UNION ALL SELECT t.at, 1, i.id FROM text t CROSS JOIN item i ON i.barcode = t.said
       UNION ALL SELECT t.at, 2, i.id FROM text t JOIN item i ON i.name = t.said COLLATE NOCASE
       UNION ALL SELECT t.at, 3, s.item_id FROM text t JOIN item_supplier s ON s.code = t.said COLLATE NOCASE)
     SELECT DISTINCT h.at, h."by", h.id FROM hit h JOIN item i ON i.id = h.id WHERE i.archived_at IS NULL
     ORDER BY h.at, h."by", i.code COLLATE NOCASE`,
    [JSON.stringify(texts)],
  );
  const found = new Map<number, number[]>();
  const decidedBy = new Map<number, number>();
  for (const { at, by, id } of rows) {
    if ((decidedBy.get(at) ?? by) !== by) continue;
    decidedBy.set(at, by);
    const known = found.get(at) ?? [];
    if (known.length < MOST_LIKELY) found.set(at, [...known, id]);
  }
  return found;
}

/** So many texts are looked for with one question; a compound of SQLite has at most 500 parts. */
const TEXTS_AT_ONCE = 50;

/** By the place of each text the items whose code or name has all its words. */
async function partly(db: Reader, texts: ReadonlyMap<number, string>): Promise<ReadonlyMap<number, number[]>> {
  const found = new Map<number, number[]>();
  const asked = [...texts].map(([at, text]) => ({ at, words: wordsOf(text) })).filter(({ words }) => words.length > 0);
  for (let from = 0; from < asked.length; from += TEXTS_AT_ONCE) {
    const bind: string[] = [];
    const parts = asked.slice(from, from + TEXTS_AT_ONCE).map(({ at, words }) => {
      const conditions = words.map((word) => {
        const nth = bind.push(containing(word));
        return `(i.code LIKE $${nth} ESCAPE '\\' OR i.name LIKE $${nth} ESCAPE '\\')`;
      });
      return `SELECT * FROM (SELECT ${at} AS at, i.id FROM item i WHERE i.archived_at IS NULL AND ${conditions.join(' AND ')}
        ORDER BY length(i.name), i.code LIMIT ${MOST_LIKELY})`;
    });
    const rows = await db.all<{ at: number; id: number }>(parts.join(' UNION ALL '), bind);
    for (const { at, id } of rows) found.set(at, [...(found.get(at) ?? []), id]);
  }
  return found;
}

const wordsOf = (text: string): string[] =>
  text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .slice(0, 6);
