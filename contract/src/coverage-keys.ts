import type { Snapshot } from './coverage.ts';

// Apart from the schemas, so that the worker needs none of them.

/** The key a row of a snapshot goes by, the same at every moment. */
export const keyOf = {
  items: ([id]: Snapshot['items'][number]) => `i${id}`,
  definitions: ({ itemId, draft }: Snapshot['definitions'][number]) => `${draft ? 'r' : 'd'}${itemId}`,
  demands: ({ kind, lineId }: Snapshot['demands'][number]) => `n${kind}${lineId}`,
  supplies: ({ kind, id, only, draft }: Snapshot['supplies'][number]) =>
    `s${kind}${id}${only === null ? '' : `-${only}`}${draft ? 'd' : ''}`,
} as const;
