import type { Quantity } from '../number/index.ts';
import { type Element, partyOf, quantityOf, readUbl, type TradeParty, unitCodeOf, writeUbl } from './xml.ts';

/** What a supplier has sent off. */
export interface Despatch {
  /** The delivery note's number. */
  readonly number: string;
  readonly order: string;
  readonly issuedOn: string;
  readonly lines: readonly {
    /** The order's line. */
    readonly orderLine: string;
    readonly quantity: Quantity;
    readonly unit: string;
    readonly name: string;
    readonly lot: string | null;
    readonly bestBefore: string | null;
    readonly serials: readonly string[];
  }[];
}

/** Goods on their way as a UBL 2.3 DespatchAdvice, every element in the order of the standard. */
export function writeDespatchAdvice(despatch: Despatch, seller: TradeParty, buyer: TradeParty): string {
  return writeUbl('DespatchAdvice', {
    'cbc:ID': despatch.number,
    'cbc:IssueDate': despatch.issuedOn,
    'cac:OrderReference': { 'cbc:ID': despatch.order },
    'cac:DespatchSupplierParty': { 'cac:Party': partyOf(seller) },
    'cac:DeliveryCustomerParty': { 'cac:Party': partyOf(buyer) },
    'cac:DespatchLine': despatch.lines.map((line, index) => ({
      'cbc:ID': String(index + 1),
      'cbc:DeliveredQuantity': quantityOf(line.quantity, unitCodeOf(line.unit)),
      'cac:OrderLineReference': { 'cbc:LineID': line.orderLine, 'cac:OrderReference': { 'cbc:ID': despatch.order } },
      'cac:Item': { 'cbc:Name': line.name, 'cac:ItemInstance': instances(line) },
    })),
  });
}

function instances({ lot, bestBefore, serials }: Despatch['lines'][number]): readonly Element[] | undefined {
  if (serials.length > 0) return serials.map((serial) => ({ 'cbc:SerialID': serial }));
  if (lot === null) return undefined;
  return [{ 'cbc:BestBeforeDate': bestBefore ?? undefined, 'cac:LotIdentification': { 'cbc:LotNumberID': lot } }];
}

/** @throws Refusal `ubl-unreadable` */
export function readDespatchAdvice(xml: string): Despatch {
  const root = readUbl(xml, 'DespatchAdvice');
  return {
    number: root.needed('ID'),
    order: root.needed('OrderReference/ID'),
    issuedOn: root.day('IssueDate') ?? '',
    lines: root.all('DespatchLine').map((line) => {
      const pieces = line.at('Item')?.all('ItemInstance') ?? [];
      const lots = new Set(pieces.map((piece) => piece.text('LotIdentification/LotNumberID')));
      return {
        orderLine: line.needed('OrderLineReference/LineID'),
        quantity: line.quantity('DeliveredQuantity'),
        unit: line.attribute('DeliveredQuantity', 'unitCode') ?? '',
        name: line.text('Item/Name') ?? '',
        // Of several lots nobody says how much came of each: that is asked.
        lot: lots.size === 1 ? (pieces[0]?.text('LotIdentification/LotNumberID') ?? null) : null,
        bestBefore: lots.size === 1 ? (pieces[0]?.day('BestBeforeDate') ?? null) : null,
        serials: pieces.flatMap((piece) => piece.text('SerialID') ?? []),
      };
    }),
  };
}
