import type { Money } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { afterDeed, type RepairDeed } from '@yosegi/core/repairs';
import { type Doing, required } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { saveAnew } from '../db/versions.ts';

/**
 * What happens to a repair with its work on the bench; nothing where the build is none.
 * @param says for its history
 * @throws Refusal `wrong-state`
 */
export async function tellRepair(
  doing: Doing,
  { repair_id: id }: { readonly repair_id: number | null },
  deed: RepairDeed,
  says: string,
): Promise<void> {
  if (id === null) return;
  const repair = required(await doing.tx.models.repair.findByPk(id));
  await saveAnew<'repair'>(repair, { state: afterDeed(deed, repair) });
  await noteRepair(doing, id, says);
}

/** @throws Refusal `is-a-repair` where a build is the work of a repair, which ends on its own page */
export async function refuseRepair(tx: Writer, buildId: number): Promise<void> {
  const build = await tx.models.build.findByPk(buildId);
  if (build && build.repair_id !== null) throw new Refusal('is-a-repair');
}

/** Keeps in the history of a repair what happened, and who did it. */
export async function noteRepair(doing: Doing, id: number, says: string, amount: Money | null = null): Promise<void> {
  const { tx, now, person } = doing;
  await tx.insert('repair_event', { repair_id: id, at: now.toISOString(), person_id: person.id, says, amount });
  doing.changed('builds', 'orders');
}
