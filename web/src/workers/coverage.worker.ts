import type { Snapshot } from '@yosegi/contract';
import { CoverageWorld } from '@yosegi/contract/coverage-input';
import { wordsOf } from '@yosegi/contract/problems';
import type { Wanted } from '@yosegi/core/coverage';
import { type CoverAnswer, coverAnswer } from './coverAnswer.ts';

export type ToWorker = { kind: 'snapshot'; snapshot: Snapshot } | { kind: 'ask'; id: number; wanted: Wanted[] };
export type FromWorker = { id: number; answer: CoverAnswer } | { id: number; refused: string };

let world: CoverageWorld | null = null;

/** Keeps the last snapshot and answers questions about it; the newest question is always the last one answered. */
addEventListener('message', ({ data }: MessageEvent<ToWorker>) => {
  try {
    if (data.kind === 'snapshot') world = new CoverageWorld(data.snapshot);
    else if (world) postMessage({ id: data.id, answer: coverAnswer(world, data.wanted) } satisfies FromWorker);
  } catch (error) {
    const refused = wordsOf(error);
    if (refused === undefined || data.kind === 'snapshot') throw error;
    postMessage({ id: data.id, refused } satisfies FromWorker);
  }
});
