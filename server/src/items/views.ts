import type { SavedView } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type Doing, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';

const MOST = 100;

export const listViews = (db: Reader, personId: number) =>
  db.models.saved_view
    .findAll({ where: { person_id: personId }, order: ['list', 'name'] })
    .then((views) => views.map(({ id, list, name, search }): SavedView => ({ id, list, name, search })));

/** Saves a filter for the person, over the one of the same name. */
export async function saveView(doing: Doing, input: Omit<SavedView, 'id'>): Promise<SavedView> {
  const { tx, person } = doing;
  if ((await listViews(tx, person.id)).length >= MOST) throw new Refusal('too-many', { most: MOST }, 'name');
  const { list, name, search } = input;
  const [view] = await tx.models.saved_view.findOrBuild({ where: { person_id: person.id, list, name } });
  const saved = await view.set({ search }).save();
  doing.changed('items');
  return { id: saved.id, list: input.list, name, search };
}

export async function deleteView(doing: Doing, id: number): Promise<{ id: number }> {
  const view = required(await doing.tx.models.saved_view.findOne({ where: { id, person_id: doing.person.id } }));
  await view.destroy();
  doing.changed('items');
  return { id };
}
