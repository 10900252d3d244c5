import type { Item, PurchaseOrder, SupplierDetail } from '@yosegi/contract';

type Need = PurchaseOrder['lines'][number]['needs'][number];
export interface DraftLine {
  readonly key: number;
  readonly item: Pick<Item, 'id' | 'code' | 'name' | 'unit' | 'decimals' | 'measures'>;
  readonly quantity: string;
  readonly price: string;
  /** The price that stood there before anybody typed one. */
  readonly proposed: string;
  readonly wantedOn: string;
  readonly needs: readonly Need[];
  readonly orders: PurchaseOrder['lines'][number]['orders'];
}
export type Offers = SupplierDetail['offers'];
