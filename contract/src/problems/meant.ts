import type { ProblemKinds } from './kind.ts';
import { stepAfter } from './states.ts';

/** Refusals of what is meant: records that are not there, names that are taken, states that do not fit. */
export const meantProblems = {
  'unknown-item': {
    status: 422,
    title: 'No such item here',
    detail: () => 'This item does not exist. Choose one from the list.',
  },
  'unknown-bin': {
    status: 422,
    title: 'No such bin here',
    detail: () => 'This bin does not exist, or it holds no stock.',
  },
  'unknown-line': {
    status: 422,
    title: 'Line no longer exists',
    detail: () => 'This line is not part of the record. Reload and try again.',
  },
  'last-owner': {
    status: 422,
    title: 'One owner is needed',
    detail: () => 'Someone has to be the owner. Make another person an owner first.',
  },
  'unknown-choice': {
    status: 422,
    title: 'Choice no longer exists',
    detail: () => 'This choice does not exist any more. Choose another one.',
  },
  'not-found': {
    status: 404,
    title: 'This no longer exists',
    detail: () => 'The record may have been deleted. Go back to its list.',
  },
  'code-taken': {
    status: 409,
    title: 'Code already in use',
    detail: ({ code, by }) => `“${code}” already belongs to ${by}. Choose another code.`,
  },
  'stale-save': {
    status: 409,
    title: 'Changed by someone else',
    detail: () => 'Someone else saved this record after you opened it. Compare both versions before you save yours.',
  },
  'wrong-state': {
    status: 409,
    title: 'Not possible now',
    detail: ({ kind, number, state }) => stepAfter(kind, number, state),
  },
} satisfies Partial<ProblemKinds>;
