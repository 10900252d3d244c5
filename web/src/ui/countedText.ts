import { readLocal, type Writing } from '@yosegi/core/number';

/** "30 KIT-M", "KIT-M 30" or "30 × KIT-M": how many, as a plain decimal, of what. */
export interface Counted {
  readonly quantity: string;
  readonly rest: string;
}

/** What a text may say of a quantity beside the item it names; null when it has no number at either end. */
export function countedText(text: string, writing: Writing): Counted | null {
  const [, before, after] = /^([\d.,]*\d)\s*(?:[x×]\s*|\s)(\S.*)$/iu.exec(text) ?? [];
  if (before && after) return { quantity: readLocal(before, writing).plain, rest: after };
  const [, first, last] = /^(.*\S)\s+(?:[x×]\s*)?([\d.,]*\d)$/iu.exec(text) ?? [];
  return first && last ? { quantity: readLocal(last, writing).plain, rest: first } : null;
}
