import { useSearchParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { useSearchChange } from '../ui/useAddress.ts';
import { MOST_CASES } from './cases.ts';

/** Puts the question beside itself, to be changed there. */
export function AnotherCase() {
  const [search] = useSearchParams();
  const change = useSearchChange();
  const { all } = besidesIn(search);
  if (all.length > MOST_CASES) return null;
  const here = questionOf(search);
  return (
    <Button look="ghost" onPress={() => change(withAsked([...all, here], all.length))}>
      {all.length === 1 ? 'Try a change…' : 'Add another case'}
    </Button>
  );
}

/** The questions that stand side by side: the one that is asked at its place among the others. */
export function besidesIn(search: URLSearchParams): { readonly all: readonly string[]; readonly at: number } {
  const besides = search.getAll('beside').slice(0, MOST_CASES);
  const at = Math.min(besides.length, Math.max(0, Number(search.get('at') ?? 0) || 0));
  return { all: besides.toSpliced(at, 0, questionOf(search)), at };
}

/** What of an address is the question itself. */
function questionOf(search: URLSearchParams): string {
  const own = new URLSearchParams(search);
  for (const name of ['beside', 'at', 'sort', 'group']) own.delete(name);
  return own.toString();
}

/** What makes another of the questions the one that is asked. */
export function withAsked(all: readonly string[], at: number): Record<string, string | readonly string[] | null> {
  const asked = new URLSearchParams(all[at]);
  return {
    ...Object.fromEntries(TERMS.map((name) => [name, asked.get(name)])),
    beside: all.toSpliced(at, 1),
    at: at === 0 ? null : String(at),
  };
}
const TERMS = ['want', 'by', 'stores', 'finished', 'drafts', 'aside', 'if'];
