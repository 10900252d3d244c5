import type { StockThen } from '@yosegi/contract';
import { SCALE } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import { startOf } from '../command/clock.ts';
import type { QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { containing, page } from '../db/pages.ts';

/**
 * What each item came to at the end of a day: every movement until then added up, or what is there now less every movement
 * since, whichever is shorter. Both come to the same, because what is kept beside the ledger equals it.
 */
const UNTIL = `SELECT m.item_id, sum(m.quantity) AS quantity, sum(m.value) AS value
  FROM document d JOIN movement m ON m.document_id = d.id WHERE d.at < $1 GROUP BY m.item_id`;
const SINCE = `SELECT s.item_id, s.quantity + s.returned_quantity - ifnull(m.quantity, 0) AS quantity,
    s.value + s.returned_value - ifnull(m.value, 0) AS value
  FROM item_stock s LEFT JOIN (SELECT m.item_id, sum(m.quantity) AS quantity, sum(m.value) AS value
    FROM document d JOIN movement m ON m.document_id = d.id WHERE d.at >= $1 GROUP BY m.item_id) m ON m.item_id = s.item_id`;

/** What stood where the ledger says at the end of a day. */
export async function stockOn(db: Reader, query: QueryOf<'stockOn'>) {
  const before = startOf(query.day, 1);
  const documents = await db.one<{ since: number; known: number }>(
    'SELECT (SELECT count(*) FROM document WHERE at >= $1) AS since, (SELECT count(*) FROM document) AS known',
    [before],
  );
  const shorter = documents && documents.since * 2 < documents.known ? SINCE : UNTIL;
  const rows = await db.all<Omit<StockThen, 'quantity' | 'value'> & { quantity: number; value: number } & Total>(
    `WITH t AS MATERIALIZED (${shorter})
     SELECT i.id AS itemId, i.code, i.name, u.code AS unit, u.decimals, t.quantity, t.value,
       ${TOTAL('t', 'value')} FROM t
     JOIN item i ON i.id = t.item_id JOIN unit u ON u.id = i.unit_id
     WHERE (t.quantity <> 0 OR t.value <> 0) AND i.code > $2 COLLATE NOCASE
       AND (i.code LIKE $3 ESCAPE '\\' OR i.name LIKE $3 ESCAPE '\\')
     ORDER BY i.code COLLATE NOCASE LIMIT $4`,
    [before, query.cursor ?? '', containing(query.q ?? ''), query.limit + 1],
  );
  const { rows: shown, next } = page(rows, query.limit, (row) => row.code);
  const total = rows[0] ? totalOf(rows[0]) : await totalOn(db, shorter, before);
  return {
    rows: shown.map(({ whole: _, rest: _rest, ...row }) => ({
      ...row,
      quantity: decimal(row.quantity),
      value: decimal(row.value),
    })),
    next,
    day: query.day,
    value: decimal(total),
  };
}

/** What all stock came to, where no item of the page can tell. */
const totalOn = async (db: Reader, sums: string, before: string): Promise<bigint> => {
  const total = await db.one<Total>(`WITH t AS MATERIALIZED (${sums}) SELECT ${TOTAL('t', 'value')}`, [before]);
  return total ? totalOf(total) : 0n;
};

/** A sum in two parts: whole amounts and the millionths that remain, because all of it may not fit into one number. */
interface Total {
  readonly whole: number;
  readonly rest: number;
}
const TOTAL = (from: string, column: string) => `(SELECT ifnull(sum(${column} / 1000000), 0) FROM ${from}) AS whole,
  (SELECT ifnull(sum(${column} % 1000000), 0) FROM ${from}) AS rest`;
const totalOf = ({ whole, rest }: Total) => BigInt(whole) * BigInt(SCALE) + BigInt(rest);

/**
 * The value of all stock, or of one item, at the end of each day on which it changed. Of all stock the values beside
 * the goods tell as much as the movements, because a document conserves value, and are far fewer.
 */
export async function stockValue(db: Reader, itemId?: number): Promise<{ day: string; value: string }[]> {
  const changes = itemId === undefined ? 'SELECT document_id, amount AS value FROM document_value' : OF_ITEM;
  const days = await db.all<{ day: string } & Total>(
    `SELECT date(d.at, 'localtime') AS day, sum(c.value / 1000000) AS whole, sum(c.value % 1000000) AS rest FROM (${changes}) c JOIN document d ON d.id = c.document_id
     GROUP BY day ORDER BY day`,
    itemId === undefined ? [] : [itemId],
  );
  let worth = 0n;
  return days.map(({ day, ...sum }) => {
    worth += totalOf(sum);
    return { day, value: decimal(worth) };
  });
}

const OF_ITEM = 'SELECT document_id, value FROM movement WHERE item_id = $1';
