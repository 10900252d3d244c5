import type { Code, Facts } from '@yosegi/core/refusal';

/** How a refusal is answered and worded. */
export interface ProblemKind<C extends Code> {
  readonly status: number;
  readonly title: string;
  /** Says what is wrong and what to do about it. */
  readonly detail: (facts: Facts<C>) => string;
}

export type ProblemKinds = { readonly [C in Code]: ProblemKind<C> };

/** Several names in a sentence. */
export const list = (names: readonly string[]) => names.join(', ');
