import type { PromisedTo } from '@yosegi/contract';
import { type Money, type Quantity, sumForText, worthForText } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import { readPegging } from '../demand/index.ts';

/** The most of one item that is listed. */
const MOST = 200;

/** To whom an item is promised, in turn, and what each of them gets of it as everything stands. */
export async function promisedTo(db: Reader, itemId: number, today: string): Promise<PromisedTo[]> {
  const own = (await readPegging(db, today)).pegged.filter(
    ({ demand }) => demand.itemId === itemId && (demand.source.kind === 'build' || demand.source.kind === 'order'),
  );
  const shown = own.slice(0, MOST);
  const names = await db.all<{ kind: 'build' | 'order'; id: number; number: string; who: string }>(
    `SELECT 'build' AS kind, b.id, b.number, i.name AS who FROM build b JOIN item i ON i.id = b.item_id
       WHERE b.id IN (SELECT value FROM json_each($1))
     UNION ALL SELECT 'order', o.id, o.number, c.name FROM sales_order o JOIN customer c ON c.id = o.customer_id
       WHERE o.id IN (SELECT value FROM json_each($2))`,
    ['build', 'order'].map((kind) =>
      JSON.stringify(shown.flatMap(({ demand }) => (demand.source.kind === kind ? demand.source.id : []))),
    ),
  );
  return shown.flatMap(({ demand, now, wholeOn }) => {
    const { kind, id } = demand.source;
    const name = names.find((row) => row.kind === kind && row.id === id);
    if (!name) return [];
    return { ...name, quantity: decimal(demand.quantity), now: decimal(now), wantedOn: demand.turn.wantedOn, wholeOn };
  });
}

/** The most customers of an item that are listed. */
const MOST_CUSTOMERS = 12;

/** What was shipped of an item, for how much, and what it cost; the customer who brought most first. */
export async function salesOf(db: Reader, itemId: number) {
  const rows = await db.all<{
    customer_id: number;
    name: string;
    order_id: number;
    quantity: Quantity;
    price: Money;
    cost: Money;
  }>(
    `SELECT o.customer_id, c.name, o.id AS order_id, s.quantity, s.price, s.cost FROM order_line l
     JOIN shipment_line s ON s.line_id = l.id JOIN sales_order o ON o.id = l.order_id
     JOIN customer c ON c.id = o.customer_id
     WHERE l.item_id = $1 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = s.document_id)`,
    [itemId],
  );
  const brought = (own: typeof rows) => ({
    quantity: decimal(sumForText(own.map(({ quantity }) => quantity))),
    sold: decimal(sumForText(own.map(({ quantity, price }) => worthForText(quantity, price)))),
    cost: decimal(sumForText(own.map(({ cost }) => cost))),
  });
  const customers = [...new Set(rows.map(({ customer_id }) => customer_id))].map((id) => {
    const own = rows.filter(({ customer_id }) => customer_id === id);
    return { id, name: own[0]?.name ?? '', ...brought(own) };
  });
  return {
    ...brought(rows),
    orders: new Set(rows.map(({ order_id }) => order_id)).size,
    customers: customers.sort((a, b) => Number(b.sold) - Number(a.sold)).slice(0, MOST_CUSTOMERS),
  };
}
