import type { KeyboardEvent } from 'react';

/** Fields of a line that are walked through, in their order. */
export const STEPS = ':is(input.num:not(.passed), .step):not(:disabled)';

/**
 * Arrow up and down go to the same number of the line above or below; the first and the last line stay.
 * @param enterToo Enter goes down as well, where a line asks for one number only
 * @param fields what is walked through, numbers when not said
 * @returns whether the key was one of these
 */
export function stepLines(event: KeyboardEvent<HTMLElement>, enterToo = false, fields = 'input.num'): boolean {
  const field = event.target as HTMLElement;
  const isEnter = enterToo && event.key === 'Enter' && !event.ctrlKey;
  const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || isEnter ? 1 : 0;
  if (by === 0 || !field.matches(fields)) return false;
  event.preventDefault();
  const row = field.closest('tr');
  const at = [...(row?.querySelectorAll(fields) ?? [])].indexOf(field);
  // A line that asks for fewer numbers, or whose number is shut, is passed over.
  const column = [...(row?.parentElement?.querySelectorAll('tr') ?? [])].flatMap((one) => {
    const own = one.querySelectorAll<HTMLInputElement>(fields)[at];
    return own === undefined || (own.disabled && own !== field) ? [] : [own];
  });
  column[column.indexOf(field as HTMLInputElement) + by]?.focus();
  return true;
}
