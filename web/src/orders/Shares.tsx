import type { OrderRow } from '@yosegi/contract';
import styled from 'styled-components';
import { textures } from '../ui/textures.ts';

const WORDS = { ready: 'here', coming: 'on its way', short: 'short' } as const;
const Bar = styled.span`display: flex; forced-color-adjust: none; gap: 2px; height: 7px; margin-top: 5px;`;
const Piece = styled.i<{ $of: 'ready' | 'coming' | 'short' }>`
  display: block; border-radius: 1px;
  ${({ $of }) => ({ ready: textures.free, coming: textures.coming, short: textures.short })[$of]}
`;

/** How much of an order is here, on its way and missing, in a list. */
export function Shares({ shares }: { shares: OrderRow['shares'] }) {
  const kinds = (['ready', 'coming', 'short'] as const).filter((kind) => shares[kind] > 0.005);
  if (kinds.length === 0) return null;
  const percent = (kind: keyof OrderRow['shares']) => Math.round(shares[kind] * 100);
  return (
    <Bar role="img" aria-label={kinds.map((kind) => `${percent(kind)}% ${WORDS[kind]}`).join(', ')}>
      {kinds.map((kind) => (
        <Piece key={kind} $of={kind} style={{ flex: shares[kind] }} />
      ))}
    </Bar>
  );
}
