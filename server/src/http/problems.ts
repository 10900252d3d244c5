import type { Problem } from '@yosegi/contract';
import { type Facts, problemKinds } from '@yosegi/contract/problems';
import { formatDecimal } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';

/** The problem details of a refusal; undefined for anything that is not one, which is then a fault of ours. */
export function problemOf(error: unknown, requestId: string): Problem | undefined {
  if (!(error instanceof Refusal)) return undefined;
  const kind = problemKinds[error.code];
  if (!kind) return undefined;
  const facts = wireFacts(error.facts);
  return {
    type: `urn:yosegi:problem:${error.code}`,
    title: kind.title,
    status: kind.status,
    code: error.code,
    detail: kind.detail(error.facts),
    ...(error.field ? { field: error.field } : {}),
    ...(Object.keys(facts).length > 0 ? { facts } : {}),
    requestId,
  };
}

const AMOUNTS = new Set(['wanted', 'there', 'open', 'left', 'expected', 'sum', 'canStart', 'needed', 'got', 'short']);

/** Facts as they go over the wire: amounts as decimal text. */
function wireFacts(value: unknown, key?: string): Facts {
  if (Array.isArray(value)) return value.map((entry) => wireFacts(entry)) as unknown as Facts;
  if (value && typeof value === 'object') {
    return Object.fromEntries(Object.entries(value).map(([name, entry]) => [name, wireFacts(entry, name)]));
  }
  if (typeof value === 'number' && key && AMOUNTS.has(key)) return formatDecimal(value) as unknown as Facts;
  return value as Facts;
}
