import type { Numbered } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type Doing, required } from '../command/doing.ts';
import { numbered, saveAnew } from '../db/versions.ts';
import { revisionRow } from '../definitions/index.ts';
import { takeLines } from './plan.ts';
import { buildRecord } from './sql.ts';
import { requireState } from './state.ts';

/** Lets planned builds take the revision in use. @throws Refusal `wrong-state` for a build that has started */
export async function moveBuilds(doing: Doing, definitionId: number, buildIds: readonly number[]): Promise<Numbered[]> {
  const { tx } = doing;
  const inUse = await tx.models.revision.findOne({ where: { definition_id: definitionId, state: 'in-use' } });
  if (!inUse) throw new Refusal('no-definition-in-use', { name: 'This' });
  const moved: Numbered[] = [];
  for (const [index, id] of buildIds.entries()) {
    const build = await buildRecord(tx, id);
    const taken = build?.revision_id ? await revisionRow(tx, build.revision_id) : undefined;
    if (!build || taken?.definition_id !== definitionId) throw new Refusal('unknown-line', {}, `buildIds.${index}`);
    requireState(build, 'planned', `buildIds.${index}`);
    const values = { revision_id: inUse.id, output_quantity: inUse.output_quantity };
    await saveAnew<'build'>(required(await tx.models.build.findByPk(id)), values);
    await takeLines(tx, id, inUse.id);
    moved.push(await numbered(tx, 'build', id));
  }
  doing.changed('builds', 'definitions', 'stock', 'items');
  return moved;
}
