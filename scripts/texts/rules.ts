import type { Text } from './extract.ts';

/** What a machine can hold of how a native shop owner would say it. */
export interface Rule {
  readonly name: string;
  /** What is wrong with it, or null. */
  readonly wrong: (text: Text) => string | null;
}

/** What buttons begin with: verbs, and the few words that a switch or a menu goes by. */
const VERBS = new Set(
  `Add Adjust Allocate Allow Announce Apply Approve Archive Ask Assign Back Bring Build Buy Cancel Change Check Choose Clear
   Close Confirm Continue Copy Correct Count Decide Define Delete Discard Dismiss Don’t Draft End Enter Estimate Fill
   Finish Give Go Hide Hold Import Include Join Keep Leave List Look Make Mark Move Open Order Pack Pick Plan Post Print
   Process Put Receive Record Refresh Release Reload Remove Reopen Repeat Replace Retire Return Revalue Save Scan Schedule See Send
   Set Settle Ship Show Skip Split Start Stay Stop Take Tare Try Undo Use
   All Builds Columns Differences Done Jobs Later More New Not Sheet`.split(/\s+/),
);

/** A word or a phrase that is not used, and what is said for it. */
const never = (name: string, phrase: RegExp, instead: string): Rule => ({
  name,
  wrong: ({ text }) => {
    const found = phrase.exec(text);
    return found ? `“${found[0].trim()}”: ${instead}` : null;
  },
});

export const rules: readonly Rule[] = [
  never('stands', /\bstands?\b(?!-)|\bstood\b/i, 'is, or status'),
  never('waits', /\bwait(s|ed|ing)?\b(?! for)/i, 'pending, on hold, or short of something'),
  never('whole', /\bwhole\b/i, 'complete, in full, or ready'),
  never('walk', /\bwalk(s|ed|ing)?\b/i, 'pick, run, or picking order'),
  never(
    'quaint',
    /\b(meanwhile|begun|mended|otherwise|besides|alike|all the same|likewise|thereby)\b/i,
    'by someone else, started, fixed, different, also, the same, anyway',
  ),
  never('of one', /\bof one\b|\bof (it|somebody) else\b|\bof somebody else\b/i, 'unit price, someone else’s, each'),
  never('say', /^(Say|Type)\b|[.;:] (Say|Type|say|type) (what|how|why|a|the)\b|^Type or\b/, 'enter, choose, scan'),
  never('like that', /\blike that\b/i, 'name what it is'),
  never('percent', /[\d}]\s%/, 'no space before % in English: Intl writes it'),
  never('straight quotes', /["]|\w'\w/, 'curly quotes'),
  {
    name: 'it',
    wrong: ({ text, role }) =>
      role !== 'detail' && /^It\b/.test(text) && !/^It('|’)s \d/.test(text) ? '“It” first: name the thing' : null,
  },
  {
    name: 'length',
    wrong: ({ text }) => {
      for (const sentence of text.split(/[.!?:;](?:\s|$)/)) {
        const words = sentence.split(/\s+/).filter((word) => /[\p{L}\d]|…/u.test(word)).length;
        if (words > 20) return `${words} words in a sentence`;
      }
      return null;
    },
  },
  {
    name: 'commas',
    // A list of nouns, as what a field finds things by, is no sentence.
    wrong: ({ text }) =>
      text
        .split(/[.!?:;](?:\s|$)/)
        .some((sentence) => (sentence.match(/,\s/g) ?? []).length > 2 && sentence.split(/,\s/).some(isClause))
        ? 'more than two commas in a sentence'
        : null,
  },
  {
    name: 'title',
    wrong: ({ text, role, file }) =>
      role === 'title' && file.startsWith('contract/src/problems/') && text.split(/\s+/).length < 3
        ? 'the title of a refusal has to be understood alone'
        : null,
  },
  {
    name: 'button',
    wrong: ({ text, role }) =>
      role === 'button' && /^\p{Lu}/u.test(text) && !VERBS.has(/^[\p{L}’]+/u.exec(text)?.[0] ?? text)
        ? 'a button begins with its verb'
        : null,
  },
];

/** A rule that refuses every word of the last column of the tables in `docs/words.md`. */
export function notOurs(markdown: string): Rule {
  const words = markdown
    .split('\n')
    .filter((line) => /^\|(?! *(-|we say))/.test(line))
    .flatMap((line) => (line.split('|')[3] ?? '').split(','))
    .map((word) => word.trim())
    .filter((word) => word !== '');
  const phrase = new RegExp(
    `\\b(${words.map((word) => word.replace(/[^\w ]/g, '.')).join('|')})(s|es|ed|ing)?\\b`,
    'i',
  );
  return {
    name: 'not ours',
    wrong: ({ text, file }) => {
      // Titles that others give their columns are read by them.
      const found = /^core\/src\/exchange\/|\/paste\.ts$/.test(file) ? null : phrase.exec(text);
      return found ? `“${found[0]}”: docs/words.md has our word` : null;
    },
  };
}

/** A rule that refuses to send somebody to a screen, tab or button that no text has the name of. */
export function leadsNowhere(texts: readonly Text[]): Rule {
  const names = new Set(texts.map(({ text }) => text));
  return {
    name: 'leads nowhere',
    wrong: ({ text }) => {
      for (const [, name = ''] of text.matchAll(/\bunder (\p{Lu}[\p{L}’]+(?: \p{Ll}+)*)/gu)) {
        const said = name.split(' ');
        // The name ends where the sentence goes on.
        if (!said.some((_, at) => names.has(said.slice(0, at + 1).join(' ')))) return `there is no “${name}”`;
      }
      return null;
    },
  };
}

const isClause = (part: string): boolean => part.split(/\s+/).length > 4;

/** Every text that a rule refuses, with why. */
export const refused = (texts: readonly Text[], all: readonly Rule[] = rules): readonly string[] =>
  texts.flatMap((text) =>
    all.flatMap((rule) => {
      const wrong = rule.wrong(text);
      return wrong === null ? [] : [`${rule.name}\t${text.text}\t${text.file}:${text.line}\t${wrong}`];
    }),
  );
