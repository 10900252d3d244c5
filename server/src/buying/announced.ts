import type { Announced, PurchaseLine } from '@yosegi/contract';
import { type Despatch, readDespatchAdvice } from '@yosegi/core/ubl';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';

/** Deliveries that were announced for an order, the oldest first, with the receipt each became. */
export async function despatchesOf(
  db: Reader,
  orderId: number,
  which: { readonly document_id?: null } = {},
): Promise<{ readonly mailId: number; readonly documentId: number | null; readonly despatch: Despatch }[]> {
  const rows = await db.models.mail.findAll({
    where: { order_id: orderId, kind: 'despatch-advice', ...which },
    order: ['id'],
    limit: which.document_id === null ? 1 : 200,
  });
  return rows.map(({ id, document_id, content }) => ({
    mailId: id,
    documentId: document_id,
    despatch: readDespatchAdvice(content),
  }));
}

/** The oldest delivery that was announced and has not been received; null when there is none. */
export async function announcedOf(
  db: Reader,
  orderId: number,
  lines: readonly { readonly id: number; readonly position: number; readonly tracking: PurchaseLine['tracking'] }[],
): Promise<Announced | null> {
  const [waiting] = await despatchesOf(db, orderId, { document_id: null });
  if (!waiting) return null;
  return {
    mailId: waiting.mailId,
    deliveryNote: waiting.despatch.number,
    lines: waiting.despatch.lines.flatMap(({ orderLine, quantity, lot, bestBefore, serials }) => {
      const line = lines.find((one) => String(one.position) === orderLine);
      if (!line) return [];
      // What an item is not kept by is left on the paper.
      const byLot = line.tracking === 'lot';
      return {
        lineId: line.id,
        quantity: decimal(quantity),
        lot: byLot ? lot : null,
        bestBefore: byLot ? bestBefore : null,
        serials: line.tracking === 'serial' ? [...serials] : [],
      };
    }),
  };
}
