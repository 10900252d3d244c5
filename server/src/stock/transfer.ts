import type { StockDocument } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { Posting } from '@yosegi/core/stock';
import { positiveQuantity } from '../http/amounts.ts';
import type { Doing } from '../http/context.ts';
import { itemRows } from '../items/store.ts';
import { requireShelf } from '../places/store.ts';
import { readDocument } from './documents.ts';
import { mayGoBelow, type Override, readStock, writeDocument } from './posting.ts';
import { withNames } from './shortage.ts';
import { type Named, placesOut } from './tracked.ts';

interface TransferInput {
  readonly remark: string;
  readonly lines: readonly (Named & { itemId: number; fromBinId: number; toBinId: number; quantity: string })[];
  readonly override?: Override | undefined;
}

/** Moves goods between bins in one document; what an item is worth in all stays as it was. */
export async function transfer(doing: Doing, input: TransferInput): Promise<StockDocument> {
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
    const quantity = positiveQuantity(line.quantity, item.decimals, at('quantity'));
    const taking = { toUse: false, overridden: input.override !== undefined };
    for (const taken of await placesOut(tx, posting, item, from.id, quantity, line, at, taking))
      posting.move(taken.place, { ...taken.place, binId: to.id }, taken.quantity);
  }
  const posted = await withNames(tx, () => posting.close());
  const start = { kind: 'transfer' as const, remark: input.remark, override: input.override };
  const { id } = await writeDocument(doing, start, posted);
  return readDocument(tx, id);
}
