import { figure } from './figures.ts';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals about stock, builds, taking apart and counts. */
export const stockProblems = {
  'stock-short': {
    status: 409,
    title: 'Not enough there',
    detail: () => 'The bin holds less than this needs. Take less, take it from another bin, or receive it first.',
  },
  'nothing-on-hand': {
    status: 409,
    title: 'Nothing on hand',
    detail: ({ name }) => `${name ?? 'This'} is not in stock, so there is nothing to revalue.`,
  },
  'cost-unknown': {
    status: 422,
    title: 'No cost yet for this',
    detail: ({ name }) => `${name ?? 'it'} has no cost yet. Enter its unit value.`,
  },
  'same-bin': {
    status: 422,
    title: 'Nothing to move',
    detail: () => 'From and to are the same bin. Choose another bin.',
  },
  'cover-changed': {
    status: 409,
    title: 'Stock has changed',
    detail: ({ name, was, now, part, taken }) =>
      `${figure(now)} × ${name} can be made now, not ${figure(was)} as you saw${
        part ? `: ${part} is what is missing` : ''
      }.${taken ? ` ${taken}.` : ''} The figures are up to date now; change the quantity, or plan it as it is.`,
  },
  'priority-changed': {
    status: 409,
    title: 'Someone was quicker',
    detail: ({ number, by }) =>
      `${by ?? 'Someone'} ${by ? 'set' : 'changed'} when ${number} gets its parts since you looked. What you see is up to date now; choose again.`,
  },
  'minutes-of-day': {
    status: 422,
    title: 'More than a day',
    detail: ({ left }) =>
      left > 0
        ? `A day has 24 hours; ${figure(left)} minutes are left for this person. Put the rest on another day.`
        : 'This day is full for this person: all 24 hours are recorded. Choose another day.',
  },
  'rejects-need-good': {
    status: 422,
    title: 'No good units',
    detail: () => 'There are no good units to absorb the cost of the rejects. Write it off instead.',
  },
  'reject-reason': { status: 422, title: 'Enter a reason', detail: () => 'Enter why some are rejected.' },
  'minutes-booked': {
    status: 409,
    title: 'Minutes already booked',
    detail: () => 'These minutes are booked with a finish. Undo that first, or add what is missing.',
  },
  'clock-over-night': {
    status: 409,
    title: 'Clock ran overnight',
    detail: ({ since }) => `This clock has run since ${since}. Enter the actual minutes, or zero for none.`,
  },
  'no-clock': {
    status: 409,
    title: 'No clock is running',
    detail: () => 'Your clock is not running any more. Nothing was changed.',
  },
  'task-over': {
    status: 409,
    title: 'Build is already closed',
    detail: () => 'This task is done or skipped, or its build is closed. Open it again to work on it.',
  },
  'tasks-open': {
    status: 409,
    title: 'Tasks are open',
    detail: ({ tasks }) =>
      `This build can finish only once its tasks are done. Still open: ${list(tasks)}. Do them, or skip them with a reason.`,
  },
  'parts-short': {
    status: 409,
    title: 'Short of parts',
    detail: ({ canStart }) =>
      canStart > 0
        ? `There aren’t enough parts for the full build, but enough for ${figure(canStart)}.`
        : 'Parts are short; not even one can be built.',
  },
  'more-than-open': {
    status: 422,
    title: 'More than is open',
    detail: ({ open }) =>
      open === 0 ? 'Everything for this line has been picked.' : `Only ${figure(open)} is still open on this line.`,
  },
  'reworked-since': {
    status: 409,
    title: 'Refreshed since then',
    detail: ({ code, rework }) =>
      `${code} was refreshed by ${rework} after it was built, so its parts have changed. Leave the build empty: the parts inside now come back.`,
  },
  'stop-taken': {
    status: 409,
    title: 'Someone is there',
    detail: ({ by, bin }) =>
      `${by} is picking this at ${bin} right now. Go to another stop; it comes back to you if it is left.`,
  },
  'on-another-run': {
    status: 409,
    title: 'On another run',
    detail: ({ number, run }) =>
      `${number} is picked on ${run} already, in the same store. Join that run, or end it first.`,
  },
  'not-on-run': {
    status: 409,
    title: 'Not on this run',
    detail: ({ number }) => `${number} is no longer on this run. Add it again, or put the goods back.`,
  },
  'run-ended': {
    status: 409,
    title: 'This run has ended',
    detail: ({ number }) => `${number} has ended. Pick the rest on a new run.`,
  },
  'nothing-booked': {
    status: 409,
    title: 'Stock already zero',
    detail: ({ name, bin }) => `No ${name} is recorded in ${bin} any more, so there is nothing to count there.`,
  },
  'not-an-alternate': {
    status: 422,
    title: 'Not an alternate here',
    detail: ({ name, part }) =>
      `${name} is not listed as an alternate for ${part}. Add it as an extra part with a reason, or list it in the bill of materials.`,
  },
  'more-than-planned': {
    status: 422,
    title: 'More than planned',
    detail: ({ left }) => `Only ${figure(left)} of this build is left to finish. Plan another build for more.`,
  },
  'beyond-tolerance': {
    status: 422,
    title: 'Enter a reason',
    detail: ({ name, tolerance }) =>
      `${name} is more than ${figure(tolerance)}% off the plan. Enter a reason, or check the quantity.`,
  },
  'rework-needs-unit': {
    status: 422,
    title: 'Nothing to rework',
    detail: ({ name }) =>
      `A rework needs the piece itself: bring the ${name ?? 'piece'} to the bench, or choose which one is used.`,
  },
  'not-a-rework': {
    status: 422,
    title: 'Not a rework',
    detail: ({ name }) => `${name ?? 'This'} is built, not reworked, so no part can come out. Take one apart instead.`,
  },
  'repair-whole': {
    status: 422,
    title: 'One serial number only',
    detail: () =>
      'A repair is finished in one go, and nothing is rejected. If it can’t be fixed, return it unrepaired.',
  },
  'is-a-repair': {
    status: 409,
    title: 'This is a repair',
    detail: () => 'This is work on a customer’s goods. Change it, or return it unrepaired, on the repair’s own page.',
  },
  'warranty-is-free': {
    status: 422,
    title: 'Repair is under warranty',
    detail: () => 'A repair under warranty is free. Charge nothing, or take the warranty off the repair.',
  },
  'more-than-bench': {
    status: 422,
    title: 'Not that much there',
    detail: ({ left }) =>
      left > 0
        ? `Only ${figure(left)} can be put back; the rest was used or never brought here.`
        : 'None is left on the bench: it was used, or never brought there.',
  },
  'part-of-itself': {
    status: 422,
    title: 'This is the product itself',
    detail: ({ name }) =>
      `${name ?? 'This'} is what this build makes, so it can’t be its own part. Plan a rework for it.`,
  },
  'more-than-expected': {
    status: 422,
    title: 'More than went in',
    detail: ({ expected }) => `At most ${figure(expected)} of this can come back.`,
  },
  'not-made-by': {
    status: 422,
    title: 'From another build',
    detail: ({ name }) => `That build did not make this ${name}. Choose one from the list, or none.`,
  },
  'made-otherwise': {
    status: 409,
    title: 'Made from another revision',
    detail: ({ build, revision }) =>
      `This was made with ${build} from revision ${revision}. Its parts come back by that revision; look at them again.`,
  },
  'apart-promised': {
    status: 409,
    title: 'Promised to others',
    detail: ({ name, free, to }) =>
      `Free of ${name}: ${figure(free)}. The rest is promised to ${list(to)}. Take fewer apart, or include promised stock.`,
  },
  'made-differently': {
    status: 409,
    title: 'Not the same build',
    detail: ({ builds }) =>
      `These were made from different revisions (${list(builds)}). Take those of each build apart on their own.`,
  },
  'nothing-to-count': {
    status: 422,
    title: 'Nothing to count',
    detail: () => 'These bins hold nothing that matches. Choose other bins, or clear the text and the date.',
  },
  'counted-since': {
    status: 409,
    title: 'Put right already',
    detail: ({ name, bin, number }) =>
      `${number} has corrected ${name} in ${bin} since it was counted here. Count it once more, or cancel this count.`,
  },
  'nothing-counted': {
    status: 409,
    title: 'Nothing counted yet',
    detail: () => 'No line of this count has been counted yet. Count some first, or cancel the count.',
  },
  'settled-already': {
    status: 409,
    title: 'Already fixed by someone',
    detail: () => 'Someone else has already fixed this. Nothing was posted twice.',
  },
  'not-below-zero': {
    status: 409,
    title: 'Not below zero',
    detail: () => 'Nothing is below zero any more, so no posting can settle this. Take it off the list instead.',
  },
} satisfies Partial<ProblemKinds>;
