import type { Money, Quantity } from '@yosegi/core/number';
import {
  type OrderDocument,
  type TradeParty,
  writeOrder,
  writeOrderCancellation,
  writeOrderChange,
} from '@yosegi/core/ubl';

/** One product in the basket. */
export interface BasketLine {
  readonly code: string;
  readonly name: string;
  readonly unit: string;
  readonly quantity: Quantity;
  /** What the shop shows for one. */
  readonly price: Money;
}

export interface ShopOrderFacts {
  /** The shop's own number of the order. */
  readonly number: string;
  readonly today: string;
  readonly currency: string;
  readonly wantedOn: string | null;
  readonly note: string;
  readonly buyer: TradeParty;
  /** What the seller calls the buyer; empty for somebody new. */
  readonly buyerCode: string;
  readonly seller: TradeParty;
  readonly lines: readonly BasketLine[];
}

/** Stands in for a web shop: what its visitors order, as the standard's own documents. */
export const shopOrder = (facts: ShopOrderFacts): string =>
  // Where it goes is what the visitor typed, whoever else the seller knows by that name.
  writeOrder({ ...documentOf(facts), deliverTo: facts.buyer.address });

/** The same order as it is to be now. @param sequence which of its changes this is */
export const shopChange = (facts: ShopOrderFacts, sequence: number): string =>
  writeOrderChange(documentOf(facts), sequence);

export const shopCancellation = (
  facts: Pick<ShopOrderFacts, 'number' | 'today' | 'buyer' | 'buyerCode' | 'seller'>,
  why: string,
): string => writeOrderCancellation({ ...facts, issuedOn: facts.today, why });

/** A line is called by its product, so that a change finds it again. */
const documentOf = ({ lines, today, ...facts }: ShopOrderFacts): OrderDocument => ({
  ...facts,
  issuedOn: today,
  deliverTo: [],
  sellerCode: '',
  lines: lines.map(({ code, ...line }) => ({
    ...line,
    id: code,
    wantedOn: null,
    code: '',
    supplierCode: code,
    gtin: null,
  })),
});
