import type { LabelJobState } from '@yosegi/core/devices';
import { key, maybe, ref, text } from './columns.ts';

export const labelJob = {
  id: key(),
  at: text(),
  person_id: ref('person'),
  title: text(),
  labels: text(),
  state: text<LabelJobState>(),
  printed_at: maybe(text()),
};
