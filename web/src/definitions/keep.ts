import { forgetKept, keep, keptOf } from '../ui/typed.ts';
import type { Draft } from './draft.ts';

interface Kept {
  readonly version: number;
  readonly draft: Draft;
}
const keyOf = (revisionId: number) => `draft.${revisionId}`;

/** Keeps what is typed into a draft on this machine until it is saved, so that a closed tab loses nothing. */
export const keepDraft = (revisionId: number, version: number, draft: Draft): void =>
  keep(keyOf(revisionId), { version, draft } satisfies Kept);

export function keptDraft(revisionId: number): Kept | null {
  const kept = keptOf<Kept>(keyOf(revisionId));
  return kept ? { ...kept, draft: { ...kept.draft, price: kept.draft.price ?? '' } } : null;
}

export const forgetDraft = (revisionId: number): void => forgetKept(keyOf(revisionId));
