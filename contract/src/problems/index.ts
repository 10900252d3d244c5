import { type Code, Refusal, type ToldFacts } from '@yosegi/core/refusal';
import type { Problem } from '../common.ts';
import { buyingProblems } from './buying.ts';
import { definitionsProblems } from './definitions.ts';
import { withFigures } from './figures.ts';
import { filesProblems } from './files.ts';
import { itemsProblems } from './items.ts';
import type { ProblemKind, ProblemKinds } from './kind.ts';
import { meantProblems } from './meant.ts';
import { ordersProblems } from './orders.ts';
import { requestsProblems } from './requests.ts';
import { stockProblems } from './stock.ts';
import { trackingProblems } from './tracking.ts';
import { typedProblems } from './typed.ts';
import { undoingProblems } from './undoing.ts';

/** Every refusal the API can answer with: its stable code, status and wording. */
export const problemKinds: ProblemKinds = {
  ...typedProblems,
  ...meantProblems,
  ...itemsProblems,
  ...definitionsProblems,
  ...trackingProblems,
  ...stockProblems,
  ...undoingProblems,
  ...buyingProblems,
  ...ordersProblems,
  ...filesProblems,
  ...requestsProblems,
};

/** How this refusal is answered, and its words. @param locale how the company writes figures, where that is not set */
export function wordedOf(refusal: Refusal, locale?: string): { status: number; title: string; detail: string } {
  const { status, title, detail } = problemKinds[refusal.code] as ProblemKind<Code>;
  return { status, title, detail: withFigures(locale, () => detail(refusal.facts)) };
}

/** What a refusal says to a person, before it ever reached the server; undefined when `error` is something else. */
export const wordsOf = (error: unknown, locale?: string): string | undefined =>
  error instanceof Refusal ? wordedOf(error, locale).detail : undefined;

/**
 * What is wrong with what somebody typed, in words.
 * @param otherwise what is said of an error that is no refusal
 */
export const entryFault = (error: unknown, otherwise = 'Enter a number, like 12.'): string =>
  wordsOf(error) ?? otherwise;

/** What a problem of one of these codes knows; undefined for any other. */
export const factsOf = <C extends Code>(problem: Problem | null | undefined, ...codes: readonly C[]) =>
  problem && codes.some((code) => code === problem.code) ? (problem.facts as ToldFacts<C>) : undefined;
