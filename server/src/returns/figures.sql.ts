import type { Money, Percent, Quantity } from '@yosegi/core/number';
import { creditOwed, keptOf } from '@yosegi/core/returns';
import { decimal } from '../command/amounts.ts';
import { startOf } from '../command/clock.ts';
import type { QueryOf } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';

/** A line that came back, with what it was worth, what is owed for it and what was lost by it. */
const LINES = `SELECT l.id, l.return_id, r.document_id, l.quantity, r.customer_id, e.name AS reason, k.item_id, k.order_id,
    (SELECT sum(value) FROM return_standing WHERE return_line_id = l.id) AS value,
    (SELECT sum(o.value) FROM return_standing s JOIN return_outcome o ON o.piece_id = s.piece_id
       AND o.outcome IN ('scrap', 'damaged', 'missing', 'not-ours') AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)
     WHERE s.return_line_id = l.id) AS lost,
    l.credit, l.price, k.revision_id IS NOT NULL AS is_kit,
    (SELECT json_group_array(json_array(part_id, quantity, sent_back)) FROM return_standing WHERE return_line_id = l.id) AS pieces
  FROM return_line l JOIN goods_return r ON r.id = l.return_id JOIN reason e ON e.id = l.reason_id JOIN order_line k ON k.id = l.line_id
  WHERE r.document_id IS NOT NULL AND l.replaced = 0 AND ($1 IS NULL OR r.arrived_at >= $1) AND ($2 IS NULL OR r.arrived_at < $2)`;

interface OwedLine {
  readonly quantity: Quantity;
  readonly pieces: string;
  readonly is_kit: number;
  readonly price: Money;
  readonly credit: Percent;
}
interface FigureLine extends OwedLine {
  readonly id: number;
  readonly return_id: number;
  readonly value: Money;
  readonly lost: Money | null;
}

const BY = {
  reasons: ['f.reason', "''", ''],
  products: ['i.name', 'i.code', 'JOIN item i ON i.id = f.item_id'],
  customers: ['c.name', 'c.code', 'JOIN customer c ON c.id = f.customer_id'],
} as const;

/** Why things come back, what of, from whom, and what that cost; by the day they arrived. */
export async function returnFigures(db: Reader, query: QueryOf<'returnFigures'>) {
  const bind = [query.from ? startOf(query.from) : null, query.to ? startOf(query.to, 1) : null];
  const lines = await db.all<FigureLine>(LINES, bind);
  const decimals = await currencyDecimals(db);
  const owed = new Map(lines.map((line) => [line.id, owedOf(line, decimals)]));
  const figures = (own: typeof lines) => ({
    quantity: decimal(own.reduce((sum, { quantity }) => sum + BigInt(quantity), 0n)),
    returns: new Set(own.map(({ return_id }) => return_id)).size,
    value: decimal(own.reduce((sum, { value }) => sum + BigInt(value ?? 0), 0n)),
    owed: decimal(own.reduce((sum, { id }) => sum + (owed.get(id) ?? 0n), 0n)),
    lost: decimal(own.reduce((sum, { lost }) => sum + BigInt(lost ?? 0), 0n)),
  });
  const grouped = async (by: keyof typeof BY) => {
    const [name, code, join] = BY[by];
    const rows = await db.all<{ id: number; name: string; code: string }>(
      `SELECT f.id, ${name} AS name, ${code} AS code FROM (${LINES}) f ${join}`,
      bind,
    );
    const groups = new Map<string, { name: string; code: string; own: typeof lines }>();
    for (const { id, ...key } of rows) {
      const known = groups.get(`${key.code}|${key.name}`) ?? { ...key, own: [] };
      groups.set(`${key.code}|${key.name}`, known);
      known.own.push(...lines.filter((line) => line.id === id));
    }
    return [...groups.values()]
      .map(({ own, ...key }) => ({ ...key, ...figures(own) }))
      .sort((a, b) => Number(b.owed) - Number(a.owed) || a.name.localeCompare(b.name));
  };
  return {
    all: figures(lines),
    reasons: await grouped('reasons'),
    products: await grouped('products'),
    customers: await grouped('customers'),
    parts: await partsLost(db, bind),
  };
}

/** What customers are owed for what is back of some orders, to some customers or of some items, by the posting that took it in. */
export async function creditsOf(db: Reader, of: 'order' | 'customer' | 'item', ids: readonly number[]) {
  const lines = await db.all<OwedLine & { document_id: number; order_id: number; customer_id: number }>(
    `SELECT * FROM (${LINES}) WHERE ${of}_id IN (SELECT value FROM json_each($3))`,
    [null, null, JSON.stringify(ids)],
  );
  const decimals = await currencyDecimals(db);
  return lines.map((line) => ({
    documentId: line.document_id,
    orderId: line.order_id,
    customerId: line.customer_id,
    quantity: line.quantity,
    owed: owedOf(line, decimals),
  }));
}

function owedOf(line: OwedLine, decimals: number): bigint {
  const pieces = (JSON.parse(line.pieces) as [number, Quantity, Quantity][]).map(([partId, quantity, sentBack]) => ({
    partId,
    quantity,
    sentBack,
  }));
  const kept = keptOf({ quantity: line.quantity, isKit: line.is_kit === 1 }, pieces);
  return creditOwed(kept, line.price, line.credit, decimals);
}

/** Parts that were damaged, missing or something else, and what that cost. */
async function partsLost(db: Reader, bind: readonly (string | null)[]) {
  const rows = await db.all<{
    code: string;
    name: string;
    unit: string;
    damaged: Quantity;
    missing: Quantity;
    not_ours: Quantity;
    lost: Money;
  }>(
    `SELECT i.code, i.name, u.code AS unit, sum(iif(o.outcome IN ('damaged', 'scrap'), o.quantity, 0)) AS damaged,
       sum(iif(o.outcome = 'missing', o.quantity, 0)) AS missing, sum(iif(o.outcome = 'not-ours', o.quantity, 0)) AS not_ours,
       sum(o.value) AS lost
     FROM return_outcome o JOIN return_standing s ON s.piece_id = o.piece_id JOIN goods_return r ON r.id = s.return_id
     JOIN item i ON i.id = s.item_id JOIN unit u ON u.id = i.unit_id
     WHERE o.outcome IN ('scrap', 'damaged', 'missing', 'not-ours') AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)
       AND ($1 IS NULL OR r.arrived_at >= $1) AND ($2 IS NULL OR r.arrived_at < $2)
     GROUP BY i.id ORDER BY lost DESC, i.code`,
    bind,
  );
  return rows.map(({ damaged, missing, not_ours, lost, ...row }) => ({
    ...row,
    damaged: decimal(damaged),
    missing: decimal(missing),
    notOurs: decimal(not_ours),
    lost: decimal(lost),
  }));
}
