/** Letters that take no accent apart, as people type them where their keyboard has none. */
const PLAIN: Readonly<Record<string, string>> = {
  ß: 'ss',
  ø: 'o',
  æ: 'ae',
  œ: 'oe',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  ı: 'i',
};

/** A text as it is compared: in small letters, without accents. */
export const folded = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[ßøæœłđðþı]/g, (letter) => PLAIN[letter] ?? letter);

/** The words of a text, folded; a code like HIVE-10 is one, and its parts are others. */
export const wordsOf = (text: string): string[] => folded(text).match(/[\p{L}\p{N}]+/gu) ?? [];

/** A word this long may have a letter wrong, missing, too many, or two of them swapped. */
const LONG = 5;

/**
 * Whether a text has every word of a question, in any order: as a part of one of its words, or, where it is long, nearly
 * as the beginning of one.
 */
export function hasWords(text: string, asked: string): boolean {
  const own = wordsOf(text);
  const whole = own.join(' ');
  return wordsOf(asked).every((word) => whole.includes(word) || own.some((one) => isNearly(one, word)));
}

/** Whether a long word is another, or its beginning, but for one slip of the hand. */
export function isNearly(text: string, word: string): boolean {
  if (word.length < LONG) return false;
  return [word.length - 1, word.length, word.length + 1].some((length) => isOneSlip(text.slice(0, length), word));
}

/** One letter changed, left out, put in, or two neighbours swapped; or nothing of that. */
function isOneSlip(one: string, other: string): boolean {
  if (Math.abs(one.length - other.length) > 1) return false;
  let at = 0;
  while (at < one.length && one[at] === other[at]) at += 1;
  const [rest, asked] = [one.slice(at), other.slice(at)];
  return (
    rest === asked ||
    rest.slice(1) === asked.slice(1) ||
    rest.slice(1) === asked ||
    rest === asked.slice(1) ||
    (rest[0] === asked[1] && rest[1] === asked[0] && rest.slice(2) === asked.slice(2))
  );
}
