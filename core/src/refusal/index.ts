import type { refusals } from './codes.ts';
import type { FactsOf, ToldOf } from './facts.ts';

export { refusals } from './codes.ts';
export type { Amount, Kind, Kinds } from './facts.ts';

export type Code = keyof typeof refusals;
/** What a refusal of this code knows. */
export type Facts<C extends Code> = FactsOf<(typeof refusals)[C]>;
/** The same as it goes over the wire: amounts as decimal text. */
export type ToldFacts<C extends Code> = ToldOf<(typeof refusals)[C]>;
/** Those that say everything by themselves. */
export type BareCode = { [C in Code]: keyof (typeof refusals)[C] extends never ? C : never }[Code];
/** A refusal and its facts, of any code: what one is made from again after it went through text or to a thread. */
export type Refused = { [C in Code]: { readonly code: C; readonly facts: Facts<C> } }[Code];

type Knowing<C extends Code> =
  Record<never, never> extends Facts<C> ? [facts?: Facts<C>, field?: string] : [facts: Facts<C>, field?: string];

/**
 * The core's way of saying no: a stable code, the facts a person needs to find the way out, and the field it concerns.
 * Layers above turn it into what their world needs (an RFC 9457 problem, a message beside a field); the core never
 * words it.
 */
export class Refusal<C extends Code = Code> extends Error {
  readonly facts: Facts<C>;
  readonly field: string | undefined;

  constructor(
    readonly code: C,
    ...[facts, field]: Knowing<C>
  ) {
    super(code);
    this.name = 'Refusal';
    this.facts = facts ?? ({} as Facts<C>);
    this.field = field;
  }

  /** The same at the field that it concerns in a wider view, with what is known there besides. */
  at(field: string | undefined, more: Partial<Facts<C>> = {}): Refusal<C> {
    return refusalOf({ code: this.code, facts: { ...this.facts, ...more } }, field) as Refusal<C>;
  }
}

/** Lets what `work` refuses be said at `field`. */
export function refusingAt<T>(field: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw error instanceof Refusal ? error.at(field) : error;
  }
}

/** A refusal from its parts. */
export const refusalOf = ({ code, facts }: { readonly code: Code; readonly facts: object }, field?: string): Refusal =>
  new (Refusal as new (code: Code, facts: object, field?: string) => Refusal)(code, facts, field);

/** Whether an error is a refusal of this code. */
export const isRefusal = <C extends Code>(error: unknown, ...codes: readonly C[]): error is Refusal<C> =>
  error instanceof Refusal && (codes.length === 0 || codes.includes(error.code as C));
