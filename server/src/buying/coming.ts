import type { ComingRow } from '@yosegi/contract';
import { isPast } from '@yosegi/core/days';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import { readComingOf } from '../demand/index.ts';

/** The most of one item that is listed. */
const MOST = 200;

/** What of an item is on order and being built, the first to come first. */
export async function comingOf(db: Reader, itemId: number, today: string): Promise<ComingRow[]> {
  return (await readComingOf(db, itemId, MOST)).map((row) => ({
    source: row.kind,
    id: row.source_id,
    number: row.number,
    from: row.brought_by,
    quantity: decimal(row.quantity),
    on: row.due,
    late: isPast(row.due, today),
  }));
}
