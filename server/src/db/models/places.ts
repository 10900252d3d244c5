import type { BinKind } from '@yosegi/core/places';
import { integer, key, ref, text, version } from './columns.ts';

export const store = {
  id: key(),
  code: text(),
  name: text(),
  version: version(),
};

export const bin = {
  id: key(),
  store_id: ref('store'),
  code: text(),
  kind: text<BinKind>('shelf'),
  picking_order: integer(0),
  version: version(),
};
