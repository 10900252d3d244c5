import { type Money, worthOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { Posting, placeOf } from '@yosegi/core/stock';
import { moneyFromZero, positiveQuantity } from '../http/amounts.ts';
import type { Doing } from '../http/context.ts';
import { itemRows } from '../items/store.ts';
import { requireShelf } from '../places/store.ts';
import { readDocument } from './documents.ts';
import { readStock, writeDocument } from './posting.ts';

interface ReceiveInput {
  readonly kind: 'receipt' | 'opening';
  readonly remark: string;
  readonly lines: readonly { itemId: number; binId: number; quantity: string; unitCost: string }[];
}

/** Brings goods in at what they cost; the latest cost of each item follows. */
export async function receive(doing: Doing, input: ReceiveInput) {
  const { tx } = doing;
  const itemIds = input.lines.map((line) => line.itemId);
  const items = await itemRows(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds));
  const latest = new Map<number, Money>();
  for (const [index, line] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, at('itemId'));
    const bin = await requireShelf(tx, line.binId, at('binId'));
    const quantity = positiveQuantity(line.quantity, item.decimals, at('quantity'));
    const unitCost = moneyFromZero(line.unitCost, at('unitCost'));
    const value = worthOf(quantity, unitCost);
    posting.addValue(input.kind === 'opening' ? 'opening' : 'supplier', value, { itemId: item.id });
    posting.bringIn(placeOf(item.id, bin.id), quantity, value);
    latest.set(item.id, unitCost);
  }
  const { id } = await writeDocument(doing, { kind: input.kind, remark: input.remark }, posting.close());
  await tx.run('UPDATE item SET latest_cost = v.value ->> 1 FROM json_each($1) v WHERE item.id = v.value ->> 0', [
    JSON.stringify([...latest]),
  ]);
  return readDocument(tx, id);
}
