import type { Numbered } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { buildRecord, readBuild } from './sql.ts';
import { requireOpen } from './state.ts';

/**
 * Whether more may be brought to the bench than is asked for; what is left over goes back when it is finished.
 * @throws Refusal `wrong-state`, `stale-save`
 */
export async function allowSpare(doing: Doing, id: number, input: BodyOf<'allowSpare'>): Promise<Numbered> {
  const { tx, now, changed } = doing;
  requireOpen(found(await buildRecord(tx, id)));
  const values = { spare: input.spare ? 1 : 0 };
  await updateVersioned(tx, 'build', id, input.version, values, () => readBuild(tx, id, dayOf(now)));
  changed('builds', 'picks');
  return numbered(tx, 'build', id);
}
