import type { Person, Route, Topic } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { z } from 'zod';
import type { Reader, Writer } from '../db/database.ts';

/** Where time comes from, so that tests and the demo can set it. */
export interface Clock {
  now(): Date;
}
export const systemClock: Clock = { now: () => new Date() };

/** The ISO day of a moment in this machine's zone, which is the company's. */
export function dayOf(moment: Date): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
}

/** The moment a day begins in this machine's zone, `later` days on, as ISO text in UTC. */
export function startOf(day: string, later = 0): string {
  const start = new Date(`${day}T00:00:00`);
  start.setDate(start.getDate() + later);
  return start.toISOString();
}

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

export type Answer<R extends Route> = z.input<R['response']>;

/** Whether a route only asks. */
type IsQuestion<R extends Route> = R['method'] extends 'GET' ? true : R extends { readonly asks: true } ? true : false;

export type Handler<R extends Route> =
  IsQuestion<R> extends true
    ? (question: Question<R>) => Promise<Answer<R>>
    : (command: Command<R>) => Promise<Answer<R>>;

export type HandlersOf<Routes extends Record<string, Route>> = { [K in keyof Routes]: Handler<Routes[K]> };

/** The person, or @throws Refusal `sign-in` */
export function signedIn(person: Person | null): Person {
  if (!person) throw new Refusal('sign-in');
  return person;
}

/** @throws Refusal `owner-only` unless the person is an owner */
export function ownersOnly(person: Person): void {
  if (person.role !== 'owner') throw new Refusal('owner-only');
}

/** The record, or @throws Refusal `not-found` */
export function found<T>(record: T | undefined): T {
  if (record === undefined) throw new Refusal('not-found');
  return record;
}
