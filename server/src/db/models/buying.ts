import type { KeptOrderState, MailDirection, MailKind, SentHow } from '@yosegi/core/buying';
import type { Money, Quantity } from '@yosegi/core/number';
import { flag, integer, key, maybe, primary, ref, text, version } from './columns.ts';

export const supplier = {
  id: key(),
  code: text(),
  name: text(),
  version: version(),
  address: text(''),
  email: text(''),
  learn_leads: flag(1),
  delivery_days: text('[1,2,3,4,5,6,7]'),
};

export const purchaseOrder = {
  id: key(),
  number: text(),
  supplier_id: ref('supplier'),
  state: text<KeptOrderState>(),
  wanted_on: maybe(text()),
  remark: text(''),
  reference: text(''),
  made_at: text(),
  made_by: ref('person'),
  sent_at: maybe(text()),
  sent_by: maybe(ref('person')),
  sent_how: maybe(text<SentHow>()),
  confirmed_at: maybe(text()),
  version: version(),
  job_tag: text(''),
};

export const purchaseOrderLine = {
  id: key(),
  order_id: ref('purchase_order', 'CASCADE'),
  position: integer(),
  item_id: ref('item'),
  supplier_code: text(''),
  quantity: integer<Quantity>(),
  price: integer<Money>(),
  wanted_on: maybe(text()),
  confirmed_quantity: maybe(integer<Quantity>()),
  confirmed_on: maybe(text()),
  expected_on: maybe(text()),
  promised_on: maybe(text()),
  received: integer<Quantity>(0),
  closed: flag(0),
  open: integer<Quantity>(0),
};

export const purchaseNeed = {
  line_id: primary(ref('purchase_order_line', 'CASCADE')),
  build_id: primary(ref('build')),
  quantity: integer<Quantity>(),
};

export const receipt = {
  document_id: primary(ref('document')),
  supplier_id: maybe(ref('supplier')),
  order_id: maybe(ref('purchase_order')),
  delivery_note: text(''),
};

export const receiptLine = {
  id: key(),
  document_id: ref('receipt'),
  order_line_id: maybe(ref('purchase_order_line')),
  item_id: ref('item'),
  bin_id: ref('bin'),
  lot_id: maybe(integer()),
  serial_ids: maybe(text()),
  quantity: integer<Quantity>(),
  value: integer<Money>(),
  unit_cost: maybe(integer<Money>()),
};

export const priceDifferenceLine = {
  document_id: primary(ref('document')),
  receipt_line_id: primary(ref('receipt_line')),
  value_before: integer<Money>(),
  value_after: integer<Money>(),
  into_stock: integer<Money>(),
  gone: integer<Money>(),
  unit_cost: maybe(integer<Money>()),
};

export const purchaseForOrder = {
  line_id: primary(ref('purchase_order_line', 'CASCADE')),
  order_id: primary(ref('sales_order')),
  quantity: integer<Quantity>(),
};

export const mail = {
  id: key(),
  order_id: ref('purchase_order'),
  direction: text<MailDirection>(),
  kind: text<MailKind>(),
  at: text(),
  subject: text(),
  content: text(),
  document_id: maybe(ref('document')),
};
