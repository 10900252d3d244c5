import { type Money, type Quantity, sumForText, worthForText } from '../number/index.ts';
import {
  amountOf,
  type Element,
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
  readonly seller: TradeParty;
  readonly sellerCode: string;
  readonly lines: readonly OrderLineDocument[];
}

/** A purchase order as a UBL 2.3 Order (OASIS UBL 2.3, Order schema): every element in the order of the standard. */
export function writeOrder(order: OrderDocument): string {
  const total = sumForText(order.lines.map(({ quantity, price }) => worthForText(quantity, price)));
  return writeUbl('Order', {
    'cbc:ID': order.number,
    'cbc:IssueDate': order.issuedOn,
    'cbc:Note': order.note || undefined,
    'cbc:DocumentCurrencyCode': order.currency,
    'cbc:LineCountNumeric': String(order.lines.length),
    'cac:BuyerCustomerParty': { 'cac:Party': partyOf(order.buyer) },
    'cac:SellerSupplierParty': {
      'cbc:CustomerAssignedAccountID': order.sellerCode,
      'cac:Party': partyOf(order.seller),
    },
    'cac:Delivery': wanted(order.wantedOn),
    'cac:AnticipatedMonetaryTotal': {
      'cbc:LineExtensionAmount': amountOf(total, order.currency),
      'cbc:PayableAmount': amountOf(total, order.currency),
    },
    'cac:OrderLine': order.lines.map((line) => ({ 'cac:LineItem': lineItem(line, order.currency) })),
  });
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
    'cbc:LineExtensionAmount': amountOf(worthForText(line.quantity, line.price), currency),
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
  return {
    number: root.needed('ID'),
    issuedOn: root.day('IssueDate') ?? '',
    currency: root.text('DocumentCurrencyCode') ?? '',
    note: root.text('Note') ?? '',
    wantedOn: root.at('Delivery')?.day('RequestedDeliveryPeriod/EndDate') ?? null,
    buyer: readParty(root.at('BuyerCustomerParty/Party')),
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
