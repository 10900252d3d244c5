import { add, type Money } from '../number/index.ts';

/** A line as far as comparing goes. */
export interface ComparedLine {
  /** What makes it the same line in another revision: its part, or its kind and text. */
  readonly identity: string;
  /** Everything that counts as a change, by name. */
  readonly facts: Readonly<Record<string, string | number | boolean | null>>;
  readonly cost: Money;
}

export type LineChange<L extends ComparedLine> =
  | { readonly change: 'same'; readonly before: L; readonly after: L }
  | { readonly change: 'changed'; readonly before: L; readonly after: L; readonly facts: readonly string[] }
  | { readonly change: 'added'; readonly before: null; readonly after: L }
  | { readonly change: 'gone'; readonly before: L; readonly after: null };

export interface Comparison<L extends ComparedLine> {
  /** In the order of the newer lines; lines that are gone stand where they were. */
  readonly lines: readonly LineChange<L>[];
  readonly costBefore: Money;
  readonly costAfter: Money;
}

/**
 * The difference between two sets of lines, line by line. Lines of the same identity are paired in their order; a line
 * that only moved is the same.
 */
export function compareLines<L extends ComparedLine>(before: readonly L[], after: readonly L[]): Comparison<L> {
  const waiting = new Map<string, L[]>();
  for (const line of before) waiting.set(line.identity, [...(waiting.get(line.identity) ?? []), line]);
  const partners = new Map(after.map((line) => [line, waiting.get(line.identity)?.shift() ?? null]));
  const kept = new Set(partners.values());
  const lines: LineChange<L>[] = [];
  const rest = [...before];
  const goneBefore = (partner: L | undefined) => {
    while (rest.length > 0 && rest[0] !== partner) {
      const next = rest.shift();
      if (next && !kept.has(next)) lines.push({ change: 'gone', before: next, after: null });
    }
  };
  for (const line of after) {
    const partner = partners.get(line) ?? null;
    if (partner && rest.includes(partner)) goneBefore(partner);
    lines.push(partner ? paired(partner, line) : { change: 'added', before: null, after: line });
  }
  goneBefore(undefined);
  return { lines, costBefore: costOf(before), costAfter: costOf(after) };
}

function paired<L extends ComparedLine>(before: L, after: L): LineChange<L> {
  const names = [...new Set([...Object.keys(before.facts), ...Object.keys(after.facts)])];
  const facts = names.filter((name) => before.facts[name] !== after.facts[name]);
  return facts.length === 0 ? { change: 'same', before, after } : { change: 'changed', before, after, facts };
}

const costOf = (lines: readonly ComparedLine[]) => add(0 as Money, ...lines.map((line) => line.cost));
