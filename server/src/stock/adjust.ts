import type { Reason, StockDocument } from '@yosegi/contract';
import { parseQuantity, type Quantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { Posting, postAdjustment } from '@yosegi/core/stock';
import type { Reader } from '../db/database.ts';
import { moneyOrNull } from '../http/amounts.ts';
import type { Doing } from '../http/context.ts';
import { itemRows } from '../items/store.ts';
import { requireShelf } from '../places/store.ts';
import { ownCostsOf } from './costs.ts';
import { readDocument } from './documents.ts';
import { mayGoBelow, type Override, readStock, writeDocument } from './posting.ts';
import { withNames } from './shortage.ts';
import { type NamedIn, placesIn, placesOut } from './tracked.ts';

interface AdjustInput {
  readonly reasonId: number;
  readonly remark: string;
  readonly lines: readonly (NamedIn & { itemId: number; binId: number; change: string; unitCost: string | null })[];
  readonly override?: Override | undefined;
}

/** Brings the books to what is really there: one document, one reason. */
export async function adjust(doing: Doing, input: AdjustInput): Promise<StockDocument> {
  const { tx } = doing;
  if (!(await tx.one("SELECT 1 FROM reason WHERE id = $1 AND used_for = 'adjustment'", [input.reasonId])))
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
    if (change === 0) throw new Refusal('no-change', {}, at('change'));
    const taking = { toUse: false, overridden: input.override !== undefined };
    const standing =
      change > 0
        ? await placesIn(doing, item, bin.id, change, line, at, { mayReturn: true })
        : await placesOut(tx, posting, item, bin.id, -change as Quantity, line, at, taking);
    const own =
      change > 0
        ? await ownCostsOf(
            tx,
            standing.flatMap(({ place }) => place.serialId ?? []),
          )
        : new Map();
    try {
      for (const { place, quantity } of standing)
        postAdjustment(posting, {
          place,
          change: (change > 0 ? quantity : -quantity) as Quantity,
          // A serial that was here before comes back at its own cost, unless its worth is told.
          unitCost: unitCost ?? own.get(place.serialId ?? 0) ?? null,
        });
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

export const listReasons = (db: Reader) =>
  db.all<Reason>('SELECT id, name, used_for AS usedFor FROM reason ORDER BY name COLLATE NOCASE');

export async function createReason(doing: Doing, { name, usedFor }: Omit<Reason, 'id'>): Promise<Reason> {
  const { tx } = doing;
  const taken = await tx.one('SELECT 1 FROM reason WHERE name = $1', [name]);
  if (taken) throw new Refusal('code-taken', { code: name, by: 'another reason' }, 'name');
  const id = await tx.insert('reason', { name, used_for: usedFor });
  doing.changed('stock');
  return { id, name, usedFor };
}
