import { type ElementString, looksLikeGs1, readGs1 } from '@yosegi/core/scan';
import { today } from './today.ts';

/** The label that a scanner typed, or null when the text is no such label. @throws Refusal when it cannot be read */
export const scannedLabel = (text: string): ElementString | null =>
  looksLikeGs1(text.trim()) ? readGs1(text.trim(), today()) : null;
