import type {
  Basis,
  LineKind,
  MadeHow,
  OnOrder,
  Paperwork,
  PriceFrom,
  Purpose,
  RevisionState,
  SwapFor,
  Taken,
} from '@yosegi/core/definitions';
import type { Money, Percent, Quantity } from '@yosegi/core/number';
import { flag, integer, key, maybe, primary, ref, text, version } from './columns.ts';

export const definition = {
  id: key(),
  item_id: ref('item'),
  purpose: text<Purpose>('build'),
  made: text<MadeHow>('ahead'),
  paperwork: text<Paperwork>('one-line'),
  on_order: text<OnOrder>('locked'),
  swap_for: text<SwapFor>('listed'),
  price_from: text<PriceFrom>('own'),
  discount: integer<Percent>(0),
  version: version(),
  bench_days: maybe(integer()),
  tasks_first: flag(0),
};

export const definitionField = {
  definition_id: primary(ref('definition', 'CASCADE')),
  name: primary(text()),
  value: text(),
};

export const revision = {
  id: key(),
  definition_id: ref('definition'),
  number: integer(),
  state: text<RevisionState>(),
  output_quantity: integer<Quantity>(),
  in_use_from: maybe(text()),
  version: version(),
  sell_price: maybe(integer<Money>()),
};

export const revisionLine = {
  id: key(),
  revision_id: ref('revision', 'CASCADE'),
  position: integer(),
  kind: text<LineKind>(),
  text: text(''),
  item_id: maybe(ref('item')),
  from_bin_id: maybe(ref('bin')),
  basis: text<Basis>('per-output'),
  amount: integer(0),
  waste: integer<Percent>(0),
  taken: maybe(text<Taken>()),
  share: maybe(integer<Percent>()),
  comes_back: flag(0),
  rate_id: maybe(ref('rate')),
  tolerance: maybe(integer<Percent>()),
};

export const revisionLineAlternate = {
  line_id: primary(ref('revision_line', 'CASCADE')),
  position: primary(integer()),
  item_id: ref('item'),
  ratio: integer<Quantity>(),
};
