import type { Posted } from '@yosegi/contract';
import { overOfLine } from '@yosegi/core/buying';
import { add, countedIn, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { BodyOf, Doing } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { keepOpen, requireState } from './orders.ts';
import { addReceived, announcedMail, takeReceived } from './receipts.sql.ts';
import { receive } from './receipts.ts';
import { orderedOf, orderLines, orderRecord } from './sql.ts';

/**
 * Receives some or all of an order, in one document. A line may come in several pieces: other bins, other lots.
 * @throws Refusal `over-delivery` unless more was accepted, `wrong-state`, `unknown-line`, `delivery-received`
 */
export async function receiveOrder(
  doing: Doing,
  id: number,
  input: BodyOf<'receivePurchase'>,
): Promise<Posted & { openLines: number }> {
  const { tx } = doing;
  const order = await orderRecord(tx, id);
  requireState(order, ['sent', 'confirmed']);
  await refuseReceived(tx, id, input.mailId);
  const known = new Map((await orderLines(tx, [id])).map((line) => [line.id, line]));
  const coming = new Map<number, Quantity>();
  const lines = input.lines.map((own, index) => {
    const line = known.get(own.lineId);
    if (!line) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    const quantity = countedIn(own.quantity, line.decimals, `lines.${index}.quantity`);
    const sum = add(coming.get(line.id) ?? ZERO, quantity);
    coming.set(line.id, sum);
    const over = overOfLine(orderedOf(line), sum);
    if (over > 0 && !input.acceptOver)
      throw new Refusal('over-delivery', { name: line.name, over }, `lines.${index}.quantity`);
    const { lot, serials, bestBefore, attributes, binId, unitCost } = own;
    return {
      itemId: line.item_id,
      binId,
      quantity,
      unitCost,
      lot,
      serials,
      bestBefore,
      attributes,
      orderLineId: line.id,
    };
  });
  const { deliveryNote, remark } = input;
  const source = { supplierId: order.supplier_id, orderId: id, deliveryNote };
  const document = await receive(doing, { kind: 'receipt', remark, lines }, source);
  const closed = input.lines.filter((line) => line.closeRest).map((line) => line.lineId);
  await addReceived(tx, coming);
  await tx.models.purchase_order_line.update({ closed: 1 }, { where: { id: closed } });
  await tx.models.purchase_order.increment('version', { where: { id } });
  if (input.mailId !== null) await tx.models.mail.update({ document_id: document.id }, { where: { id: input.mailId } });
  await keepOpen(doing, id);
  return { ...document, openLines: (await orderLines(tx, [id])).filter((line) => line.open > 0).length };
}

async function refuseReceived(tx: Writer, orderId: number, mailId: number | null): Promise<void> {
  if (mailId === null) return;
  const mail = await announcedMail(tx, orderId, mailId);
  if (!mail) throw new Refusal('unknown-choice', {}, 'mailId');
  if (mail.number !== null) throw new Refusal('delivery-received', { number: mail.number });
}

/** Takes what an undone receipt had brought off its order again; what it closed is open once more. */
export async function takeOffOrder(doing: Doing, documentId: number): Promise<void> {
  const { tx } = doing;
  const receipt = await tx.models.receipt.findByPk(documentId);
  if (!receipt || receipt.order_id === null) return;
  await takeReceived(tx, documentId);
  await tx.models.mail.update({ document_id: null }, { where: { document_id: documentId } });
  await tx.models.purchase_order.increment('version', { where: { id: receipt.order_id } });
  await keepOpen(doing, receipt.order_id);
}
