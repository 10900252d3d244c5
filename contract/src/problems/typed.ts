import { figure, figureOf } from './figures.ts';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals of what is typed. */
export const typedProblems = {
  invalid: {
    status: 422,
    title: 'Something is wrong here',
    detail: (facts) => facts.message,
  },
  'not-a-number': {
    status: 422,
    title: 'Not a number',
    detail: (facts) => `“${facts.typed}” is not a number. Enter digits, like 12 or ${figureOf('0.5')}.`,
  },
  'too-many-decimals': {
    status: 422,
    title: 'Too many decimals',
    detail: ({ typed, decimals }) =>
      decimals === 0
        ? `“${typed}” has decimals, but this unit has none.`
        : `“${typed}” has too many decimals; ${decimals} are allowed here.`,
  },
  'too-large': {
    status: 422,
    title: 'The number is too large',
    detail: ({ largest }) => `This is too large: ${figure(largest)} is the most allowed here.`,
  },
  'not-positive': { status: 422, title: 'Nothing to do', detail: () => 'Enter an amount above zero.' },
  negative: { status: 422, title: 'Less than zero', detail: () => 'This can’t be below zero.' },
  'out-of-range': {
    status: 422,
    title: 'Out of range',
    detail: ({ least, most }) => `Enter a value from ${least} to ${most}.`,
  },
  unprintable: {
    status: 422,
    title: 'This can’t be shown',
    detail: () => 'This contains a character that can’t be seen or printed. Delete the text and enter it again.',
  },
  'unknown-measure': {
    status: 422,
    title: 'No such unit here',
    detail: ({ name, known }) =>
      `“${name}” is not a unit or pack of this item. Enter it in ${list(known)}, or add the pack to the item.`,
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
    title: 'This can’t be read',
    detail: ({ at }) => `This label can’t be read at “${at}”. Scan it again, or enter what is printed on it.`,
  },
  twice: {
    status: 422,
    title: 'Already in the list',
    detail: ({ name }) => `“${name}” is listed twice. Remove one.`,
  },
  'too-many': {
    status: 422,
    title: 'Too many at once',
    detail: ({ most }) => `No more than ${most} can be saved. Delete one first.`,
  },
  'no-change': { status: 422, title: 'Nothing to change', detail: () => 'Enter what is found or gone, like 3 or -2.' },
  'day-ahead': {
    status: 422,
    title: 'This date is later',
    detail: () => 'This date is in the future. Choose today or an earlier date.',
  },
  'day-passed': { status: 422, title: 'This date has passed', detail: () => 'Choose today or a later day.' },
} satisfies Partial<ProblemKinds>;
