import type { BuildDetail } from '@yosegi/contract';
import type { Quantity } from '@yosegi/core/number';
import { checkPick } from '@yosegi/core/pick';
import { Refusal } from '@yosegi/core/refusal';
import { Posting } from '@yosegi/core/stock';
import { updateVersioned } from '../db/versions.ts';
import { positiveQuantity } from '../http/amounts.ts';
import { type Doing, dayOf, found, ownersOnly } from '../http/context.ts';
import { itemRows } from '../items/store.ts';
import { benchOf, requireShelf } from '../places/store.ts';
import { mayGoBelow, type Override, readStock, writeDocument } from '../stock/posting.ts';
import { withNames } from '../stock/shortage.ts';
import { type Named, placesOut } from '../stock/tracked.ts';
import { keepLines, type LineChange } from './keep.ts';
import { leftoversOf } from './leftovers.ts';
import { splitBuild } from './plan.ts';
import { type BuildRecord, buildLines, buildRecord, canStart, isOpen, readBuild, readShares } from './store.ts';

interface StartInput {
  readonly version: number;
  readonly quantity?: string | undefined;
  readonly override?: Override | undefined;
}

/**
 * Sends a planned build to the bench. With a smaller quantity the rest stays planned as a build of its own.
 * @throws Refusal `parts-short` with what is missing and how many could start, unless an owner overrides it
 */
export async function startBuild(doing: Doing, id: number, input: StartInput): Promise<BuildDetail> {
  const { tx } = doing;
  const today = dayOf(doing.now);
  const planned = found(await buildRecord(tx, id));
  requireState(planned, 'planned');
  const quantity =
    input.quantity === undefined ? planned.quantity : positiveQuantity(input.quantity, planned.decimals, 'quantity');
  if (quantity > planned.quantity) throw new Refusal('more-than-planned', { left: planned.quantity }, 'quantity');
  if (input.override) ownersOnly(doing.person);
  const build = { ...planned, quantity };
  const short = await shortFor(doing, build);
  if (short && !input.override) throw short;
  if (quantity < planned.quantity) await splitBuild(doing, planned, (planned.quantity - quantity) as Quantity);
  const overridden = short && input.override ? input.override.reason : null;
  const values = { state: 'on-bench', quantity, started_at: doing.now.toISOString(), override_reason: overridden };
  await updateVersioned(tx, 'build', id, input.version, values, () => readBuild(tx, id, today));
  await keepLines(tx, { ...build, state: 'on-bench' }, await buildLines(tx, id));
  if (overridden !== null) {
    const at = doing.now.toISOString();
    await tx.insert('put_right', { build_id: id, reason: overridden, person_id: doing.person.id, at });
  }
  doing.changed('builds', 'stock', 'items');
  return readBuild(tx, id, today);
}

/** What is missing for `build`, as the refusal to send it to the bench; undefined when nothing is. */
async function shortFor(doing: Doing, build: BuildRecord): Promise<Refusal | undefined> {
  const { tx } = doing;
  const whole = found(await buildRecord(tx, build.id));
  const lines = await buildLines(tx, build.id);
  if (build.quantity < whole.quantity) await keepLines(tx, build, lines);
  const shares = await readShares(tx, dayOf(doing.now));
  const allotment = found(shares.allotments.get(build.id));
  if (allotment.short.size === 0) return undefined;
  const items = await itemRows(tx, [...allotment.short.keys()]);
  const missing = [...allotment.short].map(([itemId, { quantity: short, wholeOn, isComing }]) => {
    const got = allotment.got.get(itemId) ?? 0;
    const { code, name, unit, definition_id: definitionId } = found(items.get(itemId));
    return {
      itemId,
      code,
      name,
      unit,
      definitionId,
      needed: got + short,
      got,
      short,
      comesOn: wholeOn,
      isComing,
    };
  });
  return new Refusal('parts-short', { lines: missing, canStart: canStart(build, shares) });
}

