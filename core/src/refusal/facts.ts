import type { Money, Percent, Quantity } from '../number/index.ts';

/** An amount of any unit, told from a plain number by its type. */
export type Amount = Quantity | Money | Percent;

/** The kinds of facts: so they are typed where a refusal is made, and known again where it goes over the wire. */
interface Simple {
  readonly text: string;
  /** A count, an id or another plain number. */
  readonly number: number;
  /** In millionths. */
  readonly amount: Amount;
  readonly flag: boolean;
  /** What only a screen reads. */
  readonly record: unknown;
}
/** One that may be missing ends in a question mark; a list has one kind in brackets; a line of facts is an object. */
export type Kind = keyof Simple | `${keyof Simple}?` | readonly [Kind] | Kinds;
export interface Kinds {
  readonly [name: string]: Kind;
}

/** The same as they go over the wire: amounts as decimal text. */
type Told = Omit<Simple, 'amount'> & { readonly amount: string };

type Given<K, S> = K extends keyof S ? S[K] : K extends readonly [infer One] ? readonly Given<One, S>[] : FactsOf<K, S>;
type Optional<K> = { [N in keyof K]: K[N] extends `${string}?` ? N : never }[keyof K];
type Bare<K> = K extends `${infer B}?` ? B : never;

/** The facts of kinds, as a refusal holds them. */
export type FactsOf<K, S = Simple> = { readonly [N in Exclude<keyof K, Optional<K>>]: Given<K[N], S> } & {
  readonly [N in Optional<K>]?: Given<Bare<K[N]>, S> | null | undefined;
};
/** The same as they go over the wire. */
export type ToldOf<K> = FactsOf<K, Told>;
