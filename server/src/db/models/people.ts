import type { Role } from '@yosegi/core/people';
import { flag, key, text, version } from './columns.ts';

export const company = {
  id: key(),
  name: text(),
  currency: text(),
  locale: text(),
  cookie_secret: text(),
  address: text(''),
  email: text(''),
  version: version(),
};

export const person = {
  id: key(),
  name: text(),
  initials: text(),
  role: text<Role>(),
  active: flag(1),
};
