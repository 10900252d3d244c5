import type { Goal } from '@yosegi/core/picking';
import { flag, integer, key, maybe, primary, ref, text, version } from './columns.ts';

export const pickRun = {
  id: key(),
  number: text(),
  store_id: maybe(ref('store')),
  confirms: flag(0),
  made_at: text(),
  made_by: ref('person'),
  ended_at: maybe(text()),
  version: version(),
};

export const pickRunGoal = {
  run_id: primary(ref('pick_run')),
  position: primary(integer()),
  kind: text<Goal['kind']>(),
  source_id: integer(),
};

export const pickRunClaim = {
  run_id: primary(ref('pick_run')),
  person_id: primary(ref('person')),
  stop: text(),
  at: text(),
};

export const pickRunPick = {
  document_id: primary(ref('document')),
  run_id: ref('pick_run'),
  act: ref('document'),
  stops: integer(),
  lines: integer(),
  begun_at: maybe(text()),
};
