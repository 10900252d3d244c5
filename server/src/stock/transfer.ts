import type { Posted } from '@yosegi/contract';
import { Posting } from '@yosegi/core/ledger';
import { countedIn } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { BodyOf, Doing } from '../command/doing.ts';
import { itemRows } from '../items/index.ts';
import { mayGoBelow, readStock, withNames, writeDocument } from '../ledger/index.ts';
import { requireShelf } from '../places/index.ts';
import { heapsOut } from '../tracking/index.ts';

/** Moves goods between bins in one document; what an item is worth in all stays as it was. */
export async function transfer(doing: Doing, input: BodyOf<'transfer'>): Promise<Posted> {
  const { tx } = doing;
  const itemIds = input.lines.map((line) => line.itemId);
  const items = await itemRows(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds), { mayGoBelow: mayGoBelow(doing, input.override) });
  for (const [index, line] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, at('itemId'));
    if (line.fromBinId === line.toBinId) throw new Refusal('same-bin', {}, at('toBinId'));
    const from = await requireShelf(tx, line.fromBinId, at('fromBinId'));
    const to = await requireShelf(tx, line.toBinId, at('toBinId'));
    const quantity = countedIn(line.quantity, item.decimals, at('quantity'));
    const taking = { toUse: false, overridden: input.override !== undefined };
    for (const taken of await heapsOut(tx, posting, item, from.id, quantity, line, at, taking))
      posting.move(taken.spot, { ...taken.spot, binId: to.id }, taken.quantity);
  }
  const posted = await withNames(tx, () => posting.close());
  const start = { kind: 'transfer' as const, remark: input.remark, override: input.override };
  return writeDocument(doing, start, posted);
}
