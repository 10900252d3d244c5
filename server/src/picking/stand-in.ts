import { doesFor, takenOf } from '@yosegi/core/demand';
import { countedIn, type Quantity } from '@yosegi/core/number';
import { checkPick } from '@yosegi/core/picking';
import { Refusal } from '@yosegi/core/refusal';
import { buildLines, buildRecord, keepLines, requireState } from '../builds/index.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { itemRow, refuseTooMuch } from '../items/index.ts';
import { nextPosition } from '../tasks/index.ts';
import { ratioOf } from './stand-ins.sql.ts';

/**
 * Lets an alternate stand in for some of a part: a line of its own with what does for it, and so much less of the part.
 * @throws Refusal `wrong-state`, `unknown-line`, `unknown-item`, `not-an-alternate`, `more-than-open`
 */
export async function standIn(doing: Doing, buildId: number, input: BodyOf<'standIn'>) {
  const { tx, person } = doing;
  const build = found(await buildRecord(tx, buildId));
  requireState(build, 'on-bench');
  const lines = await buildLines(tx, buildId);
  const line = lines.find(({ id, kind }) => id === input.lineId && kind === 'part');
  if (!line?.item_id) throw new Refusal('unknown-line', {}, 'lineId');
  const part = found(await itemRow(tx, line.item_id));
  const item = await itemRow(tx, input.itemId);
  if (!item || item.archived_at !== null) throw new Refusal('unknown-item', {}, 'itemId');
  const ratio = await ratioOf(tx, line.id, item.id);
  if (ratio === null) throw new Refusal('not-an-alternate', { name: item.name, part: part.name }, 'itemId');
  const quantity = countedIn(input.quantity, part.decimals, 'quantity');
  checkPick(line.open, quantity, 'quantity');
  const { id: lineId } = await tx.models.build_line.create({
    build_id: buildId,
    position: await nextPosition(tx, buildId),
    kind: 'part',
    item_id: item.id,
    basis: 'per-run',
    amount: takenOf(quantity, ratio, item.decimals),
    taken: 'picked-first',
    added_by: person.id,
    added_because: `Instead of ${part.name}`,
    instead_of: line.id,
    stands_for: quantity,
  });
  await keepLines(tx, build, await buildLines(tx, buildId));
  await refuseTooMuch(tx, [item.id], 'quantity');
  doing.changed('builds', 'stock', 'items', 'picks');
  return { lineId };
}

/** Of a line that stands in for another, so much is left: what it no longer does for is needed of the part itself again. */
export async function standForLess(
  tx: Writer,
  line: Pick<Row<'build_line'>, 'id' | 'item_id' | 'instead_of' | 'stands_for'> & { readonly decimals: number },
  left: Quantity,
): Promise<void> {
  const standsFor = await leftFor(tx, line, left);
  await tx.models.build_line.update({ stands_for: standsFor }, { where: { id: line.id } });
}

async function leftFor(
  db: Reader,
  line: Pick<Row<'build_line'>, 'item_id' | 'instead_of' | 'stands_for'> & { readonly decimals: number },
  left: Quantity,
): Promise<Quantity> {
  const ratio = await ratioOf(db, line.instead_of ?? 0, line.item_id ?? 0);
  const original = await db.models.build_line.findByPk(line.instead_of ?? 0);
  const part = original?.item_id ? await itemRow(db, original.item_id) : undefined;
  if (ratio === null || !part) return 0 as Quantity;
  return doesFor(left, ratio, line.decimals, part.decimals, line.stands_for);
}
