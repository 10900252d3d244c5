/** A column that a kind of file can have. */
export interface Column {
  readonly key: string;
  /** What stands above it in our own files. */
  readonly title: string;
  /** What others call it, in lower case. */
  readonly aliases?: readonly string[];
  readonly required?: boolean;
  /** Whether its cells are amounts, which speak for the file's decimal sign. */
  readonly amount?: boolean;
}

/** For each column of a file, the key it is read as; null leaves it out. */
export type Matching = readonly (string | null)[];

/** A column beyond the known ones, kept under its own name: "Field: Warranty months". */
export const FIELD_PREFIX = 'field:';

/** Below this a resemblance is chance. */
const LIKELY = 0.7;

/**
 * Guesses which column of a file is which, by its title: the same word first, then another word for it, then the best
 * resemblance. No key is given twice.
 */
export function guessMatching(titles: readonly string[], columns: readonly Column[]): Matching {
  const guesses = titles.flatMap((title, index) =>
    columns.map((column) => ({ index, key: column.key, score: likeness(title, column) })),
  );
  guesses.sort((a, b) => b.score - a.score || a.index - b.index);
  const matching: (string | null)[] = titles.map((title) => fieldOf(title));
  const taken = new Set<string>();
  for (const { index, key, score } of guesses) {
    if (score < LIKELY || matching[index] !== null || taken.has(key)) continue;
    matching[index] = key;
    taken.add(key);
  }
  return matching;
}

/** "Field: Colour" is a custom field called Colour. */
function fieldOf(title: string): string | null {
  const name = /^field:\s*(\S.*)$/i.exec(title.trim())?.[1];
  return name ? FIELD_PREFIX + name.trim() : null;
}

const words = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}%#]+/gu, ' ')
    .trim();

function likeness(title: string, column: Column): number {
  const asked = words(title);
  if (asked === '') return 0;
  const names = [column.title, column.key, ...(column.aliases ?? [])].map(words);
  const same = (name: string | undefined) => name?.replaceAll(' ', '') === asked.replaceAll(' ', '');
  if (same(names[0])) return 2;
  if (names.some(same)) return 1.5;
  return Math.max(...names.map((name) => resemblance(asked, name)));
}

/** Sørensen–Dice coefficient of letter pairs: 1 for the same text, 0 for nothing in common. */
function resemblance(a: string, b: string): number {
  const [first, second] = [pairs(a), pairs(b)];
  if (first.length === 0 || second.length === 0) return 0;
  const left = [...second];
  let shared = 0;
  for (const pair of first) {
    const at = left.indexOf(pair);
    if (at < 0) continue;
    left.splice(at, 1);
    shared += 1;
  }
  return (2 * shared) / (first.length + second.length);
}

const pairs = (text: string) => Array.from({ length: Math.max(0, text.length - 1) }, (_, at) => text.slice(at, at + 2));
