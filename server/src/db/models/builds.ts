import type { BuildState, OutWay } from '@yosegi/core/builds';
import type { Basis, LineKind, Taken } from '@yosegi/core/definitions';
import type { Money, Percent, Quantity } from '@yosegi/core/number';
import { flag, integer, key, maybe, primary, ref, text, version } from './columns.ts';

export const build = {
  id: key(),
  number: text(),
  item_id: ref('item'),
  revision_id: maybe(ref('revision')),
  output_quantity: integer<Quantity>(),
  quantity: integer<Quantity>(),
  finished: integer<Quantity>(0),
  rejected: integer<Quantity>(0),
  state: text<BuildState>(),
  due: maybe(text()),
  output_bin_id: ref('bin'),
  remark: text(''),
  split_from_id: maybe(ref('build')),
  override_reason: maybe(text()),
  planned_at: text(),
  planned_by: ref('person'),
  started_at: maybe(text()),
  ended_at: maybe(text()),
  version: version(),
  person_id: maybe(ref('person')),
  bench_day: maybe(text()),
  job_tag: text(''),
  repair_id: maybe(ref('repair')),
  spare: flag(0),
};

export const buildLine = {
  id: key(),
  build_id: ref('build'),
  position: integer(),
  kind: text<LineKind>(),
  text: text(''),
  item_id: maybe(ref('item')),
  basis: text<Basis>(),
  amount: integer(),
  waste: integer<Percent>(0),
  taken: maybe(text<Taken>()),
  rate_per_hour: maybe(integer<Money>()),
  share: maybe(integer<Percent>()),
  comes_back: flag(0),
  on_bench: integer<Quantity>(0),
  used: integer<Quantity>(0),
  open: integer<Quantity>(0),
  from_bin_id: maybe(ref('bin')),
  added_by: maybe(ref('person')),
  added_because: maybe(text()),
  tolerance: maybe(integer<Percent>()),
  instead_of: maybe(ref('build_line')),
  stands_for: integer<Quantity>(0),
};

export const finish = {
  document_id: primary(ref('document')),
  build_id: ref('build'),
  good: integer<Quantity>(),
  rejected: integer<Quantity>(0),
  reject_reason_id: maybe(ref('reason')),
  written_off: integer<Money>(0),
  made_on: maybe(text()),
  condition_before: maybe(text()),
  condition_after: maybe(text()),
};

export const finishOut = {
  document_id: primary(ref('finish')),
  position: primary(integer()),
  item_id: ref('item'),
  quantity: integer<Quantity>(),
  went: text<OutWay>(),
  share: integer<Percent>(),
  value: integer<Money>(),
};

export const finishLess = {
  document_id: primary(ref('finish')),
  part_id: primary(integer()),
  quantity: integer<Quantity>(),
};

export const finishLine = {
  document_id: primary(ref('finish')),
  build_line_id: primary(ref('build_line')),
  planned: integer<Quantity>(),
  actual: integer<Quantity>(),
  planned_cost: integer<Money>(),
  cost: integer<Money>(),
  because: maybe(text()),
};
