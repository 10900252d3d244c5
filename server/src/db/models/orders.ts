import type { Basis } from '@yosegi/core/definitions';
import type { Money, Percent, Quantity } from '@yosegi/core/number';
import type { CameBy, Delivery, MessageKind, OrderState, PriceSource } from '@yosegi/core/orders';
import { flag, integer, key, maybe, primary, ref, text, version } from './columns.ts';

export const customer = {
  id: key(),
  code: text(),
  name: text(),
  contact: text(''),
  email: text(''),
  phone: text(''),
  billing: text(''),
  delivery: text(''),
  discount: integer<Percent>(0),
  transport_days: maybe(integer()),
  note: text(''),
  archived_at: maybe(text()),
  version: version(),
  return_days: maybe(integer()),
};

export const customerField = {
  customer_id: primary(ref('customer', 'CASCADE')),
  name: primary(text()),
  value: text(),
};

export const salesOrder = {
  id: key(),
  number: text(),
  customer_id: ref('customer'),
  reference: text(''),
  state: text<OrderState>(),
  wanted_on: maybe(text()),
  delivery: text<Delivery>(),
  remark: text(''),
  bench_note: text(''),
  reason: text(''),
  made_at: text(),
  made_by: ref('person'),
  confirmed_at: maybe(text()),
  open: flag(0),
  version: version(),
  packing: integer(0),
  job_tag: text(''),
  turn_on: maybe(text()),
  came_by: text<CameBy>('typed'),
  deliver_to: text(''),
  split_from_id: maybe(ref('sales_order')),
  order_discount: integer<Percent>(0),
  freight: integer<Money>(0),
};

export const orderLine = {
  id: key(),
  order_id: ref('sales_order', 'CASCADE'),
  position: integer(),
  item_id: ref('item'),
  revision_id: maybe(ref('revision')),
  output_quantity: integer<Quantity>(),
  quantity: integer<Quantity>(),
  price: integer<Money>(),
  price_from: text<PriceSource>(),
  wanted_on: maybe(text()),
  shipped: integer<Quantity>(0),
  dropped: integer<Quantity>(0),
  their_line: text(''),
  discount: integer<Percent>(0),
  list_price: integer<Money>(0),
};

export const orderChange = {
  id: key(),
  order_id: ref('sales_order'),
  at: text(),
  person_id: ref('person'),
  item_id: ref('item'),
  before: integer<Quantity>(),
  after: integer<Quantity>(),
};

export const orderMessage = {
  id: key(),
  order_id: ref('sales_order'),
  kind: text<MessageKind>(),
  at: text(),
  hash: text(),
  content: text(),
};

export const orderPart = {
  id: key(),
  line_id: ref('order_line', 'CASCADE'),
  position: integer(),
  item_id: ref('item'),
  basis: text<Basis>(),
  amount: integer<Quantity>(),
  waste: integer<Percent>(0),
  base_item_id: ref('item'),
  base_amount: integer<Quantity>(),
  shipped: integer<Quantity>(0),
  open: integer<Quantity>(0),
  packed: integer<Quantity>(0),
};

export const parcel = {
  id: key(),
  number: text(),
  order_id: ref('sales_order'),
  opened_at: text(),
  shipped_id: maybe(ref('shipment')),
};

export const buildFor = {
  build_id: primary(ref('build')),
  part_id: primary(ref('order_part', 'CASCADE')),
  quantity: integer<Quantity>(),
  kept: integer<Quantity>(0),
};

export const shipment = {
  document_id: primary(ref('document')),
  order_id: ref('sales_order'),
  carrier: text(''),
  tracking: text(''),
};

export const shipmentLine = {
  document_id: primary(ref('shipment')),
  line_id: primary(ref('order_line')),
  quantity: integer<Quantity>(),
  price: integer<Money>(),
  cost: integer<Money>(),
};
