import type { Socket } from 'node:net';
import type { Problem } from '@yosegi/contract';
import { type BareCode, Refusal } from '@yosegi/core/refusal';
import { problemOf } from './problems.ts';

/** What the server itself refuses before any of our code is asked, by status. */
const BY_STATUS: Readonly<Record<number, BareCode>> = {
  400: 'request-unreadable',
  404: 'not-found',
  405: 'not-found',
  408: 'request-too-slow',
  413: 'body-too-large',
  414: 'address-too-long',
  415: 'media-type',
  429: 'too-many-requests',
  431: 'headers-too-large',
};

/** The refusal for a status of the framework; undefined for one that is a fault of ours. */
export function frameworkRefusal(status: number): Refusal | undefined {
  const known = BY_STATUS[status] ?? (status >= 400 && status < 500 ? BY_STATUS[400] : undefined);
  return known && new Refusal(known);
}

/** What every answer carries that no hook has touched. */
export const BARE_HEADERS = {
  'content-type': 'application/problem+json',
  'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
  'x-content-type-options': 'nosniff',
  'cache-control': 'no-store',
} as const;

/** Answers on the bare connection what Node could not read as a request at all. */
export function answerUnreadable(error: Error & { code?: string }, socket: Socket): void {
  if (!socket.writable) return void socket.destroy();
  const status = error.code === 'HPE_HEADER_OVERFLOW' ? 431 : error.code === 'ERR_HTTP_REQUEST_TIMEOUT' ? 408 : 400;
  const problem = problemOf(frameworkRefusal(status), 'unread') as Problem;
  const body = JSON.stringify(problem);
  const headers = Object.entries({ ...BARE_HEADERS, connection: 'close', 'content-length': Buffer.byteLength(body) });
  socket.end(
    `HTTP/1.1 ${status} ${problem.title}\r\n${headers.map(([name, value]) => `${name}: ${value}\r\n`).join('')}\r\n${body}`,
  );
}
