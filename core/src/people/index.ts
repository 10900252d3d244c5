/** What a person is to the company. */
export const roles = ['owner', 'bench'] as const;
export type Role = (typeof roles)[number];

/** What a person may be allowed to do. Each route names the one it needs, and says the rest of a refusal by itself. */
export const rights = [
  /** Also without having signed in. */
  'anyone',
  'look',
  'define',
  'import',
  'plan',
  'build',
  'pick',
  'take-apart',
  'receive',
  'move-stock',
  'count',
  'hold',
  'buy',
  /** Customers, and what they order. */
  'sell',
  'ship',
  'print',
  /** To go ahead where stock, turn or hold say no, with a reason; and to have seen to what was overridden. */
  'override',
  'approve-count',
  'release',
  /** To change what stock is worth. */
  'value',
  /** The company, its places, units, rates and reasons. */
  'set-up',
] as const;
export type Right = (typeof rights)[number];

const OWNERS: ReadonlySet<Right> = new Set<Right>(['override', 'approve-count', 'release', 'value', 'set-up']);

/** Whether somebody may do something: asked by the server before it does it, and by the browser before it offers it. */
export function can(person: { readonly role: Role } | null, right: Right): boolean {
  if (right === 'anyone') return true;
  return person !== null && (person.role === 'owner' || !OWNERS.has(right));
}

/** What papers are printed on. */
export const paperSizes = ['A4', 'Letter'] as const;
export type PaperSize = (typeof paperSizes)[number];

/** What papers for customers may show of a line beside its name and quantity. */
export const paperColumns = ['tile', 'code', 'price', 'day'] as const;
export type PaperColumn = (typeof paperColumns)[number];

/** Steps in which a new company is set up: itself, its people, its places, its items, its first definition. */
export const SETUP_STEPS = 5;

/** Whether it is the code of a currency that amounts can be shown in (ISO 4217). */
export const isCurrency = (code: string) => Intl.supportedValuesOf('currency').includes(code);

/** Whether numbers and days can be written in this language (BCP 47). */
export function isLocale(tag: string): boolean {
  try {
    return Intl.NumberFormat.supportedLocalesOf(tag).length === 1;
  } catch {
    return false;
  }
}

/** The first letters of a name's first and last word: MO for Mo Okafor. */
export function initialsOf(name: string): string {
  const words = name.trim().split(/\s+/u);
  const letters = [words[0], words.length > 1 ? words.at(-1) : undefined].map((word) => [...(word ?? '')][0] ?? '');
  return letters.join('').toUpperCase();
}
