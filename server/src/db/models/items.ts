import type { LotOrder, Source, Tracking } from '@yosegi/core/items';
import type { Money, Quantity } from '@yosegi/core/number';
import { blob, flag, integer, key, maybe, primary, ref, text, version } from './columns.ts';

export const unit = {
  id: key(),
  code: text(),
  name: text(),
  decimals: integer(),
  version: version(),
};

export const unitRelated = {
  unit_id: primary(ref('unit')),
  name: primary(text()),
  one: integer<Quantity>(),
};

export const rate = {
  id: key(),
  name: text(),
  per_hour: integer<Money>(),
};

export const item = {
  id: key(),
  code: text(),
  name: text(),
  unit_id: ref('unit'),
  source: text<Source>(),
  tracking: text<Tracking>('none'),
  home_bin_id: maybe(ref('bin')),
  sell_price: maybe(integer<Money>()),
  reorder_point: maybe(integer<Quantity>()),
  standard_cost: maybe(integer<Money>()),
  latest_cost: maybe(integer<Money>()),
  tax_free: flag(0),
  barcode: maybe(text()),
  note: text(''),
  archived_at: maybe(text()),
  version: version(),
  serial_pattern: maybe(text()),
  lot_order: text<LotOrder>('prescribed'),
  lot_fields: text('[]'),
  return_days: maybe(integer()),
};

export const itemPack = {
  item_id: primary(ref('item', 'CASCADE')),
  name: primary(text()),
  quantity: integer<Quantity>(),
};

export const itemField = {
  item_id: primary(ref('item', 'CASCADE')),
  name: primary(text()),
  value: text(),
};

export const itemSupplier = {
  item_id: primary(ref('item', 'CASCADE')),
  supplier_id: primary(ref('supplier')),
  code: text(''),
  price: integer<Money>(),
  pack: integer<Quantity>(1_000_000),
  minimum: integer<Quantity>(0),
  lead_days: maybe(integer()),
};

export const itemSupplierBreak = {
  item_id: primary(integer()),
  supplier_id: primary(integer()),
  from_quantity: primary(integer<Quantity>()),
  price: integer<Money>(),
};

export const picture = {
  item_id: primary(ref('item', 'CASCADE')),
  hash: text(),
  content: blob(),
};

export const savedView = {
  id: key(),
  person_id: ref('person'),
  list: text(),
  name: text(),
  search: text(),
};
