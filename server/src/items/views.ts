import type { SavedView } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import { type Doing, found } from '../http/context.ts';

const MOST = 100;

export const listViews = (db: Reader, personId: number) =>
  db.all<SavedView>('SELECT id, list, name, search FROM saved_view WHERE person_id = $1 ORDER BY list, name', [
    personId,
  ]);

/** Saves a filter for the person, over the one of the same name. */
export async function saveView(doing: Doing, input: Omit<SavedView, 'id'>): Promise<SavedView> {
  const { tx, person } = doing;
  if ((await listViews(tx, person.id)).length >= MOST) throw new Refusal('too-many', { most: MOST }, 'name');
  const row = await tx.one<SavedView>(
    `INSERT INTO saved_view (person_id, list, name, search) VALUES ($1, $2, $3, $4)
     ON CONFLICT DO UPDATE SET search = excluded.search RETURNING id, list, name, search`,
    [person.id, input.list, input.name, input.search],
  );
  doing.changed('items');
  return found(row);
}

export async function deleteView(doing: Doing, id: number): Promise<{ id: number }> {
  const sql = 'DELETE FROM saved_view WHERE id = $1 AND person_id = $2 RETURNING id';
  const gone = found(await doing.tx.one<{ id: number }>(sql, [id, doing.person.id]));
  doing.changed('items');
  return gone;
}
