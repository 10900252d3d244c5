import type { Money, Percent, Quantity } from '@yosegi/core/number';
import type { Leftover } from '@yosegi/core/takeapart';
import { integer, maybe, primary, ref, text } from './columns.ts';

export const takeApart = {
  document_id: primary(ref('document')),
  place: primary(integer()),
  item_id: ref('item'),
  revision_id: ref('revision'),
  quantity: integer<Quantity>(),
  leftover: text<Leftover>(),
  build_id: maybe(ref('build')),
  piece_id: maybe(ref('return_piece')),
};

export const takeApartLine = {
  document_id: primary(ref('document')),
  place: primary(integer()),
  position: primary(integer()),
  item_id: ref('item'),
  bin_id: ref('bin'),
  share: integer<Percent>(),
  expected: integer<Quantity>(),
  good: integer<Quantity>(),
  damaged: integer<Quantity>(),
  missing: integer<Quantity>(),
  value: integer<Money>(),
  written_off: integer<Money>(),
};
