import type { Numbered } from '@yosegi/contract';
import { worldOf } from '@yosegi/contract/coverage-input';
import { cover } from '@yosegi/core/coverage';
import { dayOf } from '@yosegi/core/days';
import { labourCost, required, scaled } from '@yosegi/core/definitions';
import { add, countedIn, minus, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { refuseTooManySerials } from '@yosegi/core/tracking';
import { decimal, refuseUnkept } from '../command/amounts.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { readSnapshot } from '../coverage/index.ts';
import type { Writer } from '../db/database.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { revisionInUse } from '../definitions/index.ts';
import { type ItemRow, itemRow, refuseTooMuch } from '../items/index.ts';
import { nextNumber } from '../ledger/index.ts';
import { builtFor, partBuilt } from '../orders/index.ts';
import { requireShelf, usualBin } from '../places/index.ts';
import { makeTasks } from '../tasks/index.ts';
import { keepLines } from './keep.ts';
import { copyBuildLines, copyRevisionLines } from './lines.sql.ts';
import {
  type BuildLineRecord,
  type BuildRecord,
  buildLines,
  buildRecord,
  needOf,
  promisedLast,
  readBuild,
} from './sql.ts';
import { requireState } from './state.ts';

type PlanInput = BodyOf<'planBuilds'>['builds'][number];
type Seen = NonNullable<BodyOf<'planBuilds'>['seen']>;

/**
 * Plans builds of the revisions in use. Their parts are promised from this moment on.
 * @param seen what the person was told can be made now of what they asked for
 * @throws Refusal `cover-changed` when it is less by now
 */
export async function planBuilds(doing: Doing, plans: readonly PlanInput[], seen?: Seen): Promise<Numbered[]> {
  const { tx } = doing;
  const wanted: { item: ItemRow; quantity: Quantity; plan: PlanInput }[] = [];
  for (const [index, plan] of plans.entries()) {
    const item = await itemRow(tx, plan.itemId);
    if (!item) throw new Refusal('unknown-item', {}, `builds.${index}.itemId`);
    const quantity = countedIn(plan.quantity, item.decimals, `builds.${index}.quantity`);
    refuseTooManySerials(item.tracking, quantity, `builds.${index}.quantity`);
    wanted.push({ item, quantity, plan });
  }
  if (seen) await refuseChangedCover(tx, seen, dayOf(doing.now));
  const planned: Numbered[] = [];
  for (const { item, quantity, plan } of wanted) planned.push(await insertBuild(doing, item, quantity, plan));
  doing.changed('builds', 'stock', 'items');
  return planned;
}

async function refuseChangedCover(tx: Writer, { wanted, stores, aside, ...seen }: Seen, today: string): Promise<void> {
  const whole = worldOf(await readSnapshot(tx, today), seen.drafts);
  const world = aside ? whole.without(aside) : whole;
  const answer = cover(world, { ...seen, wanted, stores: stores && new Set(stores) });
  for (const [index, { now, limitedBy, itemId }] of answer.products.entries()) {
    const was = wanted[index]?.now ?? ZERO;
    if (now >= was) continue;
    const { name } = found(await itemRow(tx, itemId));
    const part = limitedBy === null ? undefined : await itemRow(tx, limitedBy);
    const taken = part && (await newestPromise(tx, part));
    throw new Refusal('cover-changed', { name, was, now, part: part?.name ?? null, taken: taken ?? null });
  }
}

/** Who was promised some of a part last, in words. */
async function newestPromise(tx: Writer, part: ItemRow): Promise<string | null> {
  const newest = await promisedLast(tx, part.id);
  if (!newest) return null;
  const { number, person, quantity } = newest;
  return `${person} planned ${number}, which takes ${decimal(quantity)} ${part.unit} of it`;
}

async function insertBuild(doing: Doing, item: ItemRow, quantity: Quantity, plan: PlanInput): Promise<Numbered> {
  const { tx } = doing;
  const revision = await revisionInUse(tx, item.id, plan.purpose);
  if (!revision) throw new Refusal('no-definition-in-use', { name: item.name }, 'itemId');
  if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, 'itemId');
  const definition = await tx.models.definition.findByPk(revision.definition_id);
  if (definition?.made === 'packed-per-order') throw new Refusal('packed-not-built', { name: item.name }, 'itemId');
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
  return numbered(tx, 'build', id);
}

