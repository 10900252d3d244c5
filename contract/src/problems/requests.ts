import type { ProblemKinds } from './kind.ts';

/** What a request can be refused for before a feature is asked, and what the storage cannot do. */
export const requestsProblems = {
  unexpected: {
    status: 500,
    title: 'Something went wrong',
    detail: ({ requestId }) =>
      `Nothing was changed. Try again. If it happens again, look for ${requestId} in the server log.`,
  },
  'sign-in': { status: 401, title: 'Who is working?', detail: () => 'Choose your name first.' },
  'owner-only': { status: 403, title: 'For owners only', detail: () => 'Only an owner can do this. Ask an owner.' },
  'key-missing': {
    status: 400,
    title: 'Incomplete request received',
    detail: () =>
      'This request was incomplete, so nothing was done. Reload the page and try again. Missing header: Idempotency-Key.',
  },
  'key-reused': {
    status: 422,
    title: 'Sent before for something else',
    detail: () =>
      'Nothing was done, because this was sent before for something else. Reload the page and try again. Header in use: Idempotency-Key.',
  },
  'foreign-origin': {
    status: 403,
    title: 'Request from another site',
    detail: () => 'This was sent by a page that is not part of this application, so nothing was done.',
  },
  'bad-host': {
    status: 421,
    title: 'Wrong server address',
    detail: () => 'Open Yosegi on the computer it runs on. This server accepts no other address.',
  },
  'disk-full': {
    status: 507,
    title: 'The disk is full',
    detail: () => 'The disk is full, so nothing was saved. Free some space and try again.',
  },
  'data-read-only': {
    status: 503,
    title: 'Cannot be written',
    detail: () =>
      'The data can’t be written right now, so nothing was saved. Check the rights of the data folder and its disk.',
  },
  'data-damaged': {
    status: 503,
    title: 'The data cannot be read',
    detail: () =>
      'Your data is damaged, so nothing was saved. Restore a backup, or ask whoever runs the server to. To see what is wrong: npm run verify.',
  },
  'data-busy': {
    status: 503,
    title: 'Busy',
    detail: () => 'Another program is working on the data, so nothing was saved. Try again in a moment.',
  },
  'request-unreadable': {
    status: 400,
    title: 'This can’t be read',
    detail: () => 'This request cannot be read. Reload the page and try again.',
  },
  'request-too-slow': {
    status: 408,
    title: 'The request took too long',
    detail: () => 'This request took too long to arrive. Try again.',
  },
  'body-too-large': {
    status: 413,
    title: 'Too much at once',
    detail: () => 'This is more than can be sent at once. Send it in several parts.',
  },
  'address-too-long': {
    status: 414,
    title: 'Address too long',
    detail: () => 'This address is longer than any of ours. Go back and try again.',
  },
  'media-type': {
    status: 415,
    title: 'Not in this format',
    detail: () => 'This can’t be read in the format it was sent in. Send JSON, or a plain file.',
  },
  'too-many-requests': {
    status: 429,
    title: 'Too many requests',
    detail: () => 'Too many requests in one minute. Try again shortly.',
  },
  'headers-too-large': {
    status: 431,
    title: 'Headers too large',
    detail: () => 'The headers of this request are too large. Clear the cookies of this address and try again.',
  },
} satisfies Partial<ProblemKinds>;
