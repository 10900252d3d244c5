import type { Quantity } from '../number/index.ts';
import { partyOf, quantityOf, readUbl, type TradeParty, unitCodeOf, writeUbl } from './xml.ts';

/** What a supplier promises of an order. */
export interface OrderPromise {
  /** The supplier's own number. */
  readonly number: string;
  /** The buyer's order that it answers. */
  readonly order: string;
  readonly issuedOn: string;
  readonly note: string;
  readonly lines: readonly {
    /** The order's line. */
    readonly id: string;
    readonly quantity: Quantity;
    readonly unit: string;
    readonly name: string;
    /** ISO day it is promised for; null when none is said. */
    readonly promisedOn: string | null;
  }[];
}

/** A promise as a UBL 2.3 OrderResponse, every element in the order of the standard. */
export function writeOrderResponse(promise: OrderPromise, seller: TradeParty, buyer: TradeParty): string {
  return writeUbl('OrderResponse', {
    'cbc:ID': promise.number,
    'cbc:IssueDate': promise.issuedOn,
    'cbc:Note': promise.note || undefined,
    'cac:OrderReference': { 'cbc:ID': promise.order },
    'cac:SellerSupplierParty': { 'cac:Party': partyOf(seller) },
    'cac:BuyerCustomerParty': { 'cac:Party': partyOf(buyer) },
    'cac:OrderLine': promise.lines.map((line) => ({
      'cac:LineItem': {
        'cbc:ID': line.id,
        'cbc:Quantity': quantityOf(line.quantity, unitCodeOf(line.unit)),
        'cac:Delivery':
          line.promisedOn === null ? undefined : { 'cac:PromisedDeliveryPeriod': { 'cbc:EndDate': line.promisedOn } },
        'cac:Item': { 'cbc:Name': line.name },
      },
    })),
  });
}

/** @throws Refusal `ubl-unreadable` */
export function readOrderResponse(xml: string): OrderPromise {
  const root = readUbl(xml, 'OrderResponse');
  return {
    number: root.needed('ID'),
    order: root.needed('OrderReference/ID'),
    issuedOn: root.day('IssueDate') ?? '',
    note: root.text('Note') ?? '',
    lines: root.all('OrderLine').map((line) => ({
      id: line.needed('LineItem/ID'),
      quantity: line.quantity('LineItem/Quantity'),
      unit: line.attribute('LineItem/Quantity', 'unitCode') ?? '',
      name: line.text('LineItem/Item/Name') ?? '',
      promisedOn: line.at('LineItem/Delivery')?.day('PromisedDeliveryPeriod/EndDate') ?? null,
    })),
  };
}
