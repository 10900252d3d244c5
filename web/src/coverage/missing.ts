import type { CoverItem } from '@yosegi/contract';
import type { CoverAnswer } from '../workers/coverAnswer.ts';

/** What is short of an answer, by item, the most at once that is asked about. */
export const missingOf = (answer: CoverAnswer, items: ReadonlyMap<number, CoverItem>) =>
  answer.components.flatMap(({ itemId, short }) => {
    const name = items.get(itemId)?.name;
    return short > 0 && name !== undefined ? [{ itemId, name }] : [];
  });
