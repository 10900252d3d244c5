import type { Match } from '@yosegi/contract';
import type { Reader } from '../db/database.ts';
import { containing } from '../db/pages.ts';
import { ITEM_SQL, type ItemRow, toItem } from './sql.ts';

const MOST_LIKELY = 6;

/**
 * Which items texts mean. A whole code, barcode, name or supplier's code decides when it is one item's alone; otherwise
 * a part of code or name does when only one item has it. What stays open comes with the likely ones.
 */
export async function matchItems(db: Reader, texts: readonly string[]): Promise<Match[]> {
  const matches: Match[] = [];
  for (const raw of texts) {
    const text = raw.trim();
    const exact = text === '' ? [] : await exactly(db, text);
    const likely = exact.length > 0 || text === '' ? exact : await partly(db, text);
    const items = likely.map(toItem);
    matches.push({ text: raw, item: items.length === 1 ? (items[0] ?? null) : null, likely: items });
  }
  return matches;
}

async function exactly(db: Reader, text: string): Promise<ItemRow[]> {
  const by = [
    'i.code = $1 COLLATE NOCASE',
    'i.barcode = $1',
    'i.name = $1 COLLATE NOCASE',
    'i.id IN (SELECT item_id FROM item_supplier WHERE code = $1 COLLATE NOCASE)',
  ];
  for (const condition of by) {
    const rows = await db.all<ItemRow>(
      `${ITEM_SQL} WHERE i.archived_at IS NULL AND ${condition} ORDER BY i.code COLLATE NOCASE LIMIT ${MOST_LIKELY}`,
      [text],
    );
    if (rows.length > 0) return rows;
  }
  return [];
}

/** Items whose code or name has all the words of the text. */
async function partly(db: Reader, text: string): Promise<ItemRow[]> {
  const words = text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .slice(0, 6);
  if (words.length === 0) return [];
  const conditions = words.map(
    (_, index) => `(i.code LIKE $${index + 1} ESCAPE '\\' OR i.name LIKE $${index + 1} ESCAPE '\\')`,
  );
  return db.all<ItemRow>(
    `${ITEM_SQL} WHERE i.archived_at IS NULL AND ${conditions.join(' AND ')} ORDER BY length(i.name), i.code LIMIT ${MOST_LIKELY}`,
    words.map(containing),
  );
}
