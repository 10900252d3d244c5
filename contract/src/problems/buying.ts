import { figure } from './figures.ts';
import type { ProblemKinds } from './kind.ts';

/** Refusals about orders, suppliers, prices known later, and labels. */
export const buyingProblems = {
  'no-order-lines': {
    status: 422,
    title: 'Nothing here yet',
    detail: () => 'Add at least one item before it is sent.',
  },
  'order-unknown': {
    status: 422,
    title: 'No such purchase order',
    detail: ({ number }) => `We have no order ${number}. Check the number on the paper.`,
  },
  'order-has-receipts': {
    status: 409,
    title: 'Some has arrived',
    detail: () => 'Some has arrived, so this order can’t be cancelled. Close what is still open instead.',
  },
  'supplier-no-mail': {
    status: 422,
    title: 'No email address',
    detail: ({ name }) => `${name} has no email address. Enter one under Suppliers, or print the order.`,
  },
  'over-delivery': {
    status: 409,
    title: 'More than was ordered',
    detail: ({ name, over }) =>
      `That is ${figure(over)} more of ${name} than was ordered. Receive what was ordered, or receive the extra too.`,
  },
  'delivery-received': {
    status: 409,
    title: 'Delivery already received',
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
    title: 'This can’t be read',
    detail: ({ why }) => `This message can’t be read: ${why}. Ask the supplier to send it again, or enter it by hand.`,
  },
  'receipt-undone': {
    status: 409,
    title: 'Receipt was undone',
    detail: ({ number }) => `${number} was undone, so its price no longer matters. Open the current receipt.`,
  },
  'no-price-change': {
    status: 422,
    title: 'Nothing to change',
    detail: () => 'Every cost is the same. Enter what differs.',
  },
  'no-labels': { status: 422, title: 'Nothing to label', detail: () => 'None of these needs a label.' },
  'too-many-labels': {
    status: 422,
    title: 'Too many labels',
    detail: ({ most }) => `At most ${most} labels are printed at once. Choose fewer.`,
  },
} satisfies Partial<ProblemKinds>;