/** Cancels a build; what stands on the bench for it goes back to the bins it came from. */
export async function cancelBuild(doing: Doing, id: number, version: number): Promise<BuildDetail> {
  const { tx } = doing;
  const today = dayOf(doing.now);
  const build = found(await buildRecord(tx, id));
  if (!isOpen(build.state)) throw new Refusal('wrong-state', { is: build.state, must: 'planned or on the bench' });
  const lines = await buildLines(tx, id);
  const standing = lines.filter((line) => line.on_bench > 0);
  const changes = new Map<number, LineChange>();
  if (standing.length > 0) {
    const posting = new Posting(
      await readStock(
        tx,
        standing.flatMap((line) => line.item_id ?? []),
      ),
    );
    const leftovers = await leftoversOf(tx, build);
    for (const line of standing) {
      leftovers.putBack(posting, line, line.on_bench as Quantity);
      changes.set(line.id, { onBench: -line.on_bench, used: 0 });
    }
    await writeDocument(doing, { kind: 'put-back', buildId: id, remark: `${build.number} cancelled` }, posting.close());
  }
  const state = build.finished > 0 ? 'finished' : 'cancelled';
  const values = { state, ended_at: doing.now.toISOString() };
  await updateVersioned(tx, 'build', id, version, values, () => readBuild(tx, id, today));
  await keepLines(tx, { ...build, state }, lines, changes);
  await settleStartOverride(doing, id);
  doing.changed('builds', 'stock', 'items');
  return readBuild(tx, id, today);
}

/** A build that went ahead short needs no eye once it is over. */
export const settleStartOverride = (doing: Doing, buildId: number) =>
  doing.tx.run('UPDATE put_right SET settled_at = $1 WHERE build_id = $2 AND item_id IS NULL AND settled_at IS NULL', [
    doing.now.toISOString(),
    buildId,
  ]);

interface PickInput {
  readonly lines: readonly (Named & { lineId: number; binId: number; quantity: string })[];
  readonly override?: Override | undefined;
}

/** Brings parts from bins to the bench, as one document. */
export async function pickParts(doing: Doing, id: number, input: PickInput) {
  const { tx } = doing;
  const build = found(await buildRecord(tx, id));
  requireState(build, 'on-bench');
  const lines = await buildLines(tx, id);
  const posting = new Posting(
    await readStock(
      tx,
      lines.flatMap((line) => line.item_id ?? []),
    ),
    {
      mayGoBelow: mayGoBelow(doing, input.override),
    },
  );
  const bench = await benchOf(tx, build.output_bin_id);
  const items = await itemRows(
    tx,
    lines.flatMap((line) => line.item_id ?? []),
  );
  const changes = new Map<number, LineChange>();
  for (const [index, asked] of input.lines.entries()) {
    const line = lines.find((known) => known.id === asked.lineId && known.kind === 'part');
    if (!line) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    await requireShelf(tx, asked.binId, `lines.${index}.binId`);
    const field = `lines.${index}.quantity`;
    const quantity = positiveQuantity(asked.quantity, line.decimals, field);
    const brought = changes.get(line.id)?.onBench ?? 0;
    checkPick((line.open - brought) as Quantity, quantity, field);
    const item = found(items.get(line.item_id ?? 0));
    const at = (name: string) => `lines.${index}.${name}`;
    const taking = { toUse: true, overridden: input.override !== undefined };
    for (const taken of await placesOut(tx, posting, item, asked.binId, quantity, asked, at, taking))
      posting.move(taken.place, { ...taken.place, binId: bench, buildId: id }, taken.quantity, line.id);
    changes.set(line.id, { onBench: brought + quantity, used: 0 });
  }
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(doing, { kind: 'pick', buildId: id, override: input.override }, posted);
  await keepLines(tx, build, lines, changes);
  doing.changed('builds');
  return { documentId: document.id, number: document.number, build: await readBuild(tx, id, dayOf(doing.now)) };
}

export function requireState(build: BuildRecord, state: 'planned' | 'on-bench'): void {
  if (build.state === state) return;
  const words = { planned: 'planned', 'on-bench': 'on the bench', finished: 'finished', cancelled: 'cancelled' };
  throw new Refusal('wrong-state', { is: words[build.state], must: words[state] });
}
