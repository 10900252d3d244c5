import type { RunDetail } from '@yosegi/contract';
import { count } from '../ui/format.ts';

/** How long a walk took, as far as anybody knows: ", in 12 minutes, 40 lines an hour". */
export function walkedWords({ minutes, linesPerHour }: RunDetail['walked']): string {
  if (linesPerHour === null) return '';
  return ` in ${count(minutes, 'minute')}, ${count(linesPerHour, 'line')} an hour`;
}
