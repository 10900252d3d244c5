import { Refusal } from '../refusal/index.ts';

/**
 * Control characters but tab and line ends, surrogates without their other half, and what Unicode says is no character:
 * nothing of it can be seen, printed or carried by XML 1.0.
 */
const UNPRINTABLE = /(?![\t\n\r])[\p{Cc}\p{Cs}\ufffe\uffff]/u;
/** Characters without a width, or that change the direction of what stands beside them. */
const INVISIBLE = /[\p{Cf}\p{Default_Ignorable_Code_Point}]/u;

/** Whether a text can be kept, shown, printed and sent. */
export const isPrintable = (text: string) => !UNPRINTABLE.test(text);

/** @throws Refusal `unprintable` for a text with a character that cannot be shown */
export function refuseUnprintable(text: string, field?: string): void {
  if (!isPrintable(text)) throw new Refusal('unprintable', {}, field);
}

/** Whether anything of a text can be seen: a name of nothing but characters without a width looks like none. */
export const isSeen = (text: string) => /[^\s\p{Cf}\p{Cc}\p{Default_Ignorable_Code_Point}]/u.test(text);

/** A code as it is kept: full-width letters and other twins become the plain ones (Unicode NFKC). */
export const plainCode = (text: string) => text.normalize('NFKC').trim();

/** Whether a code shows everything it is made of, so that no two codes look the same. */
export const isVisible = (text: string) => isPrintable(text) && !INVISIBLE.test(text) && !/\s/.test(text);
