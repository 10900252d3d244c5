import type { Money, Quantity } from '@yosegi/core/number';
import type { TaskState } from '@yosegi/core/tasks';
import { flag, integer, key, maybe, primary, ref, text, version } from './columns.ts';

export const task = {
  id: primary(ref('build_line', 'CASCADE')),
  person_id: maybe(ref('person')),
  due: maybe(text()),
  state: text<TaskState>('open'),
  skipped_because: maybe(text()),
  price: maybe(integer<Money>()),
  supplier_id: maybe(ref('supplier')),
  expected_on: maybe(text()),
  done_at: maybe(text()),
  done_by: maybe(ref('person')),
  version: version(),
};

export const taskTime = {
  id: key(),
  task_id: ref('task', 'CASCADE'),
  person_id: ref('person'),
  day: text(),
  minutes: integer<Quantity>(),
  clocked: flag(),
  made_at: text(),
};

export const clock = {
  person_id: primary(ref('person')),
  task_id: ref('task', 'CASCADE'),
  started_at: text(),
};
