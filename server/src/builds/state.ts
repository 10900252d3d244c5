import { Refusal } from '@yosegi/core/refusal';
import { type BuildRecord, isOpen } from './sql.ts';

/** @throws Refusal `wrong-state`, with what it is and what to do next */
export function requireState(build: BuildRecord, state: 'planned' | 'on-bench', field?: string): void {
  if (build.state !== state) refuseState(build, field);
}

/** Refuses what cannot be done any more with a build that is finished or cancelled. @throws Refusal `wrong-state` */
export function requireOpen(build: BuildRecord): void {
  if (!isOpen(build.state)) refuseState(build);
}

function refuseState({ number, state }: BuildRecord, field?: string): never {
  throw new Refusal('wrong-state', { kind: 'build', number, state }, field);
}
