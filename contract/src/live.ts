/** What a change touches; the browser refetches the queries of these topics and no more. */
export const topics = [
  'items',
  'places',
  'definitions',
  'builds',
  'stock',
  'buying',
  'orders',
  'picks',
  'devices',
  'pictures',
] as const;
export type Topic = (typeof topics)[number];

/** Server-sent events: each message is a JSON array of topics. */
export const EVENTS_PATH = '/api/events';

/** Every POST, PUT and DELETE carries one; the same key is carried out once. */
export const IDEMPOTENCY_HEADER = 'idempotency-key';
