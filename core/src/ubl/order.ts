import { decimalsOf, lineAmount, type Money, type Quantity, sumForText } from '../number/index.ts';
import {
  amountOf,
  type Element,
  type Node,
  partyOf,
  quantityOf,
  readParty,
  readUbl,
  type TradeParty,
  unitCodeOf,
  writeUbl,
} from './xml.ts';

export interface OrderLineDocument {
  readonly id: string;
  readonly quantity: Quantity;
  /** The stock unit's code, like kg. */
  readonly unit: string;
  /** For one of the unit. */
  readonly price: Money;
  /** ISO day it is wanted on; null for the order's own. */
  readonly wantedOn: string | null;
  readonly name: string;
  readonly code: string;
  /** What the supplier calls it; empty when unknown. */
  readonly supplierCode: string;
  readonly gtin: string | null;
}

export interface OrderDocument {
  readonly number: string;
  /** ISO day. */
  readonly issuedOn: string;
  readonly currency: string;
  readonly note: string;
  readonly wantedOn: string | null;
  readonly buyer: TradeParty;
  /** What the seller calls the buyer; empty when unknown. */
  readonly buyerCode: string;
  /** Lines of the address the goods go to; empty for the buyer's own. */
  readonly deliverTo: readonly string[];
  readonly seller: TradeParty;
  /** What the buyer calls the seller. */
  readonly sellerCode: string;
  readonly lines: readonly OrderLineDocument[];
}

/** A purchase order as a UBL 2.3 Order (OASIS UBL 2.3, Order schema): every element in the order of the standard. */
export const writeOrder = (order: OrderDocument): string => writeUbl('Order', contentOf(order, {}));

/**
 * An order that was sent before, as it is to be now, as a UBL 2.3 OrderChange.
 * @param sequence which of its changes this is, from 1
 */
export const writeOrderChange = (order: OrderDocument, sequence: number): string =>
  writeUbl('OrderChange', contentOf(order, { sequence }));

/** What an Order and an OrderChange have in common, in the order that both have it in. */
function contentOf(order: OrderDocument, { sequence }: { readonly sequence?: number }): Element {
  const decimals = decimalsOf(order.currency);
  const total = sumForText(order.lines.map(({ quantity, price }) => lineAmount(quantity, price, decimals)));
  return {
    'cbc:ID': sequence === undefined ? order.number : `${order.number}-${sequence}`,
    'cbc:IssueDate': order.issuedOn,
    'cbc:SequenceNumberID': sequence === undefined ? undefined : String(sequence),
    'cbc:Note': order.note || undefined,
    'cbc:DocumentCurrencyCode': order.currency,
    'cbc:LineCountNumeric': String(order.lines.length),
    'cac:OrderReference': sequence === undefined ? undefined : { 'cbc:ID': order.number },
    'cac:BuyerCustomerParty': {
      'cbc:SupplierAssignedAccountID': order.buyerCode || undefined,
      'cac:Party': partyOf(order.buyer),
    },
    'cac:SellerSupplierParty': {
      'cbc:CustomerAssignedAccountID': order.sellerCode || undefined,
      'cac:Party': partyOf(order.seller),
    },
    'cac:Delivery': delivery(order),
    'cac:AnticipatedMonetaryTotal': {
      'cbc:LineExtensionAmount': amountOf(total, order.currency),
      'cbc:PayableAmount': amountOf(total, order.currency),
    },
    'cac:OrderLine': order.lines.map((line) => ({ 'cac:LineItem': lineItem(line, order.currency) })),
  };
}

function delivery({ wantedOn, deliverTo }: OrderDocument): Element | undefined {
  if (wantedOn === null && deliverTo.length === 0) return undefined;
  return {
    'cac:DeliveryAddress':
      deliverTo.length === 0 ? undefined : { 'cac:AddressLine': deliverTo.map((line) => ({ 'cbc:Line': line })) },
    ...wanted(wantedOn),
  };
}

const wanted = (day: string | null): Element | undefined =>
  day === null ? undefined : { 'cac:RequestedDeliveryPeriod': { 'cbc:EndDate': day } };

