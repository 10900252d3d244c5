import type { PaperSize, Role } from '@yosegi/core/people';
import { blob, flag, integer, key, maybe, text, version } from './columns.ts';

export const company = {
  id: key(),
  name: text(),
  currency: text(),
  locale: text(),
  cookie_secret: text(),
  address: text(''),
  email: text(''),
  version: version(),
  paper_size: text<PaperSize>('A4'),
  paper_head: text(''),
  paper_foot: text(''),
  paper_columns: text('["tile","code","price","day"]'),
  work_days: text('[1,2,3,4,5]'),
  setup_step: maybe(integer()),
  bench_minutes: integer(480),
};

export const logo = {
  id: key(),
  hash: text(),
  content: blob(),
};

export const person = {
  id: key(),
  name: text(),
  initials: text(),
  role: text<Role>(),
  active: flag(1),
  version: version(),
};
