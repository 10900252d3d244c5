import type { Money } from '@yosegi/core/number';
import type { RepairState } from '@yosegi/core/repairs';
import { flag, integer, key, maybe, ref, text, version } from './columns.ts';

export const repair = {
  id: key(),
  number: text(),
  customer_id: ref('customer'),
  item_id: ref('item'),
  serial_id: maybe(ref('serial')),
  bin_id: ref('bin'),
  state: text<RepairState>(),
  fault: text(),
  accessories: text(''),
  wanted_on: maybe(text()),
  warranty: flag(0),
  estimate: maybe(integer<Money>()),
  price: maybe(integer<Money>()),
  report: text(''),
  declined: maybe(text()),
  job_tag: text(''),
  charged: maybe(integer<Money>()),
  taken_in_at: text(),
  taken_in_by: ref('person'),
  given_back_at: maybe(text()),
  given_back_by: maybe(ref('person')),
  version: version(),
};

export const repairEvent = {
  id: key(),
  repair_id: ref('repair'),
  at: text(),
  person_id: ref('person'),
  says: text(),
  amount: maybe(integer<Money>()),
};
