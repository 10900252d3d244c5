import type { CountState } from '@yosegi/core/counts';
import type { Money, Quantity } from '@yosegi/core/number';
import { integer, key, maybe, ref, text, version } from './columns.ts';

export const stockCount = {
  id: key(),
  number: text(),
  scope: text(),
  state: text<CountState>(),
  begun_at: text(),
  begun_by: ref('person'),
  document_id: maybe(ref('document')),
  version: version(),
};

export const stockCountLine = {
  id: key(),
  count_id: ref('stock_count'),
  item_id: ref('item'),
  bin_id: ref('bin'),
  lot_id: maybe(integer()),
  counted: maybe(integer<Quantity>()),
  expected: maybe(integer<Quantity>()),
  seen: maybe(text()),
  booked: maybe(text()),
  counted_at: maybe(text()),
  counted_by: maybe(ref('person')),
  counted_after: maybe(integer()),
  unit_cost: maybe(integer<Money>()),
};

export const countWish = {
  id: key(),
  item_id: ref('item'),
  bin_id: ref('bin'),
  lot_id: maybe(integer()),
  booked: integer<Quantity>(),
  noted_at: text(),
  noted_by: ref('person'),
  run_id: maybe(ref('pick_run')),
  settled_at: maybe(text()),
};
