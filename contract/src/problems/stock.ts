import { formatDecimal } from '@yosegi/core/number';
import { list, type ProblemKinds } from './kind.ts';

/** Refusals about stock, builds, taking apart and counts. */
export const stockProblems = {
  'stock-short': {
    status: 409,
    title: 'Not enough there',
    detail: () =>
      'There is less in the bin than this would take. Take less, take it from elsewhere, or receive it first.',
  },
  'nothing-on-hand': {
    status: 409,
    title: 'Nothing on hand',
    detail: ({ name }) => `${name ?? 'This'} is not in stock, so there is nothing to revalue.`,
  },
  'cost-unknown': {
    status: 422,
    title: 'Cost unknown',
    detail: ({ name }) => `Nobody has said what ${name ?? 'it'} costs yet. Type what one is worth.`,
  },
  'same-bin': {
    status: 422,
    title: 'Nothing to move',
    detail: () => 'It would go where it comes from. Choose another bin.',
  },
  'cover-changed': {
    status: 409,
    title: 'Stock changed meanwhile',
    detail: ({ name, was, now, part, taken }) =>
      `${formatDecimal(now)} × ${name} can be made now, not ${formatDecimal(was)} as you saw${
        part ? `: ${part} is what is missing` : ''
      }.${taken ? ` ${taken}.` : ''} The figures are up to date now; change the quantity, or plan it as it is.`,
  },
  'priority-changed': {
    status: 409,
    title: 'Somebody was quicker',
    detail: ({ number, by }) =>
      `${by ?? 'Somebody'} ${by ? 'set' : 'changed'} when ${number} gets its parts since you looked. What you see is up to date now; choose again.`,
  },
  'minutes-of-day': {
    status: 422,
    title: 'More than a day',
    detail: ({ left }) =>
      left > 0
        ? `A day has 24 hours; ${formatDecimal(left)} minutes of it are left for this person. Put the rest on another day.`
        : 'This day is full for this person: all its 24 hours are written down already. Choose another day.',
  },
  'rejects-need-good': {
    status: 422,
    title: 'Nothing carries it',
    detail: () => 'None is good, so none can carry what the rejected ones cost. Write it off instead.',
  },
  'reject-reason': { status: 422, title: 'No reason', detail: () => 'Say why some are rejected.' },
  'minutes-booked': {
    status: 409,
    title: 'Booked already',
    detail: () => 'What was finished has booked these minutes. Undo that first, or add what is missing.',
  },
  'clock-over-night': {
    status: 409,
    title: 'It ran over night',
    detail: ({ since }) => `This clock runs since ${since}. Type how many minutes it really was, or zero for none.`,
  },
  'no-clock': {
    status: 409,
    title: 'No clock runs',
    detail: () => 'Your clock does not run any more. Nothing was changed.',
  },
  'task-over': {
    status: 409,
    title: 'It is over',
    detail: () => 'This task is done or was skipped, or its build is over. Open it again to work on it.',
  },
  'tasks-open': {
    status: 409,
    title: 'Tasks are open',
    detail: ({ tasks }) =>
      `It is finished only once its tasks are done. Still open: ${list(tasks)}. Do them, or skip them with a reason.`,
  },
  'parts-short': {
    status: 409,
    title: 'Parts are short',
    detail: ({ canStart }) =>
      canStart > 0
        ? `Parts are short for the whole build, but enough for ${formatDecimal(canStart)}.`
        : 'Parts are short; not even one can be built.',
  },
  'more-than-open': {
    status: 422,
    title: 'More than is open',
    detail: ({ open }) =>
      open === 0
        ? 'Everything for this line has been picked.'
        : `Only ${formatDecimal(open)} is still open on this line.`,
  },
  'reworked-since': {
    status: 409,
    title: 'It was refreshed since',
    detail: ({ code, rework }) =>
      `${code} was refreshed by ${rework} since it was built, so other parts are in it now. Leave the build open: then it comes apart by what is in it.`,
  },
  'stop-taken': {
    status: 409,
    title: 'Somebody is there',
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
    detail: ({ number }) => `${number} was taken off this run meanwhile. Take it on again, or put the goods back.`,
  },
  'run-ended': {
    status: 409,
    title: 'This run has ended',
    detail: ({ number }) => `${number} was ended meanwhile. What is still open can be picked on a new run.`,
  },
  'nothing-booked': {
    status: 409,
    title: 'The books say so too',
    detail: ({ name, bin }) => `No ${name} is booked in ${bin} any more, so there is nothing to count there.`,
  },
  'not-an-alternate': {
    status: 422,
    title: 'It does not stand in',
    detail: ({ name, part }) =>
      `${name} is not listed as an alternate for ${part}. Add it as an extra part with a reason, or list it in the bill of materials.`,
  },
  'more-than-planned': {
    status: 422,
    title: 'More than planned',
    detail: ({ left }) => `Only ${formatDecimal(left)} of this build is left to finish. Plan another build for more.`,
  },
  'beyond-tolerance': {
    status: 422,
    title: 'Say why',
    detail: ({ name, tolerance }) =>
      `${name} was used more than ${formatDecimal(tolerance)} % off the plan. Say why, or check what was typed.`,
  },
  'rework-needs-unit': {
    status: 422,
    title: 'Nothing to rework',
    detail: ({ name }) =>
      `A rework needs its unit: bring the ${name ?? 'unit'} to the bench, or say which one is used.`,
  },
  'not-a-rework': {
    status: 422,
    title: 'Not a rework',
    detail: ({ name }) =>
      `${name ?? 'This'} is built, not reworked, so nothing can come out of it. Take one apart instead.`,
  },
  'repair-whole': {
    status: 422,
    title: 'One unit',
    detail: () =>
      'A repair is finished as a whole, and nothing of it is rejected. If it cannot be mended, let it go back as it came.',
  },
  'is-a-repair': {
    status: 409,
    title: 'This is a repair',
    detail: () =>
      'This is the work on a customer’s goods. Change it, or let it go back as it came, on the repair’s own page.',
  },
  'warranty-is-free': {
    status: 422,
    title: 'Under warranty',
    detail: () =>
      'A repair under warranty brings nothing. Charge nothing, or say on the repair that it is not under warranty.',
  },
  'more-than-bench': {
    status: 422,
    title: 'Not so much there',
    detail: ({ left }) =>
      left > 0
        ? `Only ${formatDecimal(left)} of it can be taken back; the rest is used or was never brought.`
        : 'None of it is left on the bench: it is used, or was never brought.',
  },
  'part-of-itself': {
    status: 422,
    title: 'This is what is made here',
    detail: ({ name }) =>
      `${name ?? 'This'} is what comes off this bench; it cannot be a part of itself. Plan a rework for it.`,
  },
  'more-than-expected': {
    status: 422,
    title: 'More than went in',
    detail: ({ expected }) => `At most ${formatDecimal(expected)} of this can come back.`,
  },
  'not-made-by': {
    status: 422,
    title: 'Another build',
    detail: ({ name }) => `That build did not make this ${name}. Choose one from the list, or none.`,
  },
  'made-otherwise': {
    status: 409,
    title: 'Made from another revision',
    detail: ({ build, revision }) =>
      `This was made with ${build} from revision ${revision}. Its parts come back by that one; look at them again.`,
  },
  'apart-promised': {
    status: 409,
    title: 'Promised to others',
    detail: ({ name, free, to }) =>
      `Free of ${name}: ${formatDecimal(free)}. The rest is promised to ${list(to)}. Take fewer apart, or take promised ones too.`,
  },
  'made-differently': {
    status: 409,
    title: 'Not made alike',
    detail: ({ builds }) =>
      `These were made from different revisions (${list(builds)}). Take those of each build apart on their own.`,
  },
  'nothing-to-count': {
    status: 422,
    title: 'Nothing to count',
    detail: () => 'Nothing that fits stands in these bins. Choose others, or leave the text and the day empty.',
  },
  'counted-since': {
    status: 409,
    title: 'Put right already',
    detail: ({ name, bin, number }) =>
      `${number} has put ${name} in ${bin} right since it was counted here. Count it once more, or give this count up.`,
  },
  'nothing-counted': {
    status: 409,
    title: 'Nothing counted yet',
    detail: () => 'Nobody has counted a line of this yet. Count some first, or give it up.',
  },
  'settled-already': {
    status: 409,
    title: 'Settled already',
    detail: () => 'This has been put right meanwhile. Nothing was posted again.',
  },
  'not-below-zero': {
    status: 409,
    title: 'Not below zero',
    detail: () => 'Nothing of this is below zero now, so no posting can settle it. Say that it was seen to instead.',
  },
} satisfies Partial<ProblemKinds>;
