import { PartItem } from '@yosegi/contract';
import { z } from 'zod';
import type { PastedRow } from '../lines/matchPasted.ts';
import { forgetKept, keep, keptOf } from '../ui/typed.ts';
import type { Draft, DraftLine } from './draft.ts';

const keyOf = (revisionId: number) => `draft.${revisionId}`;

const Line: z.ZodType<DraftLine> = z.object({
  key: z.string(),
  kind: z.enum(['part', 'labour', 'charge', 'note']),
  item: PartItem.nullable(),
  text: z.string(),
  basis: z.enum(['per-output', 'per-run']),
  amount: z.string(),
  waste: z.string(),
  taken: z.enum(['picked-first', 'when-finished']),
  share: z.string(),
  comesBack: z.boolean(),
  tolerance: z.string(),
  rateId: z.number(),
  fromBinId: z.number().nullable(),
  alternates: z.array(z.object({ item: PartItem, ratio: z.string() })),
});
const Pasted = z.custom<PastedRow>((row) => typeof row === 'object' && row !== null);
const Kept: z.ZodType<{ readonly version: number; readonly draft: Draft }> = z.object({
  version: z.number(),
  draft: z.object({
    outputQuantity: z.string(),
    lines: z.array(Line),
    price: z.string(),
    mending: z.array(Pasted),
  }),
});

/** Keeps what is typed into a draft on this machine until it is saved, so that a closed tab loses nothing. */
export const keepDraft = (revisionId: number, version: number, draft: Draft): void =>
  keep(keyOf(revisionId), { version, draft } satisfies z.infer<typeof Kept>);

export const keptDraft = (revisionId: number): z.infer<typeof Kept> | null => keptOf(keyOf(revisionId), Kept) ?? null;

export const forgetDraft = (revisionId: number): void => forgetKept(keyOf(revisionId));
