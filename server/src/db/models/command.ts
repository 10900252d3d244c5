import { integer, key, maybe, primary, ref, text } from './columns.ts';

export const command = {
  key: primary(text()),
  route: text(),
  person_id: maybe(integer()),
  request_hash: text(),
  response: text(),
  at: text(),
};

export const audit = {
  id: key(),
  at: text(),
  person_id: maybe(ref('person')),
  action: text(),
  params: text(),
  body: text(),
  request_id: text(),
};

export const event = {
  id: key(),
  at: text(),
  topics: text(),
};
