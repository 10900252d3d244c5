import type { BoughtFor } from '@yosegi/contract';
import type { Quantity } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';

const NEEDS = {
  build: 'purchase_need n WHERE n.build_id = $1',
  order: 'purchase_for_order n WHERE n.order_id = $1',
} as const;

/** What a build or an order of a customer had bought for it, in the order it was bought. */
export async function boughtFor(db: Reader, kind: keyof typeof NEEDS, id: number): Promise<BoughtFor[]> {
  const rows = await db.all<Omit<BoughtFor, 'quantity' | 'open'> & { quantity: Quantity; open: 0 | 1 }>(
    `SELECT o.id, o.number, i.code, u.code AS unit, u.decimals, n.quantity, l.open > 0 AS open
     FROM (SELECT n.line_id, n.quantity FROM ${NEEDS[kind]}) n
     JOIN purchase_order_line l ON l.id = n.line_id JOIN purchase_order o ON o.id = l.order_id
     JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id
     WHERE o.state <> 'cancelled' ORDER BY o.id`,
    [id],
  );
  return rows.map((row) => ({ ...row, quantity: decimal(row.quantity), open: row.open === 1 }));
}
