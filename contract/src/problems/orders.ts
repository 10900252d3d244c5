import { formatDecimal } from '@yosegi/core/number';
import type { ProblemKinds } from './kind.ts';

/** Refusals about customers and what they order. */
export const ordersProblems = {
  'more-than-ordered': {
    status: 422,
    title: 'More than is open',
    detail: ({ left }) =>
      left === 0
        ? 'Nothing of this line is left to ship.'
        : `Only ${formatDecimal(left)} of this line is left to ship. Change the order first to send more.`,
  },
  'order-has-shipped': {
    status: 409,
    title: 'Some has left',
    detail: () => 'Some of it has been shipped, so it cannot be cancelled. Drop what is still open instead.',
  },
  'order-record-only': {
    status: 422,
    title: 'Not for sale',
    detail: ({ name }) =>
      `${name} is a parts list of something a customer owns. Order the item itself once it is in stock, or its parts.`,
  },
  'price-unknown': {
    status: 422,
    title: 'No price',
    detail: ({ name }) => `${name} has no sell price. Type what one of it costs the customer; 0 is fine for a gift.`,
  },
  'customer-archived': {
    status: 409,
    title: 'Customer out of use',
    detail: ({ name }) => `${name} is archived. Bring the customer back first, or choose another.`,
  },
  'less-than-shipped': {
    status: 409,
    title: 'Less than has left',
    detail: ({ shipped }) => `${formatDecimal(shipped)} of this line has been shipped already; it cannot be less.`,
  },
  'kit-locked': {
    status: 422,
    title: 'Contents are fixed',
    detail: () => 'Nothing in this kit may be changed on an order. Its bill of materials says so, under Behaves.',
  },
  'kit-no-swaps': {
    status: 422,
    title: 'Parts stay',
    detail: () =>
      'Only quantities may change in this kit, no part may be swapped. Its bill of materials says so, under Behaves.',
  },
  'kit-swap-unlisted': {
    status: 422,
    title: 'Not one of its alternates',
    detail: () =>
      'This part may be swapped only for the alternates that the bill of materials lists. Choose one of them.',
  },
  'kit-empty': {
    status: 422,
    title: 'Nothing left in it',
    detail: () =>
      'Every part is left out, so there would be nothing to send. Keep at least one, or take the line off the order.',
  },
  'kit-has-left': {
    status: 409,
    title: 'Some has left',
    detail: () => 'Some of this line has been shipped with these contents. Add another line for different ones.',
  },
  'order-line-gone': {
    status: 409,
    title: 'Line shipped',
    detail: () =>
      'Some of this line has been shipped, so it stays on the order. Drop what is still open of it instead.',
  },
} satisfies Partial<ProblemKinds>;
