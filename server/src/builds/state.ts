import { Refusal } from '@yosegi/core/refusal';
import type { BuildRecord } from './sql.ts';

/** @throws Refusal `wrong-state` saying what it is and would have to be */
export function requireState(build: BuildRecord, state: 'planned' | 'on-bench'): void {
  if (build.state === state) return;
  const words = { planned: 'planned', 'on-bench': 'on the bench', finished: 'finished', cancelled: 'cancelled' };
  throw new Refusal('wrong-state', { is: words[build.state], must: words[state] });
}
