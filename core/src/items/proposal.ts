/** Words that say nothing about a thing. */
const SMALL = new Set(['a', 'an', 'and', 'by', 'for', 'from', 'in', 'of', 'on', 'or', 'the', 'to', 'with']);
/** Letters taken of the first word, and of each that follows. */
const FIRST = 5;
const FOLLOWING = 4;
const MOST_WORDS = 3;

/**
 * A code that somebody might give to a thing of this name: "Ten-frame hive, cedar" is TEN-FRAM-HIVE. Numbers stay whole,
 * because they are often all that tells two things apart.
 * @returns '' where the name has no letter or digit that a code can carry
 */
export function proposedCode(name: string): string {
  const plain = name.normalize('NFKD').replace(/\p{M}/gu, '').toUpperCase();
  const words = plain.match(/\p{N}+|\p{L}+/gu) ?? [];
  const telling = words.filter((word) => !SMALL.has(word.toLowerCase()));
  const letters = telling.filter((word) => !/^\p{N}/u.test(word)).slice(0, MOST_WORDS);
  const kept = telling.filter((word) => /^\p{N}/u.test(word) || letters.includes(word));
  return kept
    .map((word, index) => (/^\p{N}/u.test(word) ? word : word.slice(0, index === 0 ? FIRST : FOLLOWING)))
    .join('-')
    .slice(0, 40)
    .replace(/-$/, '');
}
