import { formatDecimal } from '@yosegi/core/number';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals of what is typed. */
export const typedProblems = {
  invalid: {
    status: 422,
    title: 'Something is not right',
    detail: (facts) => facts.message,
  },
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
    detail: ({ largest }) => `This is too large: ${formatDecimal(largest)} is the most that can be kept here.`,
  },
  'not-positive': { status: 422, title: 'Nothing to do', detail: () => 'Type an amount above zero.' },
  negative: { status: 422, title: 'Below zero', detail: () => 'This cannot be below zero.' },
  'out-of-range': {
    status: 422,
    title: 'Out of range',
    detail: ({ least, most }) => `Type a value from ${least} to ${most}.`,
  },
  unprintable: {
    status: 422,
    title: 'Cannot be shown',
    detail: () => 'There is a character in this that cannot be seen or printed. Delete the text and type it again.',
  },
  'unknown-measure': {
    status: 422,
    title: 'Unknown unit',
    detail: ({ name, known }) =>
      `“${name}” is not a unit or pack of this item. Type it in ${list(known)}, or add the pack to the item.`,
  },
  'barcode-check-digit': {
    status: 422,
    title: 'Wrong check digit',
    detail: ({ typed, right }) =>
      `${typed} looks like a GTIN, but its last digit would have to be ${right}. Scan it again; a number of your own needs a letter in it.`,
  },
  'barcode-shape': {
    status: 422,
    title: 'Not a barcode',
    detail: () => 'A barcode is up to 48 plain letters, digits and signs. Leave out accents and line breaks.',
  },
  'gs1-unreadable': {
    status: 422,
    title: 'Cannot be read',
    detail: ({ at }) => `This label cannot be read at “${at}”. Scan it again, or type what is printed on it.`,
  },
  twice: { status: 422, title: 'Listed twice', detail: ({ name }) => `“${name}” is listed twice. Take one out.` },
  'too-many': {
    status: 422,
    title: 'Too many',
    detail: ({ most }) => `No more than ${most} can be kept. Delete one first.`,
  },
  'no-change': { status: 422, title: 'Nothing to change', detail: () => 'Type what is found or gone, like 3 or -2.' },
  'day-ahead': {
    status: 422,
    title: 'Day ahead',
    detail: () => 'This day has not come yet. Choose today or a day before.',
  },
  'day-passed': { status: 422, title: 'Day passed', detail: () => 'Choose today or a later day.' },
} satisfies Partial<ProblemKinds>;
