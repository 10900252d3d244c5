import type { Money } from '@yosegi/core/number';
import type { ReasonUse } from '@yosegi/core/stock';
import { integer, key, maybe, primary, ref, text } from './columns.ts';

export const reason = {
  id: key(),
  name: text(),
  used_for: text<ReasonUse>('adjustment'),
};

export const revaluedStandard = {
  document_id: primary(ref('document')),
  item_id: primary(ref('item')),
  cost_before: maybe(integer<Money>()),
  cost_after: integer<Money>(),
};
