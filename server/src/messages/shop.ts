import type { ShopOrder } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { Refusal } from '@yosegi/core/refusal';
import { type ShopOrderFacts, shopCancellation, shopChange, shopOrder } from '@yosegi/devices/shop';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { itemRows } from '../items/index.ts';
import { nextNumber } from '../ledger/index.ts';
import { readOrder } from '../orders/index.ts';
import { messagesOf, sentIn, soldInShop } from './sql.ts';
import { takeOrderMessage } from './take.ts';

type Sent = BodyOf<'shopSends'>;

/** What the stand-in for a shop sells, and the orders that came from it or any other sender of messages. */
export async function readShop(db: Reader, today: string) {
  const orders: ShopOrder[] = [];
  for (const { id } of await sentIn(db)) {
    const order = await readOrder(db, id, today);
    orders.push({
      id,
      number: order.number,
      theirs: order.reference,
      customer: order.customer,
      standing: order.standing,
      wantedOn: order.wantedOn,
      at: order.at,
      lines: order.lines.map(({ itemId, name, unit, quantity }) => ({ itemId, name, unit, quantity })),
      messages: (await messagesOf(db, id)).map(({ kind, at }) => ({ kind, at })),
      shipments: order.documents
        .filter(({ undone }) => !undone)
        .map((document) => ({ id: document.id, number: document.number, tracking: document.tracking })),
    });
  }
  const products = (await soldInShop(db)).map((product) => ({ ...product, price: decimal(product.price) }));
  return { products, orders };
}

/**
 * Lets the stand-in for a shop send something. It comes in by the same door as any message.
 * @throws Refusal `not-found`, `unknown-item`, and what the message is refused for
 */
export async function shopSends(doing: Doing, sent: Sent) {
  const { tx } = doing;
  if (sent.does === 'order') {
    const buyer = { name: sent.buyer, address: sent.address.split('\n').filter(Boolean), email: sent.email || null };
    const facts = await factsOf(doing, await nextNumber(tx, 'WS'), sent.lines, { buyer, buyerCode: '' });
    return takeOrderMessage(doing, shopOrder({ ...facts, wantedOn: sent.wantedOn, note: sent.note }));
  }
  const order = required(await tx.models.sales_order.findByPk(sent.orderId));
  const messages = await messagesOf(tx, sent.orderId);
  if (sent.does === 'again') return takeOrderMessage(doing, found(messages.at(-1)).content);
  const customer = required(await tx.models.customer.findByPk(order.customer_id));
  const who = {
    buyer: {
      name: customer.name,
      address: customer.billing.split('\n').filter(Boolean),
      email: customer.email || null,
    },
    buyerCode: customer.code,
  };
  const facts = await factsOf(doing, order.reference, sent.does === 'change' ? sent.lines : [], who);
  if (sent.does === 'cancel') return takeOrderMessage(doing, shopCancellation(facts, sent.why));
  const changed = { ...facts, wantedOn: sent.wantedOn ?? order.wanted_on, note: order.remark };
  return takeOrderMessage(doing, shopChange(changed, messages.length));
}

async function factsOf(
  { tx, now }: Doing,
  number: string,
  lines: readonly { readonly itemId: number; readonly quantity: ShopOrderFacts['lines'][number]['quantity'] }[],
  who: Pick<ShopOrderFacts, 'buyer' | 'buyerCode'>,
): Promise<ShopOrderFacts> {
  const company = required(await tx.models.company.findByPk(1));
  const items = await itemRows(
    tx,
    lines.map(({ itemId }) => itemId),
  );
  return {
    number,
    today: dayOf(now),
    currency: company.currency,
    wantedOn: null,
    note: '',
    ...who,
    seller: { name: company.name, address: company.address.split('\n').filter(Boolean), email: company.email || null },
    lines: lines.map(({ itemId, quantity }, index) => {
      const item = items.get(itemId);
      if (!item?.sell_price) throw new Refusal('unknown-item', {}, `lines.${index}.itemId`);
      return { code: item.code, name: item.name, unit: item.unit, quantity, price: item.sell_price };
    }),
  };
}
