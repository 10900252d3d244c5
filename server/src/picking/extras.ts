import { Posting } from '@yosegi/core/ledger';
import { add, countedIn, minus, negated, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { buildLines, buildRecord, keepLines, leftoversOf, needOf, requireOpen, requireState } from '../builds/index.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { packedAmong } from '../definitions/index.ts';
import { itemRow, refuseTooMuch } from '../items/index.ts';
import { readStock, withNames, writeDocument } from '../ledger/index.ts';
import { nextPosition } from '../tasks/index.ts';
import { pickParts } from './pick.ts';
import { standForLess } from './stand-in.ts';

/**
 * Adds a part to a build because of what lies on its bench: a line of its own, with who and why, brought there at once
 * where a bin is named.
 * @throws Refusal `unknown-item`, `item-archived`, `part-of-itself`, `part-is-packed`, `wrong-state`, and what picking refuses
 */
export async function addPart(doing: Doing, buildId: number, input: BodyOf<'addPart'>) {
  const { tx, person } = doing;
  const build = found(await buildRecord(tx, buildId));
  requireOpen(build);
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, 'itemId');
  if (item.id === build.item_id) throw new Refusal('part-of-itself', { name: item.name }, 'itemId');
  const packed = await packedAmong(tx, [item.id]);
  if (packed) throw new Refusal('part-is-packed', { part: packed.code }, 'itemId');
  const amount = countedIn(input.quantity, item.decimals, 'quantity');
  const { id: lineId } = await tx.models.build_line.create({
    build_id: buildId,
    position: await nextPosition(tx, buildId),
    kind: 'part',
    item_id: item.id,
    basis: 'per-run',
    amount,
    taken: 'picked-first',
    added_by: person.id,
    added_because: input.because,
  });
  await keepLines(tx, build, await buildLines(tx, buildId));
  await refuseTooMuch(tx, [item.id], 'quantity');
  doing.changed('builds', 'stock', 'items');
  if (input.binId === null) return { lineId, document: null };
  const { binId, quantity, lot, serials, override } = input;
  const lines = [{ lineId, binId, quantity, lot, serials }];
  const document = await named(() => pickParts(doing, buildId, { lines, override }));
  return { lineId, document };
}

/** Fields of the one line that is picked bear the names of this form. */
async function named<T>(pick: () => Promise<T>): Promise<T> {
  try {
    return await pick();
  } catch (error) {
    throw error instanceof Refusal ? error.at(error.field?.replace(/^lines\.0\./, '')) : error;
  }
}

/**
 * Takes some of a part back from the bench, to the bin it came from. Of what the definition says it stays open; of what was
 * added it is needed no more.
 * @throws Refusal `unknown-line`, `more-than-bench` with what could come back
 */
export async function takeBack(doing: Doing, buildId: number, input: BodyOf<'takeBack'>) {
  const { tx } = doing;
  const build = found(await buildRecord(tx, buildId));
  requireState(build, 'on-bench');
  const lines = await buildLines(tx, buildId);
  const line = lines.find((one) => one.id === input.lineId && one.kind === 'part');
  if (!line) throw new Refusal('unknown-line', {}, 'lineId');
  const quantity = countedIn(input.quantity, line.decimals, 'quantity');
  const unused = needOf(line).extra ?? line.on_bench;
  if (quantity > unused) throw new Refusal('more-than-bench', { left: unused }, 'quantity');
  // What was added and not brought yet needs no way back.
  const back = line.added_by === null ? quantity : extraOnBench(minus(unused, quantity), line.on_bench);
  const document = back > 0 ? await post(doing, build, line, back, input.serials) : null;
  if (line.added_by !== null) {
    const amount = add(line.used, minus(unused, quantity));
    await tx.models.build_line.update({ amount }, { where: { id: line.id } });
    if (line.instead_of !== null) await standForLess(tx, line, amount);
  }
  const changes = new Map([[line.id, { onBench: negated(back), used: ZERO }]]);
  await keepLines(tx, build, await buildLines(tx, buildId), changes);
  doing.changed('builds', 'stock', 'items');
  return { document };
}

/** What stands on the bench beyond what is still needed of it. */
const extraOnBench = (needed: Quantity, onBench: Quantity): Quantity => Math.max(0, onBench - needed) as Quantity;

async function post(
  doing: Doing,
  build: Parameters<typeof leftoversOf>[1] & { readonly number: string },
  line: { readonly id: number; readonly item_id: number | null },
  quantity: Quantity,
  serials: readonly string[],
) {
  const { tx } = doing;
  const posting = new Posting(await readStock(tx, [line.item_id ?? 0]));
  const leftovers = await leftoversOf(tx, build);
  leftovers.putBack(posting, line, quantity, serials);
  const posted = await withNames(tx, () => posting.close());
  const subject = { kind: 'put-back', for: { kind: 'build', id: build.id } } as const;
  return writeDocument(doing, { ...subject, remark: `Taken back from ${build.number}` }, posted);
}
