/** How a language writes numbers. */
export interface Writing {
  /** Between whole and fraction: "." or ",". */
  readonly decimal: string;
  /** Between thousands: ",", ".", an apostrophe or a kind of space. */
  readonly group: string;
}

/** @param locale a BCP 47 tag, like "de-DE" */
export function writingOf(locale: string): Writing {
  const parts = new Intl.NumberFormat(locale, { useGrouping: true }).formatToParts(-1234567.8);
  const of = (type: Intl.NumberFormatPartTypes, otherwise: string) =>
    parts.find((part) => part.type === type)?.value ?? otherwise;
  return { decimal: of('decimal', '.'), group: of('group', ',') };
}

export interface ReadNumber {
  /** The text with its number as computers write it, "1.5 kg"; as it was typed where no number can be made out. */
  readonly plain: string;
  /** Somebody from elsewhere could mean another number by it, like "1,234". */
  readonly isDoubtful: boolean;
}

const NUMBER = /^(\s*[+-]?)([\d.,'’\u00a0\u202f]*\d[.,]?)(.*)$/s;

/**
 * Reads the number that a text begins with as the language writes it, and as others do where there is no doubt: a lone
 * comma or point is a decimal sign unless exactly three digits follow and the language parts thousands by it.
 */
export function readLocal(text: string, writing: Writing): ReadNumber {
  // A space parts thousands only where three digits follow, and no fraction as in "1 1/2".
  const joined = text.replace(/(\d)[ \u00a0\u202f](?=\d{3}(?![\d/]))/g, '$1');
  const [, sign = '', number = '', rest = ''] = NUMBER.exec(joined) ?? [];
  const asTyped = { plain: text, isDoubtful: false };
  if (number === '') return asTyped;
  const digits = number.replace(/['’\u00a0\u202f]/g, '');
  const signs = [...digits].filter((char) => char === '.' || char === ',');
  const last = signs.at(-1);
  if (last === undefined) return { plain: sign + digits + rest, isDoubtful: false };
  const whole = digits.slice(0, digits.lastIndexOf(last));
  const fraction = digits.slice(digits.lastIndexOf(last) + 1);
  const withFraction = (plain: string) => `${sign}${plain || '0'}${fraction === '' ? '' : `.${fraction}`}${rest}`;
  const other = last === '.' ? ',' : '.';
  if (signs.length === 1) {
    const isGroupLike = fraction.length === 3 && /^[1-9]\d{0,2}$/.test(whole);
    if (last === writing.decimal || !isGroupLike) return { plain: withFraction(whole), isDoubtful: false };
    const plain = last === writing.group ? sign + whole + fraction + rest : withFraction(whole);
    return { plain, isDoubtful: true };
  }
  if (signs.every((char) => char === last)) {
    const groups = digits.split(last);
    return isGrouped(groups) ? { plain: sign + groups.join('') + rest, isDoubtful: false } : asTyped;
  }
  const groups = whole.split(other);
  return signs.filter((char) => char === last).length === 1 && isGrouped(groups)
    ? { plain: withFraction(groups.join('')), isDoubtful: false }
    : asTyped;
}

/** One to three digits, then threes; in India twos and a three at the end. */
const isGrouped = ([first = '', ...more]: readonly string[]) =>
  /^\d{1,3}$/.test(first) &&
  more.every((group, index) => /^\d{3}$/.test(group) || (/^\d{2}$/.test(group) && index < more.length - 1));

/** The number that a plain text begins with, as the language writes it, without thousands: "1.5 kg" is "1,5 kg". */
export const writeLocal = (plain: string, { decimal }: Writing): string =>
  plain.replace(/^(\s*[+-]?\d*)\.(?=\d)/, `$1${decimal}`);
