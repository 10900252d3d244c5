import type { PartOut } from '@yosegi/core/builds';
import { countedIn, type Money, type Quantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { itemRow } from '../items/index.ts';
import { requireShelf, usualBin } from '../places/index.ts';
import { heapsIn } from '../tracking/index.ts';

type Typed = BodyOf<'finish'>['out'][number];

/** A part that a rework took out, with what it is and how much of it. */
export interface TakenOut extends PartOut {
  readonly itemId: number;
  readonly quantity: Quantity;
}

/**
 * What a rework took out of its unit, and where it goes.
 * @throws Refusal `unknown-item`, `unknown-bin`, and what goods that come in can be refused for
 */
export async function partsOut(doing: Doing, typed: readonly Typed[]): Promise<TakenOut[]> {
  const out: TakenOut[] = [];
  for (const [index, part] of typed.entries()) {
    const at = (name: string) => `out.${index}.${name}`;
    const item = await itemRow(doing.tx, part.itemId);
    if (!item) throw new Refusal('unknown-item', {}, at('itemId'));
    const quantity = countedIn(part.quantity, item.decimals, at('quantity'));
    const { went, share } = part;
    if (went !== 'stock') {
      out.push({ itemId: item.id, quantity, went, share, standing: [] });
      continue;
    }
    const bin = await requireShelf(doing.tx, part.binId ?? (await usualBin(doing.tx, item.home_bin_id)), at('binId'));
    const standing = await heapsIn(doing, item, bin.id, quantity, part, at, { mayReturn: true });
    out.push({ itemId: item.id, quantity, went, share, standing });
  }
  return out;
}

/** Keeps with the document what came out and what it took with it. */
export const keepOut = (tx: Writer, documentId: number, out: readonly TakenOut[], worth: readonly Money[]) =>
  tx.insertMany(
    'finish_out',
    out.map(({ itemId, quantity, went, share }, position) => ({
      document_id: documentId,
      position,
      item_id: itemId,
      quantity,
      went,
      share,
      value: found(worth[position]),
    })),
  );
