import type { Order } from '@yosegi/contract';
import { quantityChanges } from '@yosegi/core/orders';
import { decimal } from '../command/amounts.ts';
import type { Doing } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { type OrderLineRecord, orderLines } from './sql.ts';

/** The most changes of one order that are told; older ones are kept. */
const MOST_TOLD = 200;

const wanted = (lines: readonly OrderLineRecord[]) => lines.map((line) => ({ ...line, itemId: line.item_id }));

/** Keeps of which items another quantity is wanted than by the lines as they were. */
export async function noteChanges(doing: Doing, order_id: number, before: readonly OrderLineRecord[]): Promise<void> {
  const { tx, person, now } = doing;
  const changes = quantityChanges(wanted(before), wanted(await orderLines(tx, [order_id])));
  await tx.insertMany(
    'order_change',
    changes.map(({ itemId, ...change }) => ({
      ...{ order_id, at: now.toISOString(), person_id: person.id, item_id: itemId },
      ...change,
    })),
  );
}

/** The changes of an order, the newest first. */
export const changesOf = async (db: Reader, orderId: number): Promise<Order['changes']> =>
  (
    await db.all<Pick<Row<'order_change'>, 'id' | 'at' | 'before' | 'after'> & ToldItem>(
      `SELECT c.id, c.at, c.before, c.after, p.name AS person, i.name, u.code AS unit, u.decimals
       FROM order_change c JOIN person p ON p.id = c.person_id JOIN item i ON i.id = c.item_id JOIN unit u ON u.id = i.unit_id
       WHERE c.order_id = $1 ORDER BY c.id DESC LIMIT ${MOST_TOLD}`,
      [orderId],
    )
  ).map((row) => ({ ...row, before: decimal(row.before), after: decimal(row.after) }));

type ToldItem = Pick<Order['changes'][number], 'person' | 'name' | 'unit' | 'decimals'>;
