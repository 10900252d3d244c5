import type { ProblemKinds } from './kind.ts';

/** Refusals of what is meant: records that are not there, names that are taken, states that do not fit. */
export const meantProblems = {
  'unknown-item': {
    status: 422,
    title: 'Unknown item',
    detail: () => 'This item does not exist. Choose one from the list.',
  },
  'unknown-bin': {
    status: 422,
    title: 'Unknown bin',
    detail: () => 'This bin does not exist, or nothing can be kept in it.',
  },
  'unknown-line': {
    status: 422,
    title: 'Unknown line',
    detail: () => 'This line is not part of the record. Reload and try again.',
  },
  'last-owner': {
    status: 422,
    title: 'The last owner',
    detail: () => 'Somebody has to be the owner. Make another person an owner first.',
  },
  'unknown-choice': { status: 422, title: 'Unknown choice', detail: () => 'This choice does not exist any more.' },
  'not-found': { status: 404, title: 'Not found', detail: () => 'There is nothing here. It may have been removed.' },
  'code-taken': {
    status: 409,
    title: 'Code taken',
    detail: ({ code, by }) => `“${code}” already belongs to ${by}. Choose another code.`,
  },
  'stale-save': {
    status: 409,
    title: 'Changed meanwhile',
    detail: () => 'Someone else saved this record after you opened it. Compare both versions before you save yours.',
  },
  'wrong-state': {
    status: 409,
    title: 'Not possible now',
    detail: ({ is, must }) => `This is ${is}; it would have to be ${must}.`,
  },
} satisfies Partial<ProblemKinds>;
