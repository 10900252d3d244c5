import type { Numbered } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { add, countedIn, minus, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found, requireRight } from '../command/doing.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { itemRows } from '../items/index.ts';
import { keepLines } from './keep.ts';
import { tellRepair } from './of-repair.ts';
import { splitBuild } from './plan.ts';
import { type BuildRecord, buildLines, buildRecord, canStart, readBuild, readShares, shareOf } from './sql.ts';
import { requireState } from './state.ts';

type StartInput = BodyOf<'startBuild'>;

/**
 * Sends a planned build to the bench. With a smaller quantity the rest stays planned as a build of its own.
 * @throws Refusal `parts-short` with what is missing and how many could start, unless an owner overrides it
 */
export async function startBuild(doing: Doing, id: number, input: StartInput): Promise<Numbered> {
  const { tx } = doing;
  const today = dayOf(doing.now);
  const planned = found(await buildRecord(tx, id));
  requireState(planned, 'planned');
  const quantity =
    input.quantity === undefined ? planned.quantity : countedIn(input.quantity, planned.decimals, 'quantity');
  if (quantity > planned.quantity) throw new Refusal('more-than-planned', { left: planned.quantity }, 'quantity');
  if (input.override) requireRight(doing.person, 'override');
  const build = { ...planned, quantity };
  if (planned.repair_id !== null && quantity < planned.quantity) throw new Refusal('repair-whole', {}, 'quantity');
  const short = await shortFor(doing, build);
  if (short && !input.override) throw short;
  if (quantity < planned.quantity) await splitBuild(doing, planned, minus(planned.quantity, quantity));
  const overridden = short && input.override ? input.override.reason : null;
  const values = {
    state: 'on-bench' as const,
    quantity,
    started_at: doing.now.toISOString(),
    override_reason: overridden,
  };
  await updateVersioned(tx, 'build', id, input.version, values, () => readBuild(tx, id, today));
  await keepLines(tx, { ...build, state: 'on-bench' }, await buildLines(tx, id));
  if (overridden !== null) {
    const at = doing.now.toISOString();
    await tx.insert('put_right', { for_kind: 'build', for_id: id, reason: overridden, person_id: doing.person.id, at });
  }
  await tellRepair(doing, planned, 'start', 'Work started on the bench');
  doing.changed('builds', 'stock', 'items');
  return numbered(tx, 'build', id);
}

/** What is missing for `build`, as the refusal to send it to the bench; undefined when nothing is. */
async function shortFor(doing: Doing, build: BuildRecord): Promise<Refusal | undefined> {
  const { tx } = doing;
  const whole = found(await buildRecord(tx, build.id));
  const lines = await buildLines(tx, build.id);
  if (build.quantity < whole.quantity) await keepLines(tx, build, lines);
  const shares = await readShares(tx, dayOf(doing.now));
  const share = shareOf(shares, build.id);
  if (!share || share.short.size === 0) return undefined;
  const items = await itemRows(tx, [...share.short.keys()]);
  const missing = [...share.short].map(([itemId, { quantity: short, completeOn, isComing }]) => {
    const got = share.got.get(itemId) ?? ZERO;
    const { code, name, unit, definition_id: definitionId } = found(items.get(itemId));
    return {
      itemId,
      code,
      name,
      unit,
      definitionId,
      needed: add(got, short),
      got,
      short,
      comesOn: completeOn,
      isComing,
    };
  });
  return new Refusal('parts-short', { lines: missing, canStart: canStart(build, shares) });
}
