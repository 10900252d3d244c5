import { groupBy } from '@yosegi/core/lists';
import { lineAmount, type Money, type Quantity, sumForText } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { STANDS } from '../ledger/index.ts';
import { creditsOf } from '../returns/index.ts';

/** Of what it is asked what it earned. */
export type EarnedOf = 'order' | 'customer' | 'item';

const COLUMN: Record<EarnedOf, string> = { order: 'o.id', customer: 'o.customer_id', item: 'k.item_id' };

interface ShippedRow {
  readonly customer_id: number;
  readonly customer: string;
  readonly order_id: number;
  readonly quantity: Quantity;
  readonly price: Money;
  readonly cost: Money;
}

/**
 * What was shipped and stands, what of it came back, and what is left of both: the same reckoning for an order, a customer
 * and a product as for a job.
 */
export async function earnedBy(db: Reader, of: EarnedOf, id: number) {
  const rows = await db.all<ShippedRow>(
    `SELECT o.customer_id, c.name AS customer, o.id AS order_id, s.quantity, s.price, s.cost FROM sales_order o
     JOIN order_line k ON k.order_id = o.id JOIN shipment_line s ON s.line_id = k.id JOIN document d ON d.id = s.document_id
     JOIN customer c ON c.id = o.customer_id WHERE ${COLUMN[of]} = $1 AND ${STANDS}`,
    [id],
  );
  const credits = await creditsOf(db, of, [id]);
  const worths = await backOf(db, of, id);
  const decimals = await currencyDecimals(db);
  const sum = (shipped: readonly ShippedRow[], back: typeof credits, worth: typeof worths) => {
    const sold = sumForText(shipped.map(({ quantity, price }) => lineAmount(quantity, price, decimals)));
    const cost = sumForText(shipped.map((row) => row.cost));
    const owed = sumForText(back.map((row) => row.owed));
    const again = sumForText(worth.map((row) => row.worth));
    return {
      quantity: decimal(sumForText(shipped.map(({ quantity }) => quantity))),
      sold: decimal(sold),
      cost: decimal(cost),
      returned: decimal(sumForText(back.map(({ quantity }) => quantity))),
      owed: decimal(owed),
      back: decimal(again),
      earned: decimal(sold - owed),
      spent: decimal(cost - again),
    };
  };
  const byCustomer = groupBy(rows, ({ customer_id }) => customer_id);
  return {
    ...sum(rows, credits, worths),
    orders: new Set(rows.map(({ order_id }) => order_id)).size,
    customers: [...byCustomer].map(([customerId, own]) => ({
      id: customerId,
      name: own[0]?.customer ?? '',
      ...sum(
        own,
        credits.filter((row) => row.customerId === customerId),
        worths.filter((row) => row.customer_id === customerId),
      ),
    })),
  };
}

/** What came back is worth again, piece by piece: what it left with, less what was lost of it or sent back. */
const backOf = (db: Reader, of: EarnedOf, id: number) =>
  db.all<{ customer_id: number; worth: number }>(
    `SELECT o.customer_id, p.value - ifnull((SELECT sum(iif(r.outcome = 'apart',
         r.value - ifnull((SELECT sum(value) FROM take_apart_line t WHERE t.document_id = r.document_id AND t.place = r.position), 0),
         r.value))
       FROM return_outcome r JOIN document d ON d.id = r.document_id
       WHERE r.piece_id = p.id AND r.outcome NOT IN ('shelf', 'rework') AND ${STANDS}), 0) AS worth
     FROM sales_order o JOIN order_line k ON k.order_id = o.id JOIN return_line l ON l.line_id = k.id
     JOIN return_piece p ON p.return_line_id = l.id JOIN document d ON d.id = p.document_id
     WHERE ${COLUMN[of]} = $1 AND ${STANDS}`,
    [id],
  );
