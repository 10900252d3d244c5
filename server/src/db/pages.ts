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
