import type { DocumentKind } from '@yosegi/contract';
import type { Holder, ValueKind } from '@yosegi/core/ledger';
import type { Money, Quantity } from '@yosegi/core/number';
import { integer, key, maybe, primary, ref, refText, text } from './columns.ts';

export const documentKind = {
  code: primary(text()),
};

export const valueKind = {
  code: primary(text()),
};

export const holderKind = {
  code: primary(text()),
};

export const document = {
  id: key(),
  number: text(),
  kind: refText<DocumentKind>('document_kind'),
  at: text(),
  person_id: ref('person'),
  remark: text(''),
  for_kind: maybe(text()),
  for_id: maybe(integer()),
  reverses_id: maybe(ref('document')),
  override_reason: maybe(text()),
  reason_id: maybe(ref('reason')),
  cause_id: maybe(ref('document')),
  job_tag: text(''),
};

/** Kept by triggers. */
export const numbered = {
  kind: primary(text()),
  id: primary(integer()),
  number: text(),
  item_id: maybe(ref('item')),
};

export const movement = {
  id: key(),
  document_id: ref('document'),
  item_id: ref('item'),
  bin_id: ref('bin'),
  lot_id: maybe(integer()),
  serial_id: maybe(integer()),
  holder_kind: maybe(refText<Holder['kind']>('holder_kind')),
  holder_id: maybe(integer()),
  line_id: maybe(integer()),
  quantity: integer<Quantity>(),
  value: integer<Money>(),
};

export const documentValue = {
  id: key(),
  document_id: ref('document'),
  kind: refText<ValueKind>('value_kind'),
  amount: integer<Money>(),
  item_id: maybe(ref('item')),
  line_id: maybe(integer()),
};

export const balance = {
  item_id: ref('item'),
  bin_id: ref('bin'),
  lot_id: maybe(integer()),
  serial_id: maybe(integer()),
  holder_kind: maybe(refText<Holder['kind']>('holder_kind')),
  holder_id: maybe(integer()),
  quantity: integer<Quantity>(),
};

export const itemStock = {
  item_id: primary(ref('item')),
  quantity: integer<Quantity>(),
  value: integer<Money>(),
  last_cost: integer<Money>(),
  returned_quantity: integer<Quantity>(0),
  returned_value: integer<Money>(0),
};

export const putRight = {
  id: key(),
  document_id: maybe(ref('document')),
  for_kind: maybe(text()),
  for_id: maybe(integer()),
  item_id: maybe(ref('item')),
  bin_id: maybe(ref('bin')),
  quantity: maybe(integer<Quantity>()),
  reason: text(),
  person_id: ref('person'),
  at: text(),
  settled_at: maybe(text()),
  settled_by: maybe(ref('person')),
  remark: text(''),
};

export const series = {
  name: primary(text()),
  next: integer(),
};
