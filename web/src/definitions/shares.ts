import { formatDecimal, HUNDRED_PERCENT, type Percent, parsePercent } from '@yosegi/core/number';
import { count } from '../ui/format.ts';
import type { DraftLine } from './draft.ts';

/** How the take-apart shares came to exactly 100.00, in a sentence; null when nothing comes back or they do not yet. */
export function sharesExplained(lines: readonly DraftLine[], shares: readonly (Percent | null)[]): string | null {
  const back = lines.flatMap((line, index) => {
    const share = shares[index];
    return line.comesBack && share !== null && share !== undefined ? [{ line, share }] : [];
  });
  if (back.length === 0) return null;
  const typed = back.filter(({ line }) => line.share.trim() !== '');
  const free = back.filter(({ line }) => line.share.trim() === '');
  const percent = (share: number) => `${formatDecimal(share, 2)}%`;
  if (typed.length === 0)
    return `Take-apart shares follow cost: ${count(back.length, 'part')} that come back share 100.00%.`;
  const sum = typed.reduce((total, { line }) => total + parsePercent(line.share), 0);
  const said = `You set ${percent(sum)} on ${count(typed.length, 'part')}`;
  if (free.length === 0) return `${said}; that is all of them, and exactly 100.00%.`;
  return `${said}; the other ${percent(HUNDRED_PERCENT - sum)} is shared by cost among ${count(free.length, 'part')}, to exactly 100.00%.`;
}
