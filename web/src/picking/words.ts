import type { RunDetail } from '@yosegi/contract';
import { count, type Format } from '../ui/format.ts';

/** How long a walk took, as far as anybody knows: ", in 12 minutes, 40 lines an hour". */
export function walkedWords({ minutes, linesPerHour }: RunDetail['walked']): string {
  if (linesPerHour === null) return '';
  return ` in ${count(minutes, 'minute')}, ${count(linesPerHour, 'line')} an hour`;
}

/** "5 in Barn" where another store has it, else that it is short. */
export const whereItIs = ({ item, quantity, elsewhere }: RunDetail['missing'][number], format: Format): string =>
  elsewhere.length === 0
    ? `${format.quantity(quantity, item.unit, item.decimals)} out of stock`
    : elsewhere.map((one) => `${format.quantity(one.quantity, item.unit, item.decimals)} in ${one.store}`).join(', ');
