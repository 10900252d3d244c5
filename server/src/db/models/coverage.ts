import { integer, key, primary, ref, text } from './columns.ts';

export const priority = {
  kind: primary(text<'build' | 'order'>()),
  source_id: primary(integer()),
  rank: integer(),
  reason: text(),
  set_at: text(),
  set_by: ref('person'),
};

export const coverQuestion = {
  id: key(),
  name: text(),
  address: text(),
  made_at: text(),
  made_by: ref('person'),
};
