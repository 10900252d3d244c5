import type { ShopOrder } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { groupBy } from '@yosegi/core/lists';
import type { Money } from '@yosegi/core/number';
import { standingOf } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { type ShopOrderFacts, shopCancellation, shopChange, shopOrder } from '@yosegi/devices/shop';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { itemRows } from '../items/index.ts';
import { nextNumber } from '../ledger/index.ts';
import { orderLines, orderRecords, pricesFor } from '../orders/index.ts';
import { messagesOf, sentIn, shipmentsIn, soldInShop } from './sql.ts';
import { knownCustomer, takeOrderMessage } from './take.ts';

type Sent = BodyOf<'shopSends'>;

/** What the stand-in for a shop sells, and the orders that came from it or any other sender of messages. */
export async function readShop(db: Reader) {
  const ids = (await sentIn(db)).map(({ id }) => id);
  const records = await orderRecords(db, ids);
  const lines = groupBy(await orderLines(db, ids), ({ order_id }) => order_id);
  const messages = groupBy(await messagesOf(db, ids), ({ orderId }) => orderId);
  const shipments = groupBy(await shipmentsIn(db, ids), ({ orderId }) => orderId);
  const orders = records.reverse().map((order): ShopOrder => {
    const own = lines.get(order.id) ?? [];
    return {
      id: order.id,
      number: order.number,
      theirs: order.reference,
      customer: order.customer,
      standing: standingOf(order.state, own),
      wantedOn: order.wanted_on,
      at: order.made_at,
      lines: own.map(({ item_id: itemId, name, unit, quantity }) => ({
        itemId,
        name,
        unit,
        quantity: decimal(quantity),
      })),
      messages: (messages.get(order.id) ?? []).map(({ kind, at }) => ({ kind, at })),
      shipments: (shipments.get(order.id) ?? []).map(({ id, number, tracking }) => ({ id, number, tracking })),
    };
  });
  const sold = await soldInShop(db);
  const prices = await pricesFor(
    db,
    null,
    sold.map(({ itemId }) => itemId),
  );
  const products = sold.flatMap((product) => {
    const price = prices.get(product.itemId);
    return price === undefined ? [] : [{ ...product, price: decimal(price) }];
  });
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
    const known = await knownCustomer(tx, buyer, '');
    const prices = await pricesFor(
      tx,
      known?.id ?? null,
      sent.lines.map(({ itemId }) => itemId),
    );
    const facts = await factsOf(doing, await nextNumber(tx, 'WS'), sent.lines, prices, { buyer, buyerCode: '' });
    return takeOrderMessage(doing, shopOrder({ ...facts, wantedOn: sent.wantedOn, note: sent.note }));
  }
  const order = required(await tx.models.sales_order.findByPk(sent.orderId));
  const messages = await messagesOf(tx, [sent.orderId]);
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
  const lines = sent.does === 'change' ? sent.lines : [];
  const facts = await factsOf(doing, order.reference, lines, await pricesIn(doing, order, lines), who);
  if (sent.does === 'cancel') return takeOrderMessage(doing, shopCancellation(facts, sent.why));
  const changed = { ...facts, wantedOn: sent.wantedOn ?? order.wanted_on, note: order.remark };
  return takeOrderMessage(doing, shopChange(changed, messages.length));
}

/** What was agreed of an order, and what else costs its customer. */
async function pricesIn(
  { tx }: Doing,
  order: { readonly id: number; readonly customer_id: number },
  lines: readonly { readonly itemId: number }[],
): Promise<ReadonlyMap<number, Money>> {
  const ids = lines.map(({ itemId }) => itemId);
  const agreed = (await orderLines(tx, [order.id])).map((line): [number, Money] => [line.item_id, line.price]);
  return new Map([...(await pricesFor(tx, order.customer_id, ids)), ...agreed]);
}

async function factsOf(
  { tx, now }: Doing,
  number: string,
  lines: readonly { readonly itemId: number; readonly quantity: ShopOrderFacts['lines'][number]['quantity'] }[],
  prices: ReadonlyMap<number, Money>,
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
      const price = prices.get(itemId);
      if (!item || price === undefined) throw new Refusal('unknown-item', {}, `lines.${index}.itemId`);
      return { code: item.code, name: item.name, unit: item.unit, quantity, price };
    }),
  };
}