/** Gives a build the lines of a revision as its own, so that no later change of the definition reaches it. */
export async function takeLines(tx: Writer, buildId: number, revisionId: number): Promise<void> {
  // What was added on the build stays.
  await tx.models.build_line.destroy({ where: { build_id: buildId, added_by: null } });
  await copyRevisionLines(tx, buildId, revisionId);
  await makeTasks(tx, buildId);
  const [build, lines] = [found(await buildRecord(tx, buildId)), await buildLines(tx, buildId)];
  refuseBeyondReckoning(build, lines);
  await keepLines(tx, build, lines);
  await refuseTooMuchOf(tx, build, lines);
}

/** What a build of so many would take and cost in labour must be an amount that can be kept. */
function refuseBeyondReckoning(build: BuildRecord, lines: readonly BuildLineRecord[]): void {
  const [made, output] = [build.quantity, build.output_quantity];
  refuseUnkept(() => {
    for (const line of lines) {
      if (line.kind === 'part') required(needOf(line), made, output);
      const amount = scaled(line.basis, line.amount, made, output);
      if (line.kind === 'labour') labourCost(amount as Quantity, line.rate_per_hour ?? ZERO);
    }
  }, 'quantity');
}

const refuseTooMuchOf = (tx: Writer, build: BuildRecord, lines: readonly BuildLineRecord[]) =>
  refuseTooMuch(tx, [build.item_id, ...lines.flatMap((line) => line.item_id ?? [])], 'quantity');

/** Plans `quantity` of a build that goes ahead with fewer, with the same lines, as a build of its own. */
export async function splitBuild(doing: Doing, build: BuildRecord, quantity: Quantity): Promise<void> {
  const { tx } = doing;
  const number = await nextNumber(tx, 'B');
  const { id: from, version: _, ...whole } = found((await tx.models.build.findByPk(build.id)) ?? undefined).get();
  const rest = { number, quantity, state: 'planned' as const, finished: ZERO, rejected: ZERO };
  const ended = { started_at: null, ended_at: null, override_reason: null, split_from_id: from };
  const { id } = await tx.models.build.create({ ...whole, ...rest, ...ended });
  await copyBuildLines(tx, id, build.id);
  await makeTasks(tx, id);
  await partBuilt(tx, build.id, id, minus(build.quantity, quantity));
  await keepLines(tx, found(await buildRecord(tx, id)), await buildLines(tx, id));
}

/** Changes a planned build. */
export async function updateBuild(doing: Doing, id: number, input: BodyOf<'updateBuild'>): Promise<Numbered> {
  const { tx } = doing;
  const today = dayOf(doing.now);
  const build = found(await buildRecord(tx, id));
  requireState(build, 'planned');
  if (build.repair_id !== null) throw new Refusal('is-a-repair');
  const quantity = countedIn(input.quantity, build.decimals, 'quantity');
  refuseTooManySerials(build.tracking, quantity, 'quantity');
  await requireShelf(tx, input.outputBinId, 'outputBinId');
  const forOrders = await builtFor(tx, [id]);
  const promised = add(ZERO, ...forOrders.map((row) => minus(row.quantity, row.kept)));
  if (quantity < promised)
    throw new Refusal('built-for-orders', { orders: forOrders.map(({ number }) => number), promised }, 'quantity');
  const values = { quantity, due: input.due, output_bin_id: input.outputBinId, remark: input.remark };
  await updateVersioned(tx, 'build', id, input.version, values, () => readBuild(tx, id, today));
  const [after, lines] = [{ ...build, quantity }, await buildLines(tx, id)];
  refuseBeyondReckoning(after, lines);
  await keepLines(tx, after, lines);
  await refuseTooMuchOf(tx, after, lines);
  doing.changed('builds', 'stock', 'items');
  return numbered(tx, 'build', id);
}
