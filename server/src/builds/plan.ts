import type { BuildDetail, BuildRow } from '@yosegi/contract';
import { CoverageWorld } from '@yosegi/contract/coverage-input';
import { cover } from '@yosegi/core/coverage';
import { labourCost, required, scaled } from '@yosegi/core/definition';
import { type Money, parseDecimal, type Quantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { refuseTooManySerials } from '@yosegi/core/tracking';
import { readSnapshot } from '../coverage/snapshot.ts';
import type { Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { revisionInUse } from '../definitions/store.ts';
import { positiveQuantity, refuseUnkept } from '../http/amounts.ts';
import { type Doing, dayOf, found } from '../http/context.ts';
import { type ItemRow, itemRow, refuseTooMuch } from '../items/store.ts';
import { requireShelf, usualBin } from '../places/store.ts';
import { nextNumber } from '../stock/posting.ts';
import { keepLines } from './keep.ts';
import {
  BUILD_SQL,
  type BuildLineRecord,
  type BuildRecord,
  buildLines,
  buildRecord,
  needOf,
  readBuild,
  readShares,
  toBuildRows,
} from './store.ts';

export interface PlanInput {
  readonly itemId: number;
  readonly purpose: 'build' | 'rework';
  readonly quantity: string;
  readonly due: string | null;
  readonly remark: string;
}

/**
 * Plans builds of the revisions in use. Their parts are promised from this moment on.
 * @param seen how many of each the person was told can be made now
 * @throws Refusal `cover-changed` when that is not so any more
 */
export async function planBuilds(
  doing: Doing,
  plans: readonly PlanInput[],
  seen?: readonly string[],
): Promise<BuildRow[]> {
  const { tx } = doing;
  const wanted: { item: ItemRow; quantity: Quantity; plan: PlanInput }[] = [];
  for (const [index, plan] of plans.entries()) {
    const item = await itemRow(tx, plan.itemId);
    if (!item) throw new Refusal('unknown-item', {}, `builds.${index}.itemId`);
    const quantity = positiveQuantity(plan.quantity, item.decimals, `builds.${index}.quantity`);
    refuseTooManySerials(item.tracking, quantity, `builds.${index}.quantity`);
    wanted.push({ item, quantity, plan });
  }
  if (seen) await refuseChangedCover(tx, wanted, seen, dayOf(doing.now));
  const ids: number[] = [];
  for (const { item, quantity, plan } of wanted) ids.push(await insertBuild(doing, item, quantity, plan));
  doing.changed('builds', 'stock', 'items');
  const sql = `${BUILD_SQL} WHERE b.id IN (SELECT value FROM json_each($1)) ORDER BY b.id`;
  const builds = await tx.all<BuildRecord>(sql, [JSON.stringify(ids)]);
  return toBuildRows(tx, builds, await readShares(tx, dayOf(doing.now)), dayOf(doing.now));
}

async function refuseChangedCover(
  tx: Writer,
  wanted: readonly { item: ItemRow; quantity: Quantity }[],
  seen: readonly string[],
  today: string,
): Promise<void> {
  const world = new CoverageWorld(await readSnapshot(tx, today));
  const answer = cover(world.input(wanted.map(({ item, quantity }) => ({ itemId: item.id, quantity }))));
  const same = answer.products.every((product, index) => product.now === parseDecimal(seen[index] ?? '0'));
  if (!same) throw new Refusal('cover-changed');
}

async function insertBuild(doing: Doing, item: ItemRow, quantity: Quantity, plan: PlanInput): Promise<number> {
  const { tx } = doing;
  const revision = await revisionInUse(tx, item.id, plan.purpose);
  if (!revision) throw new Refusal('no-definition-in-use', { name: item.name }, 'itemId');
  if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, 'itemId');
  const packed = await tx.one("SELECT 1 FROM definition WHERE id = $1 AND made = 'packed-per-order'", [
    revision.definition_id,
  ]);
  if (packed) throw new Refusal('packed-not-built', { name: item.name }, 'itemId');
  const id = await tx.insert('build', {
    number: await nextNumber(tx, 'B'),
    item_id: item.id,
    revision_id: revision.id,
    output_quantity: revision.output_quantity,
    quantity,
    state: 'planned',
    due: plan.due,
    output_bin_id: await usualBin(tx, item.home_bin_id),
    remark: plan.remark,
    planned_at: doing.now.toISOString(),
    planned_by: doing.person.id,
  });
  await takeLines(tx, id, revision.id);
  return id;
}

/** Gives a build the lines of a revision as its own, so that no later change of the definition reaches it. */
export async function takeLines(tx: Writer, buildId: number, revisionId: number): Promise<void> {
  await tx.run('DELETE FROM build_line WHERE build_id = $1', [buildId]);
  await tx.run(
    `INSERT INTO build_line (build_id, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, rate_per_hour, share, comes_back)
     SELECT $1, l.position, l.kind, l.text, l.item_id, l.from_bin_id, l.basis, l.amount, l.waste, l.taken, t.per_hour, l.share, l.comes_back
     FROM revision_line l LEFT JOIN rate t ON t.id = l.rate_id WHERE l.revision_id = $2`,
    [buildId, revisionId],
  );
  const [build, lines] = [found(await buildRecord(tx, buildId)), await buildLines(tx, buildId)];
  refuseBeyondReckoning(build, lines);
  await keepLines(tx, build, lines);
  await refuseTooMuchOf(tx, build, lines);
}

/** What a build of so many would take and cost in labour must be an amount that can be kept. */
function refuseBeyondReckoning(build: BuildRecord, lines: readonly BuildLineRecord[]): void {
  const [made, output] = [build.quantity as Quantity, build.output_quantity as Quantity];
  refuseUnkept(() => {
    for (const line of lines) {
      if (line.kind === 'part') required(needOf(line), made, output);
      const amount = scaled(line.basis, line.amount, made, output);
      if (line.kind === 'labour') labourCost(amount as Quantity, (line.rate_per_hour ?? 0) as Money);
    }
  }, 'quantity');
}

const refuseTooMuchOf = (tx: Writer, build: BuildRecord, lines: readonly BuildLineRecord[]) =>
  refuseTooMuch(tx, [build.item_id, ...lines.flatMap((line) => line.item_id ?? [])], 'quantity');

/** Plans `quantity` of a build that goes ahead with fewer, with the same lines, as a build of its own. */
export async function splitBuild(doing: Doing, build: BuildRecord, quantity: Quantity): Promise<void> {
  const { tx } = doing;
  const number = await nextNumber(tx, 'B');
  const { id } = found(
    await tx.one<{ id: number }>(
      `INSERT INTO build (number, item_id, revision_id, output_quantity, quantity, state, due, output_bin_id, remark,
         split_from_id, planned_at, planned_by)
       SELECT $1, item_id, revision_id, output_quantity, $2, 'planned', due, output_bin_id, remark, id, planned_at, planned_by
       FROM build WHERE id = $3 RETURNING id`,
      [number, quantity, build.id],
    ),
  );
  await tx.run(
    `INSERT INTO build_line (build_id, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, rate_per_hour, share, comes_back)
     SELECT $1, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, rate_per_hour, share, comes_back
     FROM build_line WHERE build_id = $2`,
    [id, build.id],
  );
  await keepLines(tx, found(await buildRecord(tx, id)), await buildLines(tx, id));
}

export interface BuildInput {
  readonly quantity: string;
  readonly due: string | null;
  readonly outputBinId: number;
  readonly remark: string;
  readonly version: number;
}

/** Changes a planned build. */
export async function updateBuild(doing: Doing, id: number, input: BuildInput): Promise<BuildDetail> {
  const { tx } = doing;
  const today = dayOf(doing.now);
  const build = found(await buildRecord(tx, id));
  if (build.state !== 'planned')
    throw new Refusal('wrong-state', { is: build.state.replace('-', ' '), must: 'planned' });
  const quantity = positiveQuantity(input.quantity, build.decimals, 'quantity');
  refuseTooManySerials(build.tracking, quantity, 'quantity');
  await requireShelf(tx, input.outputBinId, 'outputBinId');
  const values = { quantity, due: input.due, output_bin_id: input.outputBinId, remark: input.remark };
  await updateVersioned(tx, 'build', id, input.version, values, () => readBuild(tx, id, today));
  const [after, lines] = [{ ...build, quantity }, await buildLines(tx, id)];
  refuseBeyondReckoning(after, lines);
  await keepLines(tx, after, lines);
  await refuseTooMuchOf(tx, after, lines);
  doing.changed('builds', 'stock', 'items');
  return readBuild(tx, id, today);
}
