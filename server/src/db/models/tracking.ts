import type { Money } from '@yosegi/core/number';
import { flag, integer, key, maybe, ref, text } from './columns.ts';

export const lot = {
  id: key(),
  item_id: ref('item'),
  code: text(),
  best_before: maybe(text()),
  attributes: text('{}'),
  held: maybe(text()),
  held_at: maybe(text()),
  held_by: maybe(ref('person')),
  day_passed: flag(0),
};

export const serial = {
  id: key(),
  item_id: ref('item'),
  code: text(),
  lot_id: maybe(ref('lot')),
  held: maybe(text()),
  held_at: maybe(text()),
  held_by: maybe(ref('person')),
  value: maybe(integer<Money>()),
};
