import type { Reason, StockDocument } from '@yosegi/contract';
import { parseQuantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { Posting, placeOf, postAdjustment } from '@yosegi/core/stock';
import type { Reader } from '../db/database.ts';
import { moneyOrNull } from '../http/amounts.ts';
import type { Doing } from '../http/context.ts';
import { itemRows } from '../items/store.ts';
import { requireShelf } from '../places/store.ts';
import { readDocument } from './documents.ts';
import { mayGoBelow, type Override, readStock, writeDocument } from './posting.ts';
import { withNames } from './shortage.ts';

interface AdjustInput {
  readonly reasonId: number;
  readonly remark: string;
  readonly lines: readonly { itemId: number; binId: number; change: string; unitCost: string | null }[];
  readonly override?: Override | undefined;
}

/** Brings the books to what is really there: one document, one reason. */
export async function adjust(doing: Doing, input: AdjustInput): Promise<StockDocument> {
  const { tx } = doing;
  if (!(await tx.one('SELECT 1 FROM reason WHERE id = $1', [input.reasonId])))
    throw new Refusal('unknown-choice', {}, 'reasonId');
  const itemIds = input.lines.map((line) => line.itemId);
  const items = await itemRows(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds), { mayGoBelow: mayGoBelow(doing, input.override) });
  for (const [index, line] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, at('itemId'));
    const bin = await requireShelf(tx, line.binId, at('binId'));
    const change = parseQuantity(line.change, item.decimals, at('change'));
    const unitCost = moneyOrNull(line.unitCost, at('unitCost'));
    try {
      postAdjustment(posting, { place: placeOf(item.id, bin.id), change, unitCost });
    } catch (error) {
      if (error instanceof Refusal && error.field)
        throw new Refusal(error.code, { ...error.facts, name: item.name }, at(error.field));
      throw error;
    }
  }
  const posted = await withNames(tx, () => posting.close());
  const { remark, override, reasonId } = input;
  const { id } = await writeDocument(doing, { kind: 'adjustment', remark, override, reasonId }, posted);
  return readDocument(tx, id);
}

export const listReasons = (db: Reader) => db.all<Reason>('SELECT id, name FROM reason ORDER BY name COLLATE NOCASE');

export async function createReason(doing: Doing, name: string): Promise<Reason> {
  const { tx } = doing;
  const taken = await tx.one('SELECT 1 FROM reason WHERE name = $1', [name]);
  if (taken) throw new Refusal('code-taken', { code: name, by: 'another reason' }, 'name');
  const id = await tx.insert('reason', { name });
  doing.changed('stock');
  return { id, name };
}
