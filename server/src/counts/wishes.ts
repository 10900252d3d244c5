import type { Quantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type Doing, required } from '../command/doing.ts';
import type { Row } from '../db/models/index.ts';

interface Wish extends Pick<Row<'count_wish'>, 'item_id' | 'bin_id' | 'lot_id' | 'run_id'> {
  readonly booked: Quantity;
}

/** Puts a place on the list of what is to be counted, once. */
export async function wishCount(
  { tx, now, person, changed }: Doing,
  { booked, run_id, ...place }: Wish,
): Promise<void> {
  changed('picks', 'stock');
  if (await tx.models.count_wish.findOne({ where: { ...place, settled_at: null } })) return;
  await tx.insert('count_wish', { ...place, booked, run_id, noted_at: now.toISOString(), noted_by: person.id });
}

/** @throws Refusal `not-found`, `settled-already` */
export async function settleWish({ tx, now, changed }: Doing, id: number): Promise<{ id: number }> {
  const wish = required(await tx.models.count_wish.findByPk(id));
  if (wish.settled_at !== null) throw new Refusal('settled-already');
  await wish.update({ settled_at: now.toISOString() });
  changed('picks', 'stock');
  return { id };
}
