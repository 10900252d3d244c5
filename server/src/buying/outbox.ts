import type { Mail } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { Refusal } from '@yosegi/core/refusal';
import { type OrderDocument, type TradeParty, writeOrder } from '@yosegi/core/ubl';
import { type Doing, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { orderLines, orderRecord } from './sql.ts';

const linesOf = (address: string) =>
  address
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** Both parties of an order, as its papers name them. */
export async function partiesOf(db: Reader, supplierId: number): Promise<{ buyer: TradeParty; seller: TradeParty }> {
  const party = ({ name, address, email }: { name: string; address: string; email: string }): TradeParty => ({
    name,
    address: linesOf(address),
    email: email || null,
  });
  return {
    buyer: party(required(await db.models.company.findByPk(1))),
    seller: party(required(await db.models.supplier.findByPk(supplierId))),
  };
}

/** An order as a document: what is printed, sent and handed over says the same. */
export async function orderDocument(db: Reader, id: number, now: Date): Promise<OrderDocument> {
  const order = await orderRecord(db, id);
  const company = required(await db.models.company.findByPk(1));
  return {
    number: order.number,
    issuedOn: dayOf(order.sent_at === null ? now : new Date(order.sent_at)),
    currency: company.currency,
    note: order.remark,
    wantedOn: order.wanted_on,
    ...(await partiesOf(db, order.supplier_id)),
    buyerCode: '',
    deliverTo: [],
    sellerCode: order.supplier_code,
    lines: (await orderLines(db, [id])).map((line) => ({
      id: String(line.position),
      quantity: line.quantity,
      unit: line.unit,
      price: line.price,
      wantedOn: line.wanted_on,
      name: line.name,
      code: line.code,
      supplierCode: line.supplier_code,
      gtin: line.barcode && /^\d{8,14}$/.test(line.barcode) ? line.barcode : null,
    })),
  };
}

/** Puts an order into the supplier's mailbox. @throws Refusal `supplier-no-mail` */
export async function postOrder(doing: Doing, id: number): Promise<void> {
  const document = await orderDocument(doing.tx, id, doing.now);
  if (document.seller.email === null) throw new Refusal('supplier-no-mail', { name: document.seller.name });
  await post(doing, id, 'order', `Order ${document.number} of ${document.buyer.name}`, writeOrder(document));
}

/** Puts a plain message into the supplier's mailbox. */
export const postWords = (doing: Doing, id: number, kind: 'change' | 'cancellation', words: string) =>
  post(doing, id, kind, words, words);

async function post({ tx, now }: Doing, orderId: number, kind: Mail['kind'], subject: string, content: string) {
  await tx.insert('mail', { order_id: orderId, direction: 'out', kind, at: now.toISOString(), subject, content });
}
