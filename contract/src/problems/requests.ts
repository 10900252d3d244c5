import type { ProblemKinds } from './kind.ts';

/** What a request can be refused for before a feature is asked, and what the storage cannot do. */
export const requestsProblems = {
  unexpected: {
    status: 500,
    title: 'Something broke',
    detail: ({ requestId }) =>
      `Nothing was changed. Try again; if it happens again, look for ${requestId} in the server's log.`,
  },
  'sign-in': { status: 401, title: 'Who is working?', detail: () => 'Choose who you are first.' },
  'owner-only': { status: 403, title: 'For the owner', detail: () => 'Only an owner may do this. Ask one to.' },
  'key-missing': { status: 400, title: 'Key missing', detail: () => 'A command needs an Idempotency-Key header.' },
  'key-reused': {
    status: 422,
    title: 'Key used before',
    detail: () => 'This Idempotency-Key belongs to another command.',
  },
  'foreign-origin': {
    status: 403,
    title: 'From elsewhere',
    detail: () => 'This was sent by a page that is not part of this application, so nothing was done.',
  },
  'bad-host': { status: 421, title: 'Wrong address', detail: () => 'This server answers on this machine only.' },
  'disk-full': {
    status: 507,
    title: 'The disk is full',
    detail: () => 'The disk is full, nothing was saved. Free some space on it and try again.',
  },
  'data-read-only': {
    status: 503,
    title: 'Cannot be written',
    detail: () =>
      'The data cannot be written now, nothing was saved. Check the rights of the data folder and its disk.',
  },
  'data-damaged': {
    status: 503,
    title: 'The data cannot be read',
    detail: () =>
      'The data file cannot be read as it should. Stop the server, run npm run verify, and restore a backup.',
  },
  'data-busy': {
    status: 503,
    title: 'Busy',
    detail: () => 'Another program is working on the data, nothing was saved. Try again in a moment.',
  },
  'request-unreadable': {
    status: 400,
    title: 'Cannot be read',
    detail: () => 'This request cannot be read. Reload the page and try again.',
  },
  'request-too-slow': {
    status: 408,
    title: 'Too slow',
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
    title: 'Not in this form',
    detail: () => 'This cannot be taken in the form in which it was sent. Send JSON, or a file as it is.',
  },
  'too-many-requests': {
    status: 429,
    title: 'Too fast',
    detail: () => 'More was asked in a minute than one person can. Wait a moment and go on.',
  },
  'headers-too-large': {
    status: 431,
    title: 'Headers too large',
    detail: () => 'The headers of this request are too large. Clear the cookies of this address and try again.',
  },
} satisfies Partial<ProblemKinds>;
