import { messageKinds, orderStandings } from '@yosegi/core/orders';
import { z } from 'zod';
import { Positive } from './amounts.ts';
import { Day, Decimal, Id, Numbered, route, ShortText } from './common.ts';

const MESSAGES = { tag: 'Orders' } as const;
const SHOP = { tag: 'Devices' } as const;

/** What the shop's visitor has put into the basket. */
const Basket = z.array(z.object({ itemId: Id, quantity: Positive })).max(50);

const ShopOrder = z.object({
  id: Id,
  /** Ours, and what the shop calls it. */
  number: z.string(),
  theirs: z.string(),
  customer: z.string(),
  standing: z.enum(orderStandings),
  wantedOn: z.string().nullable(),
  at: z.string(),
  lines: z.array(z.object({ itemId: Id, name: z.string(), unit: z.string(), quantity: Decimal })),
  messages: z.array(z.object({ kind: z.enum(messageKinds), at: z.string() })),
  shipments: z.array(z.object({ id: Id, number: z.string(), tracking: z.string() })),
});
export type ShopOrder = z.infer<typeof ShopOrder>;

export const messageRoutes = {
  takeOrderMessage: route({
    ...MESSAGES,
    right: 'sell',
    method: 'POST',
    path: '/api/order-messages',
    summary:
      'Receive a message from a customer or a shop: a UBL Order, OrderChange or OrderCancellation. A repeated message changes nothing',
    body: z.object({ content: z.string().min(1).max(500_000) }),
    /** Whether it was confirmed at once; an order at other prices than ours waits as a quote. */
    response: Numbered.extend({ standing: z.enum(orderStandings), isNew: z.boolean() }),
  }),
  shop: route({
    ...SHOP,
    right: 'look',
    method: 'GET',
    path: '/api/devices/shop',
    summary: 'The stand-in for a shop: what it sells, and the orders it has sent',
    response: z.object({
      products: z.array(z.object({ itemId: Id, code: z.string(), name: z.string(), unit: z.string(), price: Decimal })),
      orders: z.array(ShopOrder),
    }),
  }),
  shopSends: route({
    ...SHOP,
    right: 'sell',
    method: 'POST',
    path: '/api/devices/shop',
    summary: 'Let the stand-in for a shop send, change or cancel an order',
    body: z.discriminatedUnion('does', [
      z.object({
        does: z.literal('order'),
        buyer: z.string().trim().min(1).max(200),
        email: z.union([z.literal(''), z.email()]).default(''),
        address: z.string().trim().max(400).default(''),
        wantedOn: Day.nullable().default(null),
        lines: Basket.min(1),
        note: ShortText.default(''),
      }),
      z.object({
        does: z.literal('change'),
        orderId: Id,
        wantedOn: Day.nullable().default(null),
        lines: Basket.min(1),
      }),
      z.object({ does: z.literal('cancel'), orderId: Id, why: z.string().trim().min(3).max(200) }),
      /** The last message of an order once more, as lost connections do. */
      z.object({ does: z.literal('again'), orderId: Id }),
    ]),
    response: Numbered.extend({ standing: z.enum(orderStandings), isNew: z.boolean() }),
  }),
};
