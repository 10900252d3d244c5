import type { ComingRow } from '@yosegi/contract';
import { isPast } from '@yosegi/core/days';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import { readComingOf, readPegging } from '../demand/index.ts';

/** What of an item is on order and being built, the first to come first. */
export async function comingOf(db: Reader, itemId: number, today: string): Promise<ComingRow[]> {
  const rows = await readComingOf(db, itemId);
  // What a build brings comes when its parts allow, whatever day it was planned for.
  const { doneOn } = rows.some(({ kind }) => kind === 'build') ? await readPegging(db, today) : { doneOn: new Map() };
  const dayOf = (row: (typeof rows)[number]) => (row.kind === 'build' ? (doneOn.get(row.source_id) ?? null) : row.due);
  const isLate = (due: string | null, on: string | null) =>
    isPast(due, today) || (due !== null && on !== null && on > due);
  return rows.map((row) => ({
    source: row.kind,
    id: row.source_id,
    lineId: row.line_id ?? row.source_id,
    number: row.number,
    from: row.brought_by,
    quantity: decimal(row.quantity),
    on: dayOf(row),
    late: isLate(row.due, dayOf(row)),
  }));
}
