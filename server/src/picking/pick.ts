import { Posting } from '@yosegi/core/ledger';
import { add, countedIn, minus, ZERO } from '@yosegi/core/number';
import { checkPick } from '@yosegi/core/picking';
import { Refusal } from '@yosegi/core/refusal';
import { buildLines, buildRecord, keepLines, type LineChange, requireState } from '../builds/index.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { itemRows } from '../items/index.ts';
import { mayGoBelow, readStock, withNames, writeDocument } from '../ledger/index.ts';
import { benchBinOf, requireShelf } from '../places/index.ts';
import { heapsOut } from '../tracking/index.ts';

/**
 * Brings parts from bins to the bench, as one document. More than is asked for only where the build allows it.
 * @param causeId the document that it is undone with
 */
export async function pickParts(doing: Doing, id: number, input: BodyOf<'pick'>, causeId?: number) {
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
  const bench = await benchBinOf(tx, build.output_bin_id);
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
    const quantity = countedIn(asked.quantity, line.decimals, field);
    const brought = changes.get(line.id)?.onBench ?? ZERO;
    if (build.spare === 0) checkPick(minus(line.open, brought), quantity, field);
    const item = found(items.get(line.item_id ?? 0));
    const at = (name: string) => `lines.${index}.${name}`;
    const taking = { toUse: true, overridden: input.override !== undefined };
    for (const taken of await heapsOut(tx, posting, item, asked.binId, quantity, asked, at, taking))
      posting.move(taken.spot, { ...taken.spot, binId: bench, holder: { kind: 'build', id } }, taken.quantity, line.id);
    changes.set(line.id, { onBench: add(brought, quantity), used: ZERO });
  }
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(
    doing,
    { kind: 'pick', for: { kind: 'build', id }, override: input.override, ...causedBy(causeId) },
    posted,
  );
  await keepLines(tx, build, lines, changes);
  doing.changed('builds');
  const openLines = (await buildLines(tx, id)).filter((line) => line.taken === 'picked-first' && line.open > 0).length;
  return { ...document, openLines };
}

const causedBy = (causeId: number | undefined) => (causeId === undefined ? {} : { causeId });
