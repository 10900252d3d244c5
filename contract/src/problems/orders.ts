import { figure } from './figures.ts';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals about customers and what they order. */
export const ordersProblems = {
  'never-left': {
    status: 422,
    title: 'These goods never shipped',
    detail: ({ code, order }) =>
      `${code} did not leave with this shipment of ${order}. Scan it in the search above to find its shipment.`,
  },
  'returned-already': {
    status: 409,
    title: 'Already returned in full',
    detail: ({ code, number }) => `${code} came back before, with ${number}. Open that return to process it.`,
  },
  'return-of-several': {
    status: 422,
    title: 'From several customers',
    detail: () => 'A return belongs to one customer. Enter a separate return for the other customer’s goods.',
  },
  'more-than-waiting': {
    status: 409,
    title: 'More than is undecided',
    detail: ({ left }) =>
      left > 0
        ? `Only ${figure(left)} left to decide; someone has already dealt with the rest.`
        : 'Someone has already decided about this.',
  },
  'cannot-refresh': {
    status: 422,
    title: 'No rework defined',
    detail: ({ name }) => `No rework in use refreshes ${name}. Define one, or make another decision.`,
  },
  'kit-goes-whole': {
    status: 422,
    title: 'Return the complete kit',
    detail: ({ name }) =>
      `${name} left as a part of a kit. Send all parts of the kit back to the customer together, or keep this one.`,
  },
  'more-than-shipped': {
    status: 422,
    title: 'More than was shipped',
    detail: ({ left }) =>
      left > 0
        ? `The customer still has only ${figure(left)}. Check the shipment, or return less.`
        : 'All of this has already been returned.',
  },
  'more-than-ordered': {
    status: 422,
    title: 'More than is open',
    detail: ({ left }) =>
      left === 0
        ? 'Nothing on this line is left to ship.'
        : `Only ${figure(left)} of this line is left to ship. Change the order first to send more.`,
  },
  'order-has-shipped': {
    status: 409,
    title: 'Some was shipped',
    detail: () => 'Some of this order has been shipped, so it can’t be cancelled. Give up the rest instead.',
  },
  'order-record-only': {
    status: 422,
    title: 'Not for sale',
    detail: ({ name }) =>
      `${name} is a record of something a customer owns. Order the item itself once it is in stock, or its parts.`,
  },
  'price-unknown': {
    status: 422,
    title: 'No price yet',
    detail: ({ name }) => `${name} has no sell price. Enter the unit price for the customer; 0 is fine for a gift.`,
  },
  'customer-archived': {
    status: 409,
    title: 'Customer is archived',
    detail: ({ name }) => `${name} is archived. Bring the customer back first, or choose another.`,
  },
  'less-than-shipped': {
    status: 409,
    title: 'Less than was shipped',
    detail: ({ shipped }) => `${figure(shipped)} of this line has been shipped already; it cannot be less.`,
  },
  'kit-locked': {
    status: 422,
    title: 'Contents are fixed',
    detail: () =>
      'Nothing in this kit can be changed on an order. Change that in its bill of materials, under How it behaves.',
  },
  'kit-no-swaps': {
    status: 422,
    title: 'Parts can’t be swapped',
    detail: () =>
      'Only quantities can change in this kit; no part can be swapped. Change that in its bill of materials, under How it behaves.',
  },
  'kit-swap-unlisted': {
    status: 422,
    title: 'Not one of its alternates',
    detail: () =>
      'This part may be swapped only for the alternates that the bill of materials lists. Choose one of them.',
  },
  'kit-empty': {
    status: 422,
    title: 'Nothing left inside',
    detail: () =>
      'Every part is left out, so there would be nothing to send. Leave at least one in, or remove the line from the order.',
  },
  'kit-has-left': {
    status: 409,
    title: 'Some was shipped',
    detail: () => 'Some of this line has been shipped with these contents. Add another line for different ones.',
  },
  'parcel-first': {
    status: 409,
    title: 'Already in the parcel',
    detail: ({ name, packed, needed, parcel }) =>
      `${parcel} holds ${figure(packed)} of ${name}, and the order would take ${figure(needed)}. Put the rest back on its shelf first.`,
  },
  'parcel-elsewhere': {
    status: 409,
    title: 'Not this order’s parcel',
    detail: ({ number, order }) => `${number} is packed for ${order}. Ship it there, or scan a parcel of this order.`,
  },
  'parcel-left': {
    status: 409,
    title: 'Parcel was shipped',
    detail: ({ number, shipment }) => `${number} left with ${shipment}. Undo that shipment if it is still here.`,
  },
  'not-packed': {
    status: 422,
    title: 'Not in the parcel',
    detail: ({ name, packed }) =>
      packed === 0
        ? `No ${name} is in a parcel of this order.`
        : `Only ${figure(packed)} of ${name} are in a parcel of this order.`,
  },
  'not-built-for': {
    status: 409,
    title: 'Not built for this order',
    detail: ({ build, order }) =>
      `${build} builds nothing for ${order}. Finish it on its own page, or build for the order first.`,
  },
  'no-way-to-build': {
    status: 422,
    title: 'Nothing to build from',
    detail: ({ name }) => `${name} has no bill of materials in use, so it cannot be built. Define one, or buy it.`,
  },
  'built-meanwhile': {
    status: 409,
    title: 'Planned by someone else',
    detail: ({ name, building }) =>
      building === 0
        ? `A build of ${name} for this line was cancelled after you looked. Look again at what is still short.`
        : `Someone has planned builds of ${name} for this line after you looked: ${figure(building)} are being built now. Look again at what is still short.`,
  },
  'more-than-needed': {
    status: 409,
    title: 'More than the order needs',
    detail: ({ name, needed }) =>
      needed === 0
        ? `No more ${name} needs to be built for this line.`
        : `Only ${figure(needed)} more of ${name} need to be built for this line. Plan the rest for stock on Cover.`,
  },
  'built-for-orders': {
    status: 409,
    title: 'Build is for orders',
    detail: ({ orders, promised }) =>
      `${figure(promised)} are for ${list(orders)}. Plan at least that many, or take them off the orders first.`,
  },
  'order-sent-before': {
    status: 409,
    title: 'Message already sent',
    detail: ({ theirs, number }) =>
      `They sent ${theirs} before; it is ${number} here. To change it, they send an OrderChange.`,
  },
  'their-order-unknown': {
    status: 404,
    title: 'No such order yet',
    detail: ({ theirs }) => `Their order ${theirs} has not arrived yet. They send the order first.`,
  },
  'their-order-split': {
    status: 409,
    title: 'Order was split here',
    detail: ({ theirs, orders }) =>
      `Their order ${theirs} was split here into ${orders.join(' and ')}. Change those by hand.`,
  },
  'their-item-unknown': {
    status: 422,
    title: 'No such item yet',
    detail: ({ code, line }) =>
      `Line ${line} asks for ${code}, which is not one of our codes or barcodes. Give an item that code, or ask them for ours.`,
  },
  'nothing-later': {
    status: 409,
    title: 'Already the latest revision',
    detail: ({ name }) => `This line already has the latest ${name}. Reload the order.`,
  },
  'split-all': {
    status: 422,
    title: 'Nothing would be left',
    detail: () => 'Everything would go to the other order. Leave something on this one, or change its date instead.',
  },
  'order-not-confirmed': {
    status: 409,
    title: 'Order not confirmed yet',
    detail: ({ number }) => `${number} is not an open order. Confirm it first.`,
  },
  'order-line-gone': {
    status: 409,
    title: 'This line has shipped',
    detail: () => 'Some of this line has been shipped, so it stays on the order. Give up the rest instead.',
  },
} satisfies Partial<ProblemKinds>;
