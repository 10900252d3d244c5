import type { Draft } from './draft.ts';

interface Kept {
  readonly version: number;
  readonly draft: Draft;
}
const keyOf = (revisionId: number) => `yosegi.draft.${revisionId}`;

/** Keeps what is typed into a draft on this machine until it is saved, so that a closed tab loses nothing. */
export function keepDraft(revisionId: number, version: number, draft: Draft): void {
  localStorage.setItem(keyOf(revisionId), JSON.stringify({ version, draft } satisfies Kept));
}

export function keptDraft(revisionId: number): Kept | null {
  const text = localStorage.getItem(keyOf(revisionId));
  return text === null ? null : (JSON.parse(text) as Kept);
}

export const forgetDraft = (revisionId: number) => localStorage.removeItem(keyOf(revisionId));
