import type { Draft } from './draft.ts';

interface Kept {
  readonly version: number;
  readonly draft: Draft;
}
// The number is the shape of what is kept: a draft of an older shape is not read.
const keyOf = (revisionId: number) => `yosegi.draft.2.${revisionId}`;

/** Keeps what is typed into a draft on this machine until it is saved, so that a closed tab loses nothing. */
export function keepDraft(revisionId: number, version: number, draft: Draft): void {
  localStorage.setItem(keyOf(revisionId), JSON.stringify({ version, draft } satisfies Kept));
}

export function keptDraft(revisionId: number): Kept | null {
  const text = localStorage.getItem(keyOf(revisionId));
  return text === null ? null : (JSON.parse(text) as Kept);
}

export const forgetDraft = (revisionId: number) => localStorage.removeItem(keyOf(revisionId));
