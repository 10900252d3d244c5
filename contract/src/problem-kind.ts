export type Facts = Record<string, unknown>;
export interface ProblemKind {
  readonly status: number;
  readonly title: string;
  /** Says what is wrong and what to do about it. */
  readonly detail: (facts: Facts) => string;
}

/** Several names in a sentence. */
export const list = (values: unknown) => (Array.isArray(values) ? values.join(', ') : String(values));
