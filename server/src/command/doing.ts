import { type api, can, type Person, type Right, type Route, type Topic } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { z } from 'zod';
import type { Reader, Writer } from '../db/database.ts';

type Part<R extends Route, K extends 'params' | 'query' | 'body'> = R[K] extends z.ZodType ? z.output<R[K]> : undefined;

export interface Asked<R extends Route> {
  readonly params: Part<R, 'params'>;
  readonly query: Part<R, 'query'>;
  readonly body: Part<R, 'body'>;
  readonly now: Date;
}

/** A question: reads, changes nothing. Open routes may have no person. */
export interface Question<R extends Route> extends Asked<R> {
  readonly db: Reader;
  readonly person: Person | null;
}

/** A command: everything it does is in one transaction, with its person on record. */
export interface Command<R extends Route> extends Asked<R>, Doing {}

/** What any part of a command needs to act. */
export interface Doing {
  readonly tx: Writer;
  readonly person: Person;
  readonly now: Date;
  /** Tells other browsers what to fetch again once the transaction is through. */
  changed(...topics: Topic[]): void;
  /** Is told once the transaction is through, or has failed, whatever the command itself had done by then. */
  settled(then: (committed: boolean) => void): void;
}

/** What a command is told, read by its schema: amounts are numbers, whatever may be left out is there. */
export type BodyOf<Name extends keyof typeof api> = Part<(typeof api)[Name], 'body'>;

/** What a question asks, read by its schema. */
export type QueryOf<Name extends keyof typeof api> = Part<(typeof api)[Name], 'query'>;

export type Answer<R extends Route> = z.input<R['response']>;

/** Whether a route only asks. */
type IsQuestion<R extends Route> = R['method'] extends 'GET' ? true : R extends { readonly asks: true } ? true : false;

export type Handler<R extends Route> =
  IsQuestion<R> extends true
    ? (question: Question<R>) => Promise<Answer<R>>
    : (command: Command<R>) => Promise<Answer<R>>;

/** A command whose first part takes long and needs nothing of the books: that is done before its transaction begins. */
export class Prepared<R extends Route> {
  constructor(
    readonly prepare: (
      asked: Asked<R> & { readonly person: Person | null },
    ) => Promise<(command: Command<R>) => Promise<Answer<R>>>,
  ) {}
}

export type HandlersOf<Routes extends Record<string, Route>> = {
  [K in keyof Routes]: Handler<Routes[K]> | Prepared<Routes[K]>;
};

/** The person, or @throws Refusal `sign-in` */
export function signedIn(person: Person | null): Person {
  if (!person) throw new Refusal('sign-in');
  return person;
}

/** @throws Refusal `sign-in`, or `owner-only` unless whoever asks is allowed it */
export function requireRight(person: Person | null, right: Right): void {
  if (can(person, right)) return;
  if (person === null) throw new Refusal('sign-in');
  throw new Refusal('owner-only');
}

/** The record of a model, or @throws Refusal `not-found` */
export function required<T>(record: T | null): T {
  if (record === null) throw new Refusal('not-found');
  return record;
}

/** The row, or @throws Refusal `not-found` */
export function found<T>(record: T | undefined): T {
  if (record === undefined) throw new Refusal('not-found');
  return record;
}
