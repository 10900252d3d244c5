import styled from 'styled-components';
import { type Texture, textures } from './textures.ts';

/** How much of each kind there is, in any one unit. */
export interface StaveAmounts {
  readonly needed: number;
  /** Below zero when more is promised than is there. */
  readonly free: number;
  readonly coming: number;
  readonly promised: number;
  readonly short: number;
}

export const Swatch = styled.i<{ $of: Texture }>`
  display: inline-block; forced-color-adjust: none; width: 16px; height: 11px; margin-right: 5px; vertical-align: -1px; ${({ $of }) => textures[$of]}
`;
const Bar = styled.div<{ $small: boolean }>`
  position: relative; forced-color-adjust: none; height: ${({ $small }) => ($small ? 10 : 20)}px; border-radius: 1px; min-width: 40px;
  background: repeating-linear-gradient(90deg, var(--rail) 0 1px, var(--rail-soft) 1px 9px);
`;
const Piece = styled.i<{
  $of: Texture;
}>`position: absolute; top: 0; bottom: 0; display: block; ${({ $of }) => textures[$of]}`;
/** What is needed stands at four fifths, so that there is room for more than enough. */
const Tick = styled.i`position: absolute; left: 80%; top: -4px; bottom: -4px; width: 2px; background: var(--ink);`;

/**
 * One component's road to enough: promised elsewhere, free, coming and short one after the other, and a tick where what
 * is needed ends. The need stands at four fifths of the width, so that plenty can be seen as such.
 */
export function Stave({ amounts, label, small = false }: { amounts: StaveAmounts; label: string; small?: boolean }) {
  const { needed, short } = amounts;
  const free = Math.max(0, amounts.free);
  // What is promised beyond what is there takes the first of what comes.
  const coming = Math.max(0, amounts.coming + Math.min(0, amounts.free));
  const scale = needed > 0 ? 80 / needed : 0;
  const pieces: [Texture, number][] = [
    ['free', free],
    ['coming', coming],
    ['short', short],
  ];
  let left = 0;
  const drawn = pieces.flatMap(([of, amount]) => {
    const width = Math.min(amount * scale, 100 - left);
    if (width <= 0) return [];
    const piece = <Piece key={of} $of={of} style={{ left: `${left}%`, width: `${width}%` }} />;
    left += width;
    return [piece];
  });
  const held = Math.min(amounts.promised * scale, 100 - left);
  return (
    <Bar $small={small} role="img" aria-label={label}>
      {drawn}
      {held > 0 && short === 0 && <Piece $of="promised" style={{ left: `${left}%`, width: `${held}%` }} />}
      {needed > 0 && <Tick />}
    </Bar>
  );
}

/** What the textures mean. */
export function StaveLegend() {
  const kinds: Texture[] = ['free', 'coming', 'promised', 'short'];
  return (
    <Legend>
      {kinds.map((kind) => (
        <span key={kind}>
          <Swatch $of={kind} />
          {kind}
        </span>
      ))}
    </Legend>
  );
}
const Legend = styled.div`display: flex; gap: 14px; font-size: 12.5px; color: var(--ink-2); white-space: nowrap;`;
