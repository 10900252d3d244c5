import { formatDecimal } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';

export type Facts = Record<string, unknown>;
export interface ProblemKind {
  readonly status: number;
  readonly title: string;
  /** Says what is wrong and what to do about it. */
  readonly detail: (facts: Facts) => string;
}

const amount = (value: unknown) => (typeof value === 'number' ? formatDecimal(value) : String(value ?? ''));

/** Every refusal the API can answer with: its stable code, status and wording in one place. */
export const problemKinds: Record<string, ProblemKind> = {
  'not-a-number': {
    status: 422,
    title: 'Not a number',
    detail: (facts) => `“${facts.typed}” is not a number. Write digits with a point for decimals, like 12 or 0.5.`,
  },
  'too-many-decimals': {
    status: 422,
    title: 'Too many decimals',
    detail: ({ typed, decimals }) =>
      decimals === 0
        ? `“${typed}” has decimals, but this is counted in whole units.`
        : `“${typed}” has too many decimals; ${decimals} are allowed here.`,
  },
  'too-large': {
    status: 422,
    title: 'Too large',
    detail: () => 'This amount is too large; at most 999999999 can be typed.',
  },
  'not-positive': { status: 422, title: 'Nothing to do', detail: () => 'Type an amount above zero.' },
  negative: { status: 422, title: 'Below zero', detail: () => 'This cannot be below zero.' },
  invalid: {
    status: 422,
    title: 'Something is not right',
    detail: (facts) => String(facts.message ?? 'Check this field.'),
  },
  'out-of-range': {
    status: 422,
    title: 'Out of range',
    detail: ({ least, most }) => `Type a value from ${least} to ${most}.`,
  },
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
  'unknown-choice': { status: 422, title: 'Unknown choice', detail: () => 'This choice does not exist any more.' },
  'not-found': { status: 404, title: 'Not found', detail: () => 'There is nothing here. It may have been removed.' },
  'code-taken': {
    status: 409,
    title: 'Code taken',
    detail: ({ code, by }) => `“${code}” already belongs to ${by}. Choose another code.`,
  },
  'unit-in-use': {
    status: 409,
    title: 'Unit in use',
    detail: () => 'Stock has been kept in this unit already. Make a new item to count it in another.',
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
  'contains-itself': {
    status: 422,
    title: 'Contains itself',
    detail: (facts) =>
      `This would make the product a part of itself: ${(facts.path as string[]).join(' → ')}. Take out one link.`,
  },
  'shares-over': {
    status: 422,
    title: 'Shares above 100 %',
    detail: ({ sum }) => `The take-apart shares typed add up to ${amount(sum)} %. Lower one, or leave one empty.`,
  },
  'shares-under': {
    status: 422,
    title: 'Shares below 100 %',
    detail: ({ sum }) =>
      `The take-apart shares typed add up to ${amount(sum)} %. Raise one, or leave one empty to take the rest.`,
  },
  'no-lines': { status: 422, title: 'Nothing in it', detail: () => 'Add at least one part or labour line first.' },
  'definition-exists': {
    status: 409,
    title: 'Already defined',
    detail: () => 'This item has a bill of materials. Open it instead.',
  },
  'draft-exists': {
    status: 409,
    title: 'Draft exists',
    detail: () => 'There is a draft already. Go on with it, or discard it first.',
  },
  'no-definition-in-use': {
    status: 422,
    title: 'No bill of materials in use',
    detail: ({ name }) => `${name} has no bill of materials in use. Put its draft in use first.`,
  },
  'cover-changed': {
    status: 409,
    title: 'Stock changed meanwhile',
    detail: () =>
      'Stock or other plans changed while you were looking. The figures are up to date now; check them and plan again.',
  },
  'parts-short': {
    status: 409,
    title: 'Parts are short',
    detail: ({ canStart }) =>
      Number(canStart) > 0
        ? `Parts are short for the whole build, but enough for ${amount(canStart)}.`
        : 'Parts are short; not even one can be built.',
  },
  'stock-short': {
    status: 409,
    title: 'Not enough there',
    detail: () =>
      'There is less in the bin than this would take. Take less, take it from elsewhere, or receive it first.',
  },
  'more-than-open': {
    status: 422,
    title: 'More than is open',
    detail: ({ open }) =>
      open === 0 ? 'Everything for this line has been picked.' : `Only ${amount(open)} is still open on this line.`,
  },
  'more-than-planned': {
    status: 422,
    title: 'More than planned',
    detail: ({ left }) => `Only ${amount(left)} of this build is left to finish. Plan another build for more.`,
  },
  'more-than-expected': {
    status: 422,
    title: 'More than went in',
    detail: ({ expected }) => `At most ${amount(expected)} of this can come back.`,
  },
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
  'already-undone': {
    status: 409,
    title: 'Already undone',
    detail: ({ number }) => `${number} has undone this already.`,
  },
  'undo-final': { status: 409, title: 'Cannot be undone', detail: ({ why }) => String(why) },
  'sign-in': { status: 401, title: 'Who is working?', detail: () => 'Choose who you are first.' },
  'owner-only': { status: 403, title: 'For the owner', detail: () => 'Only an owner may do this. Ask one to.' },
  'key-missing': { status: 400, title: 'Key missing', detail: () => 'A command needs an Idempotency-Key header.' },
  'key-reused': {
    status: 422,
    title: 'Key used before',
    detail: () => 'This Idempotency-Key belongs to another command.',
  },
  'bad-host': { status: 421, title: 'Wrong address', detail: () => 'This server answers on this machine only.' },
};

/** What a refusal says to a person, before it ever reached the server; undefined when `error` is something else. */
export function wordsOf(error: unknown): string | undefined {
  return error instanceof Refusal ? problemKinds[error.code]?.detail(error.facts) : undefined;
}
