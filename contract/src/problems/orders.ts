import { formatDecimal } from '@yosegi/core/number';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals about customers and what they order. */
export const ordersProblems = {
  'never-left': {
    status: 422,
    title: 'It never left',
    detail: ({ code, order }) =>
      `${code} did not leave with this shipment of ${order}. Scan it in the search above to see where it went.`,
  },
  'returned-already': {
    status: 409,
    title: 'It is back already',
    detail: ({ code, number }) => `${code} came back before, with ${number}. Open that return to decide about it.`,
  },
  'return-of-several': {
    status: 422,
    title: 'Of several customers',
    detail: () => 'A return is of one customer. Take what another customer sent in with a return of its own.',
  },
  'more-than-waiting': {
    status: 409,
    title: 'Not so many wait',
    detail: ({ left }) =>
      left > 0
        ? `Only ${formatDecimal(left)} of it still ${left === 1_000_000 ? 'waits' : 'wait'}; about the rest somebody has decided.`
        : 'Somebody has decided about it already.',
  },
  'cannot-refresh': {
    status: 422,
    title: 'Nothing says how',
    detail: ({ name }) =>
      `No rework in use says how ${name} is refreshed. Define one, or choose what else becomes of it.`,
  },
  'kit-goes-whole': {
    status: 422,
    title: 'A kit goes back whole',
    detail: ({ name }) =>
      `${name} left as a part of a kit. Send all parts of the kit back to the customer together, or keep this one.`,
  },
  'more-than-shipped': {
    status: 422,
    title: 'More than was shipped',
    detail: ({ left }) =>
      left > 0
        ? `Only ${formatDecimal(left)} of it is still with the customer. Check the shipment, or return less.`
        : 'All of it has come back before.',
  },
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
  'parcel-first': {
    status: 409,
    title: 'It is in the parcel',
    detail: ({ name, packed, needed, parcel }) =>
      `${formatDecimal(packed)} of ${name} stand in ${parcel}, and the order would take ${formatDecimal(needed)}. Put the rest back on its shelf first.`,
  },
  'parcel-elsewhere': {
    status: 409,
    title: 'Not this order’s parcel',
    detail: ({ number, order }) => `${number} is packed for ${order}. Ship it there, or scan a parcel of this order.`,
  },
  'parcel-left': {
    status: 409,
    title: 'Parcel has left',
    detail: ({ number, shipment }) => `${number} left with ${shipment}. Undo that shipment if it is still here.`,
  },
  'not-packed': {
    status: 422,
    title: 'Not in the parcel',
    detail: ({ name, packed }) =>
      packed === 0
        ? `No ${name} stands in a parcel of this order.`
        : `Only ${formatDecimal(packed)} of ${name} stand in a parcel of this order.`,
  },
  'not-built-for': {
    status: 409,
    title: 'Not built for this order',
    detail: ({ build, order }) =>
      `${build} makes nothing for ${order}. Finish it on its own page, or build for the order first.`,
  },
  'no-way-to-build': {
    status: 422,
    title: 'Nothing to build it by',
    detail: ({ name }) => `${name} has no bill of materials in use, so it cannot be built. Define one, or buy it.`,
  },
  'built-meanwhile': {
    status: 409,
    title: 'Planned meanwhile',
    detail: ({ name, building }) =>
      building === 0
        ? `A build of ${name} for this line was given up after you looked. Look again at what is still short.`
        : `Somebody has planned builds of ${name} for this line after you looked: ${formatDecimal(building)} are being built now. Look again at what is still short.`,
  },
  'more-than-needed': {
    status: 409,
    title: 'More than the order needs',
    detail: ({ name, needed }) =>
      needed === 0
        ? `Nothing more of ${name} has to be built for this line.`
        : `Only ${formatDecimal(needed)} more of ${name} have to be built for this line. Plan the rest for stock on Cover.`,
  },
  'built-for-orders': {
    status: 409,
    title: 'It is for orders',
    detail: ({ orders, promised }) =>
      `${formatDecimal(promised)} of it are for ${list(orders)}. Plan at least that many, or take them off the orders first.`,
  },
  'order-sent-before': {
    status: 409,
    title: 'Sent before',
    detail: ({ theirs, number }) =>
      `They sent ${theirs} before; it is ${number} here. To change it, they send an OrderChange.`,
  },
  'their-order-unknown': {
    status: 404,
    title: 'Order unknown',
    detail: ({ theirs }) => `No order ${theirs} of theirs has come in. They send the order first.`,
  },
  'their-order-split': {
    status: 409,
    title: 'Split here',
    detail: ({ theirs, orders }) =>
      `Their order ${theirs} was split here into ${orders.join(' and ')}. Change those by hand, as they now want it.`,
  },
  'their-item-unknown': {
    status: 422,
    title: 'Item unknown',
    detail: ({ code, line }) =>
      `Line ${line} asks for ${code}, which is not a code or barcode of ours. Give an item that code, or ask them for ours.`,
  },
  'nothing-later': {
    status: 409,
    title: 'Nothing later',
    detail: ({ name }) =>
      `${name} is on this line by the revision in use already, or by none. Look at the order again.`,
  },
  'split-all': {
    status: 422,
    title: 'Nothing would stay',
    detail: () => 'All of it would go to the other order. Leave something on this one, or change its day instead.',
  },
  'order-not-confirmed': {
    status: 409,
    title: 'Not confirmed',
    detail: ({ number }) => `${number} is not an open order. Confirm it first.`,
  },
  'order-line-gone': {
    status: 409,
    title: 'Line shipped',
    detail: () =>
      'Some of this line has been shipped, so it stays on the order. Drop what is still open of it instead.',
  },
} satisfies Partial<ProblemKinds>;