function lineItem(line: OrderLineDocument, currency: string): Element {
  const unitCode = unitCodeOf(line.unit);
  return {
    'cbc:ID': line.id,
    // A unit that the standard has no code for is said in words.
    'cbc:Note': unitCode === null ? `Quantity in ${line.unit}` : undefined,
    'cbc:Quantity': quantityOf(line.quantity, unitCode),
    'cbc:LineExtensionAmount': amountOf(lineAmount(line.quantity, line.price, decimalsOf(currency)), currency),
    'cac:Delivery': wanted(line.wantedOn),
    'cac:Price': {
      'cbc:PriceAmount': amountOf(line.price, currency),
      'cbc:BaseQuantity': quantityOf(1_000_000 as Quantity, unitCode),
    },
    'cac:Item': {
      'cbc:Name': line.name,
      'cac:BuyersItemIdentification': { 'cbc:ID': line.code },
      'cac:SellersItemIdentification': line.supplierCode ? { 'cbc:ID': line.supplierCode } : undefined,
      'cac:StandardItemIdentification':
        line.gtin === null ? undefined : { 'cbc:ID': { '#text': line.gtin, '@schemeID': '0160' } },
    },
  };
}

/** Reads what {@link writeOrder} or another sender wrote. @throws Refusal `ubl-unreadable` */
export function readOrder(xml: string): OrderDocument {
  const root = readUbl(xml, 'Order');
  return documentOf(root, root.needed('ID'));
}

/** Reads an order as it is to be now; its number is the one it was sent under. @throws Refusal `ubl-unreadable` */
export function readOrderChange(xml: string): OrderDocument {
  const root = readUbl(xml, 'OrderChange');
  return documentOf(root, root.needed('OrderReference/ID'));
}

function documentOf(root: Node, number: string): OrderDocument {
  return {
    number,
    issuedOn: root.day('IssueDate') ?? '',
    currency: root.text('DocumentCurrencyCode') ?? '',
    note: root.text('Note') ?? '',
    wantedOn: root.at('Delivery')?.day('RequestedDeliveryPeriod/EndDate') ?? null,
    buyer: readParty(root.at('BuyerCustomerParty/Party')),
    buyerCode: root.text('BuyerCustomerParty/SupplierAssignedAccountID') ?? '',
    deliverTo:
      root
        .at('Delivery/DeliveryAddress')
        ?.all('AddressLine')
        .flatMap((line) => line.text('Line') ?? []) ?? [],
    seller: readParty(root.at('SellerSupplierParty/Party')),
    sellerCode: root.text('SellerSupplierParty/CustomerAssignedAccountID') ?? '',
    lines: root.all('OrderLine').map((line) => ({
      id: line.needed('LineItem/ID'),
      quantity: line.quantity('LineItem/Quantity'),
      unit: line.attribute('LineItem/Quantity', 'unitCode') ?? '',
      price: line.quantity('LineItem/Price/PriceAmount') as number as Money,
      wantedOn: line.at('LineItem/Delivery')?.day('RequestedDeliveryPeriod/EndDate') ?? null,
      name: line.text('LineItem/Item/Name') ?? '',
      code: line.text('LineItem/Item/BuyersItemIdentification/ID') ?? '',
      supplierCode: line.text('LineItem/Item/SellersItemIdentification/ID') ?? '',
      gtin: line.text('LineItem/Item/StandardItemIdentification/ID'),
    })),
  };
}

/** An order that is not wanted any more. */
export interface Cancellation {
  readonly number: string;
  readonly issuedOn: string;
  readonly why: string;
  readonly buyer: TradeParty;
  readonly buyerCode: string;
  readonly seller: TradeParty;
}

/** A cancellation as a UBL 2.3 OrderCancellation, every element in the order of the standard. */
export const writeOrderCancellation = (own: Cancellation): string =>
  writeUbl('OrderCancellation', {
    'cbc:ID': `${own.number}-X`,
    'cbc:IssueDate': own.issuedOn,
    'cbc:CancellationNote': own.why,
    'cac:OrderReference': { 'cbc:ID': own.number },
    'cac:BuyerCustomerParty': {
      'cbc:SupplierAssignedAccountID': own.buyerCode || undefined,
      'cac:Party': partyOf(own.buyer),
    },
    'cac:SellerSupplierParty': { 'cac:Party': partyOf(own.seller) },
  });

/** @throws Refusal `ubl-unreadable` */
export function readOrderCancellation(xml: string): Cancellation {
  const root = readUbl(xml, 'OrderCancellation');
  return {
    number: root.needed('OrderReference/ID'),
    issuedOn: root.day('IssueDate') ?? '',
    why: root.text('CancellationNote') ?? '',
    buyer: readParty(root.at('BuyerCustomerParty/Party')),
    buyerCode: root.text('BuyerCustomerParty/SupplierAssignedAccountID') ?? '',
    seller: readParty(root.at('SellerSupplierParty/Party')),
  };
}
