import { formatDecimal } from '@yosegi/core/number';
import type { ProblemKinds } from './kind.ts';

/** Refusals about orders, suppliers, prices known later, and labels. */
export const buyingProblems = {
  'no-order-lines': { status: 422, title: 'Nothing in it', detail: () => 'Add at least one item before it is sent.' },
  'order-unknown': {
    status: 422,
    title: 'Unknown order',
    detail: ({ number }) => `There is no order ${number} of ours. Look at the number on the paper.`,
  },
  'order-has-receipts': {
    status: 409,
    title: 'Some has arrived',
    detail: () => 'Some of it has arrived, so it cannot be cancelled. Close what is still open instead.',
  },
  'supplier-no-mail': {
    status: 422,
    title: 'No mail address',
    detail: ({ name }) => `${name} has no mail address. Enter one under Suppliers, or print the order.`,
  },
  'over-delivery': {
    status: 409,
    title: 'More than was ordered',
    detail: ({ name, over }) =>
      `That is ${formatDecimal(over)} more of ${name} than was ordered. Receive what was ordered, or take in the rest too.`,
  },
  'delivery-received': {
    status: 409,
    title: 'Received already',
    detail: ({ number }) => `This delivery was received with ${number}. Nothing was received twice.`,
  },
  'not-in-mailbox': {
    status: 409,
    title: 'Not in the mailbox',
    detail: ({ number }) => `${number} was not sent by mail, so its supplier has nothing to answer.`,
  },
  'nothing-to-send': {
    status: 409,
    title: 'Nothing left to send',
    detail: ({ number }) => `Everything of ${number} is on its way or has come.`,
  },
  'ubl-unreadable': {
    status: 422,
    title: 'Cannot be read',
    detail: ({ why }) => `This message cannot be read: ${why}. Ask the supplier to send it again, or enter it by hand.`,
  },
  'receipt-undone': {
    status: 409,
    title: 'Undone',
    detail: ({ number }) => `${number} was undone, so its price no longer matters. Open the receipt that stands.`,
  },
  'no-price-change': {
    status: 422,
    title: 'Nothing to change',
    detail: () => 'Every cost is as it was. Type what differs.',
  },
  'no-labels': { status: 422, title: 'Nothing to label', detail: () => 'Nothing of it needs a label.' },
  'too-many-labels': {
    status: 422,
    title: 'Too many labels',
    detail: ({ most }) => `At most ${most} labels are printed at once. Choose fewer.`,
  },
} satisfies Partial<ProblemKinds>;
