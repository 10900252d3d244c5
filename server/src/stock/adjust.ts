import type { Posted, Reason } from '@yosegi/contract';
import { Posting, postAdjustment } from '@yosegi/core/ledger';
import { countedIn, type Quantity } from '@yosegi/core/number';
import { isRefusal, Refusal } from '@yosegi/core/refusal';
import type { BodyOf, Doing } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { itemRows } from '../items/index.ts';
import { mayGoBelow, ownCostsOf, readStock, withNames, writeDocument } from '../ledger/index.ts';
import { requireShelf } from '../places/index.ts';
import { heapsIn, heapsOut } from '../tracking/index.ts';

/** Brings the books to what is really there: one document, one reason. */
export async function adjust(doing: Doing, input: BodyOf<'adjust'>): Promise<Posted> {
  const { tx } = doing;
  if (!(await tx.models.reason.findOne({ where: { id: input.reasonId, used_for: 'adjustment' } })))
    throw new Refusal('unknown-choice', {}, 'reasonId');
  const itemIds = input.lines.map((line) => line.itemId);
  const items = await itemRows(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds), { mayGoBelow: mayGoBelow(doing, input.override) });
  for (const [index, line] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, at('itemId'));
    const bin = await requireShelf(tx, line.binId, at('binId'));
    const change = countedIn(line.change, item.decimals, at('change'));
    if (change === 0) throw new Refusal('no-change', {}, at('change'));
    const taking = { toUse: false, overridden: input.override !== undefined };
    const standing =
      change > 0
        ? await heapsIn(doing, item, bin.id, change, line, at, { mayReturn: true })
        : await heapsOut(tx, posting, item, bin.id, -change as Quantity, line, at, taking);
    const own =
      change > 0
        ? await ownCostsOf(
            tx,
            standing.flatMap(({ spot }) => spot.serialId ?? []),
          )
        : new Map();
    try {
      for (const { spot, quantity } of standing)
        postAdjustment(posting, {
          spot,
          change: (change > 0 ? quantity : -quantity) as Quantity,
          // A serial that was here before comes back at its own cost, unless its worth is told.
          unitCost: line.unitCost ?? own.get(spot.serialId ?? 0) ?? null,
        });
    } catch (error) {
      throw isRefusal(error, 'cost-unknown') ? error.at(at('unitCost'), { name: item.name }) : error;
    }
  }
  const posted = await withNames(tx, () => posting.close());
  const { remark, override, reasonId, jobTag } = input;
  return writeDocument(doing, { kind: 'adjustment', remark, override, reasonId, jobTag }, posted);
}

export const listReasons = async (db: Reader): Promise<Reason[]> =>
  (await db.models.reason.findAll({ order: ['name'] })).map(({ id, name, used_for }) => ({
    id,
    name,
    usedFor: used_for,
  }));

export async function createReason(doing: Doing, { name, usedFor }: Omit<Reason, 'id'>): Promise<Reason> {
  const { tx } = doing;
  const taken = await tx.models.reason.findOne({ where: { name } });
  if (taken) throw new Refusal('code-taken', { code: name, by: 'another reason' }, 'name');
  const id = await tx.insert('reason', { name, used_for: usedFor });
  doing.changed('stock');
  return { id, name, usedFor };
}
