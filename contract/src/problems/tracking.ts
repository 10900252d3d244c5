import { list, type ProblemKinds } from './kind.ts';

/** Refusals about lots and serials. */
export const trackingProblems = {
  'serial-pattern': {
    status: 422,
    title: 'Not a pattern',
    detail: () => 'A serial pattern has one run of # signs where the number goes, like SC-####.',
  },
  'serial-range': {
    status: 422,
    title: 'Not a range',
    detail: ({ typed }) =>
      `“${typed}” is not a range of serial numbers. Write the first and the last, like SC-0101..0140.`,
  },
  'serial-twice': {
    status: 422,
    title: 'Serial number twice',
    detail: ({ code }) => `${code} is listed twice. Take one out.`,
  },
  'too-many-serials': {
    status: 422,
    title: 'Too many serials',
    detail: ({ most }) => `${most} serial numbers can be taken at once. Post the rest after them.`,
  },
  'not-tracked': {
    status: 422,
    title: 'Not tracked',
    detail: ({ name }) => `${name} is not kept that way. Leave this empty, or change its tracking while none is there.`,
  },
  'lot-needed': {
    status: 422,
    title: 'Which lot?',
    detail: ({ name }) => `${name} is kept by lot. Type the lot that is printed on it.`,
  },
  'lot-unknown': {
    status: 422,
    title: 'Unknown lot',
    detail: ({ code, name }) =>
      `There is no lot ${code} of ${name} here. Choose one from the list, or receive it first.`,
  },
  'lot-day-differs': {
    status: 409,
    title: 'Another day',
    detail: ({ code, day }) =>
      day
        ? `Lot ${code} is known already, and best before ${day}. Leave the day empty, or type another lot.`
        : `Lot ${code} is known already, and keeps without a day. Leave the day empty, or type another lot.`,
  },
  'lot-order': {
    status: 409,
    title: 'Another lot goes first',
    detail: ({ first, bin, bestBefore }) =>
      `Lot ${first} in ${bin} is best before ${bestBefore}, so it goes first. Take that one, or ask an owner to allow this.`,
  },
  'is-held': {
    status: 409,
    title: 'Held',
    detail: ({ code, held }) => `${code} is held (${held}). Take another, or ask an owner to release it.`,
  },
  'serials-needed': {
    status: 422,
    title: 'Which serials?',
    detail: ({ name, count, given }) =>
      `${name} is kept by serial number: ${count} ${count === 1 ? 'is' : 'are'} needed here and ${given} given.`,
  },
  'serial-unknown': {
    status: 422,
    title: 'Unknown serial',
    detail: ({ code, name, says }) =>
      says
        ? `${name} ${code} ${says}, so it cannot be taken here. Scan another one.`
        : `There is no ${name} with the serial ${code} here. Scan it again.`,
  },
  'serial-clash': {
    status: 409,
    title: 'Serial taken',
    detail: ({ code, says, free }) =>
      `${code} ${says}.${free ? ` ${free} is free.` : ''} A serial number belongs to one unit, for good.`,
  },
  'unit-in-repair': {
    status: 409,
    title: 'Not ours',
    detail: ({ code, says }) => `${code} ${says}. It goes back to its owner and nowhere else.`,
  },
  'unit-is-ours': {
    status: 409,
    title: 'Still in stock',
    detail: ({ code, says }) =>
      `${code} ${says}. What is in stock is ours: check the number, or plan a rework to refresh it.`,
  },
  'serial-not-there': {
    status: 409,
    title: 'Not there',
    detail: ({ lines }) =>
      `${lines
        .slice(0, 5)
        .map(({ serial, now, heldFor }) => {
          const where = now === 'not in stock' ? now : `in ${now}`;
          return `${serial} is not in this bin: it is ${where}${heldFor ? `, for ${heldFor}` : ''}.`;
        })
        .join(' ')} ${
        lines.some(({ heldFor }) => heldFor)
          ? 'What stands there for something is put back or undone there first.'
          : 'Take it from there, or correct the books by a count.'
      }`,
  },
  'serial-in-stock': {
    status: 409,
    title: 'There already',
    detail: ({ lines }) =>
      `${list(lines.flatMap(({ serial }) => serial ?? []))} would be in two places. Name each serial once.`,
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
    detail: ({ name, count }) =>
      `${count} of ${name} stand on the bench for this; those are used before any from a shelf.`,
  },
  'serial-elsewhere': {
    status: 409,
    title: 'In another unit',
    detail: ({ code, unit, build }) =>
      `${code} went into ${unit} with ${build}, which is still here. Scan the one that came out of this unit.`,
  },
  'stock-is-tracked': {
    status: 422,
    title: 'Kept by lot or serial',
    detail: ({ tracking }) => `It is kept by ${tracking}, which this file does not name. Receive it under Goods in.`,
  },
} satisfies Partial<ProblemKinds>;
