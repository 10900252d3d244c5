import type { Posted, PutRight } from '@yosegi/contract';
import { negated } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { type Doing, required, requireRight } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { adjust } from './adjust.ts';
import { openPutRight, type PutRightRow, usableInBins } from './sql.ts';
import { transfer } from './transfer.ts';

export async function listPutRight(db: Reader): Promise<PutRight[]> {
  const rows = await openPutRight(db);
  const shelves = await usableInBins(
    db,
    rows.flatMap((row) => row.itemId ?? []),
  );
  return rows.map(({ lot, lotId, ...row }) => ({
    ...row,
    bin: row.bin !== null && lot !== null ? `${row.bin}, lot ${lot}` : row.bin,
    quantity: decimalOrNull(row.quantity),
    // Only a bin that has all of it: half a settlement would leave the rest on the list.
    elsewhere: shelves
      .filter((shelf) => shelf.item_id === row.itemId && shelf.bin_id !== row.binId && shelf.lot_id === lotId)
      .filter((shelf) => row.quantity !== null && shelf.quantity >= -row.quantity)
      .map((shelf) => ({ binId: shelf.bin_id, bin: shelf.bin, quantity: decimal(shelf.quantity) })),
  }));
}

type Settling =
  | { readonly by: 'adjustment'; readonly reasonId: number; readonly remark: string }
  | { readonly by: 'transfer'; readonly fromBinId: number; readonly remark: string }
  | { readonly by: 'seen'; readonly remark: string };

/**
 * Settles one override in one step. What went below zero is brought to zero by what was really there or came from another
 * bin; what no posting can settle is settled by an owner having looked.
 * @throws Refusal `settled-already`, `not-below-zero`
 */
export async function settle(doing: Doing, id: number, settling: Settling): Promise<{ document: Posted | null }> {
  const { tx, person, now } = doing;
  const row = (await openPutRight(tx)).find((one) => one.id === id);
  if (!row) {
    required(await tx.models.put_right.findByPk(id));
    throw new Refusal('settled-already');
  }
  const document = settling.by === 'seen' ? null : await bringToZero(doing, row, settling);
  if (settling.by === 'seen') requireRight(person, 'override');
  const settled = { settled_at: now.toISOString(), settled_by: person.id, remark: settling.remark };
  await tx.models.put_right.update(settled, { where: { id } });
  doing.changed('stock', 'builds');
  return { document };
}

async function bringToZero(
  doing: Doing,
  row: PutRightRow,
  settling: Exclude<Settling, { by: 'seen' }>,
): Promise<Posted> {
  const { itemId, binId, lot, quantity, source } = row;
  if (itemId === null || binId === null || quantity === null) throw new Refusal('not-below-zero');
  const remark = settling.remark || `Puts ${source} right`;
  const missing = negated(quantity);
  const named = { lot, serials: [] };
  if (settling.by === 'transfer') {
    const line = { itemId, fromBinId: settling.fromBinId, toBinId: binId, quantity: missing, ...named };
    return transfer(doing, { remark, lines: [line] });
  }
  const line = { itemId, binId, change: missing, unitCost: null, bestBefore: null, attributes: {}, ...named };
  return adjust(doing, { reasonId: settling.reasonId, remark, jobTag: '', lines: [line] });
}
