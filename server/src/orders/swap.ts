import type { Numbered } from '@yosegi/contract';
import { takenOf } from '@yosegi/core/demand';
import { ZERO } from '@yosegi/core/number';
import { type Content, withWishes } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { numbered } from '../db/versions.ts';
import { itemRow, refuseTooMuch } from '../items/index.ts';
import { contentsOfLine, readKits } from './contents.ts';
import { touched } from './parcels.ts';
import { orderLines, orderParts, orderRecord } from './sql.ts';
import { requireState } from './state.ts';

/**
 * Puts what is listed to stand in for a part of a kit into the whole of a line, because the part itself is not there. What
 * was agreed stays agreed, its price too.
 * @throws Refusal `wrong-state`, `unknown-line`, `not-an-alternate`, `kit-locked`, `kit-no-swaps`, `kit-has-left`,
 * `parcel-first`
 */
export async function swapPart(doing: Doing, orderId: number, input: BodyOf<'swapPart'>): Promise<Numbered> {
  const { tx } = doing;
  requireState(found(await orderRecord(tx, orderId)), ['confirmed']);
  const lines = await orderLines(tx, [orderId]);
  const parts = await orderParts(
    tx,
    lines.map(({ id }) => id),
  );
  const part = parts.find(({ id }) => id === input.partId);
  const line = lines.find(({ id }) => id === part?.line_id);
  if (!part || !line) throw new Refusal('unknown-line', {}, 'partId');
  const own = parts.filter(({ line_id }) => line_id === line.id);
  const kits = await readKits(tx, [line.item_id], line.revision_id === null ? [] : [line.revision_id]);
  const contents = contentsOfLine(kits, line, own);
  const swap = contents.swaps.get(part.position)?.find(({ itemId }) => itemId === input.itemId);
  const item = await itemRow(tx, input.itemId);
  if (!swap || !item || item.archived_at !== null) {
    const { name } = found(await itemRow(tx, part.item_id));
    throw new Refusal('not-an-alternate', { name: item?.name ?? 'That', part: name }, 'itemId');
  }
  if (line.shipped > 0) throw new Refusal('kit-has-left', {}, 'partId');
  if (part.packed > 0) {
    const { name } = found(await itemRow(tx, part.item_id));
    throw new Refusal('parcel-first', { name, packed: part.packed, needed: ZERO, parcel: 'the parcel' }, 'partId');
  }
  const amount = takenOf(part.base_amount, swap.ratio, item.decimals);
  const wishes = own.map((one) =>
    one.id === part.id
      ? { position: one.position, itemId: item.id, amount }
      : { position: one.position, itemId: one.item_id, amount: one.amount },
  );
  // The kit's own rule says whether anything in it may be another thing.
  const filling: Content[] = withWishes(contents.base, wishes, contents.rule, contents.swaps);
  if (filling.length !== own.length) throw new Refusal('unknown-line', {}, 'partId');
  await tx.models.build_for.destroy({ where: { part_id: part.id } });
  await tx.models.order_part.update({ item_id: item.id, amount }, { where: { id: part.id } });
  await touched(doing, orderId);
  await refuseTooMuch(tx, [item.id], 'itemId');
  doing.changed('picks');
  return numbered(tx, 'sales_order', orderId);
}
