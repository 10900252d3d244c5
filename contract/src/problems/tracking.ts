import { dayFigure } from './figures.ts';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals about lots and serials. */
export const trackingProblems = {
  'serial-pattern': {
    status: 422,
    title: 'Not a valid pattern',
    detail: () => 'A serial pattern has # signs in one place, where the number goes, like SC-####.',
  },
  'serial-range': {
    status: 422,
    title: 'Not a valid range',
    detail: ({ typed }) =>
      `“${typed}” is not a range of serial numbers. Write the first and the last, like SC-0101..0140.`,
  },
  'serial-twice': {
    status: 422,
    title: 'Serial number twice',
    detail: ({ code }) => `${code} is listed twice. Remove one.`,
  },
  'too-many-serials': {
    status: 422,
    title: 'Too many serials',
    detail: ({ most }) => `${most} serial numbers can be posted at once. Post the rest after them.`,
  },
  'not-tracked': {
    status: 422,
    title: 'Not tracked this way',
    detail: ({ name }) =>
      `${name} isn’t tracked by lot or serial number. Leave this empty, or change its tracking while none is in stock.`,
  },
  'lot-needed': {
    status: 422,
    title: 'Which lot is it?',
    detail: ({ name }) => `${name} is tracked by lot. Enter the lot printed on it.`,
  },
  'lot-unknown': {
    status: 422,
    title: 'No such lot here',
    detail: ({ code, name }) =>
      `There is no lot ${code} of ${name} here. Choose one from the list, or receive it first.`,
  },
  'lot-day-differs': {
    status: 409,
    title: 'Different best-before date',
    detail: ({ code, day }) =>
      day
        ? `Lot ${code} already exists, best before ${dayFigure(day)}. Leave the date empty, or enter another lot.`
        : `Lot ${code} already exists, without a date. Leave the date empty, or enter another lot.`,
  },
  'lot-order': {
    status: 409,
    title: 'Another lot goes first',
    detail: ({ first, bin, bestBefore }) =>
      `Lot ${first} in ${bin} is best before ${dayFigure(bestBefore)}, so it goes first. Take that lot, or ask an owner to allow this.`,
  },
  'is-held': {
    status: 409,
    title: 'Stock is on hold',
    detail: ({ code, held }) => `${code} is held (${held}). Take another, or ask an owner to release it.`,
  },
  'serials-needed': {
    status: 422,
    title: 'Which serial numbers?',
    detail: ({ name, count, given }) =>
      `${name} is tracked by serial number: ${count} ${count === 1 ? 'is' : 'are'} needed here and ${given} given.`,
  },
  'serial-unknown': {
    status: 422,
    title: 'No such serial number',
    detail: ({ code, name, says }) =>
      says
        ? `${name} ${code} ${says}, so it can’t be taken here. Scan another one.`
        : `There is no ${name} with the serial ${code} here. Scan it again.`,
  },
  'serial-clash': {
    status: 409,
    title: 'Serial number already used',
    detail: ({ code, says, free }) =>
      `${code} ${says}.${free ? ` ${free} is free.` : ''} A serial number belongs to one piece, for good.`,
  },
  'unit-in-repair': {
    status: 409,
    title: 'Not our serial number',
    detail: ({ code, says }) => `${code} ${says}. It can only go back to its customer.`,
  },
  'unit-is-ours': {
    status: 409,
    title: 'Still in stock',
    detail: ({ code, says }) =>
      `${code} ${says}. Stock is ours, not a customer’s: check the number, or plan a rework to refresh it.`,
  },
  'serial-not-there': {
    status: 409,
    title: 'Serial number not there',
    detail: ({ lines }) =>
      `${lines
        .slice(0, 5)
        .map(({ serial, now, heldFor }) => {
          const where = now === 'not in stock' ? now : `in ${now}`;
          return `${serial} is not in this bin: it is ${where}${heldFor ? `, for ${heldFor}` : ''}.`;
        })
        .join(' ')} ${
        lines.some(({ heldFor }) => heldFor)
          ? 'Put back or undo what is on the bench first.'
          : 'Take it from there, or correct the books by a count.'
      }`,
  },
  'serial-in-stock': {
    status: 409,
    title: 'Serial number already there',
    detail: ({ lines }) =>
      `${list(lines.flatMap(({ serial }) => serial ?? []))} would be in two places. List each serial once.`,
  },
  'serial-on-bench': {
    status: 409,
    title: 'On a bench',
    detail: ({ code, build }) =>
      `The books have ${code} on the bench for ${build}. Finish or cancel that build, or count without it.`,
  },
  'bench-first': {
    status: 422,
    title: 'On the bench already',
    detail: ({ name, count }) => `${count} of ${name} are on the bench for this. Use those before any from a shelf.`,
  },
  'serial-elsewhere': {
    status: 409,
    title: 'In another unit',
    detail: ({ code, unit, build }) =>
      `${code} went into ${unit} with ${build}, which is still here. Scan the part that came out of this piece.`,
  },
  'stock-is-tracked': {
    status: 422,
    title: 'Tracked by lot or serial number',
    detail: ({ tracking }) => `Tracked by ${tracking}, which this file does not give. Receive it under Receive goods.`,
  },
} satisfies Partial<ProblemKinds>;
