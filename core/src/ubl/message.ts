import { Refusal } from '../refusal/index.ts';
import { type Despatch, readDespatchAdvice } from './despatch.ts';
import { type Cancellation, type OrderDocument, readOrder, readOrderCancellation, readOrderChange } from './order.ts';
import { type OrderPromise, readOrderResponse } from './response.ts';
import { ublKind } from './xml.ts';

/** A business document that somebody sent, by what it is. */
export type Message =
  | { readonly kind: 'Order' | 'OrderChange'; readonly document: OrderDocument }
  | { readonly kind: 'OrderCancellation'; readonly document: Cancellation }
  | { readonly kind: 'OrderResponse'; readonly document: OrderPromise }
  | { readonly kind: 'DespatchAdvice'; readonly document: Despatch };

/** Reads whatever document a text is. @throws Refusal `ubl-unreadable` */
export function readMessage(xml: string): Message {
  const kind = ublKind(xml);
  if (kind === 'Order') return { kind, document: readOrder(xml) };
  if (kind === 'OrderChange') return { kind, document: readOrderChange(xml) };
  if (kind === 'OrderCancellation') return { kind, document: readOrderCancellation(xml) };
  if (kind === 'OrderResponse') return { kind, document: readOrderResponse(xml) };
  if (kind === 'DespatchAdvice') return { kind, document: readDespatchAdvice(xml) };
  throw new Refusal('ubl-unreadable', { why: 'it is not a kind of document that can be read here' });
}
