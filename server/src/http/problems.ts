import type { Problem } from '@yosegi/contract';
import { wordedOf } from '@yosegi/contract/problems';
import { formatDecimal } from '@yosegi/core/number';
import { type Kind, Refusal, refusals } from '@yosegi/core/refusal';

/**
 * The problem details of a refusal; undefined for anything that is not one, which is then a fault of ours.
 * @param locale how the company writes numbers and days
 */
export function problemOf(error: unknown, requestId: string, locale?: string): Problem | undefined {
  if (!(error instanceof Refusal)) return undefined;
  const { code, field } = error as Refusal;
  const facts = told(refusals[code], error.facts) as Record<string, unknown>;
  return {
    type: `urn:yosegi:problem:${code}`,
    ...wordedOf(error, locale),
    code,
    ...(field ? { field } : {}),
    ...(Object.keys(facts).length > 0 ? { facts } : {}),
    requestId,
  };
}

/** A fact as it goes over the wire: an amount as decimal text, and nothing that its kind doesn't name. */
function told(kind: Kind, fact: unknown): unknown {
  if (fact === null || fact === undefined) return fact;
  if (kind === 'amount' || kind === 'amount?') return formatDecimal(fact as number);
  if (typeof kind === 'string') return fact;
  if (isList(kind)) return (fact as readonly unknown[]).map((one) => told(kind[0], one));
  const named = fact as Record<string, unknown>;
  return Object.fromEntries(Object.entries(kind).map(([name, of]) => [name, told(of, named[name])]));
}

const isList = (kind: Kind): kind is readonly [Kind] => Array.isArray(kind);
