import type { ProblemKinds } from './kind.ts';

/** Why something cannot be undone. */
export const undoingProblems = {
  'undo-goods-gone': {
    status: 409,
    title: 'Cannot be undone any more',
    detail: () => 'The goods it brought have been used or moved since. Undo what used them first.',
  },
  'undo-value-gone': {
    status: 409,
    title: 'Cannot be undone any more',
    detail: () => 'The cost it brought in has been used by later postings. Undo those first.',
  },
  'undo-final': { status: 409, title: 'Cannot be undone', detail: ({ why }) => why },
  'undo-later-first': {
    status: 409,
    title: 'Another first',
    detail: ({ number }) => `${number} has changed what this is worth since. Undo that one first.`,
  },
  'came-again': {
    status: 409,
    title: 'Returned again since',
    detail: ({ number }) => `${number} has brought these goods back again since. Undo what took that in first.`,
  },
  'comes-back': {
    status: 409,
    title: 'Some of it comes back',
    detail: ({ number, isHere }) =>
      isHere
        ? `${number} has brought some of it back. Undo what took that in, and call ${number} off.`
        : `${number} is announced to bring some of it back. Call ${number} off first.`,
  },
  'already-undone': {
    status: 409,
    title: 'Already undone',
    detail: ({ number }) => `${number} has undone this already.`,
  },
} satisfies Partial<ProblemKinds>;
