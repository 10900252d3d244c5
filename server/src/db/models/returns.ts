import type { Money, Percent, Quantity } from '@yosegi/core/number';
import type { Condition, Outcome } from '@yosegi/core/returns';
import { blob, flag, integer, key, maybe, primary, ref, text, version } from './columns.ts';

export const goodsReturn = {
  id: key(),
  number: text(),
  customer_id: ref('customer'),
  remark: text(''),
  expected_on: maybe(text()),
  made_at: text(),
  made_by: ref('person'),
  document_id: maybe(ref('document')),
  arrived_at: maybe(text()),
  called_off: maybe(text()),
  version: version(),
};

export const returnLine = {
  id: key(),
  return_id: ref('goods_return'),
  shipment_id: ref('shipment'),
  line_id: ref('order_line'),
  quantity: integer<Quantity>(),
  reason_id: ref('reason'),
  condition: text<Condition>(),
  remark: text(''),
  price: integer<Money>(),
  credit: integer<Percent>(),
  serials: text('[]'),
  lots: text('[]'),
  replaced: flag(0),
};

export const returnPiece = {
  id: key(),
  return_line_id: ref('return_line'),
  document_id: ref('document'),
  part_id: integer(),
  item_id: ref('item'),
  lot_id: maybe(integer()),
  serial_id: maybe(integer()),
  quantity: integer<Quantity>(),
  value: integer<Money>(),
};

export const returnOutcome = {
  document_id: primary(ref('document')),
  position: primary(integer()),
  piece_id: ref('return_piece'),
  quantity: integer<Quantity>(),
  value: integer<Money>(),
  outcome: text<Outcome>(),
  bin_id: maybe(ref('bin')),
  build_id: maybe(ref('build')),
  note: text(''),
};

export const returnPicture = {
  return_id: primary(ref('goods_return')),
  hash: text(),
  content: blob(),
};
