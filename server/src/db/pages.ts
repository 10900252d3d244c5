import { Refusal } from '@yosegi/core/refusal';
import type { SqlValue } from './database.ts';

/**
 * Turns rows read with one more than asked into a page and its cursor. The cursor is what the caller's SQL continues
 * after: the sort key of the last row shown.
 */
export function page<T>(rows: readonly T[], limit: number, cursorOf: (row: T) => string | number) {
  const shown = rows.slice(0, limit);
  const last = shown.at(-1);
  return { rows: shown, next: rows.length > limit && last !== undefined ? String(cursorOf(last)) : null };
}

/** A LIKE pattern that finds `text` anywhere, with the wildcards in it taken literally (ESCAPE '\'). */
export const containing = (text: string) => `%${text.replace(/[\\%_]/g, '\\$&')}%`;

/** Where a page of a sorted list ended: its last row's sort key, and what tells rows of the same key apart. */
export const cursorAfter = (key: SqlValue, tie: string | number) => JSON.stringify([key, tie]);

/** @throws `invalid` when it is none that {@link cursorAfter} made */
export function readCursor(cursor: string): [key: string | number, tie: string | number] {
  try {
    const parts = JSON.parse(cursor) as unknown[];
    if (parts.length === 2 && parts.every((part) => ['string', 'number'].includes(typeof part)))
      return parts as [string | number, string | number];
  } catch {
    // Told below.
  }
  throw new Refusal('invalid', { message: 'This page of the list no longer exists. Reload the list.' }, 'cursor');
}
