import type { ProblemKinds } from './kind.ts';

/** Why something cannot be undone. */
export const undoingProblems = {
  'undo-goods-gone': {
    status: 409,
    title: 'This can’t be undone any more',
    detail: () => 'The goods have been used or moved since. Undo what used them first.',
  },
  'undo-value-gone': {
    status: 409,
    title: 'This can’t be undone any more',
    detail: () => 'Later postings used its cost. Undo those first.',
  },
  'undo-final': { status: 409, title: 'This can’t be undone', detail: ({ why }) => why },
  'undo-later-first': {
    status: 409,
    title: 'Undo another document first',
    detail: ({ number }) => `${number} has changed what this is worth since. Undo that one first.`,
  },
  'came-again': {
    status: 409,
    title: 'Returned again since',
    detail: ({ number }) => `${number} has returned these goods again since. Undo that receipt first.`,
  },
  'comes-back': {
    status: 409,
    title: 'Some is being returned',
    detail: ({ number, isHere }) =>
      isHere
        ? `${number} has returned some of this. Undo its receipt, then cancel ${number}.`
        : `${number} is announced and returns some of this. Cancel ${number} first.`,
  },
  'already-undone': {
    status: 409,
    title: 'This was undone before',
    detail: ({ number }) => `${number} has undone this already.`,
  },
} satisfies Partial<ProblemKinds>;
