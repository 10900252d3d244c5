import { woodOf } from '@yosegi/core/items';
import styled from 'styled-components';

export interface BlockPiece {
  readonly key: string;
  readonly label: string;
  /** An item's code gives its wood; without one the piece is labour or a charge. */
  readonly code: string | null;
  readonly cost: number;
}

const Frame = styled.div<{ $small: boolean }>`
  display: flex; forced-color-adjust: none; height: ${({ $small }) => ($small ? '22px' : '92px')}; border-radius: 2px; overflow: hidden; margin: ${({ $small }) => ($small ? '0' : '10px 0 4px')}; background: var(--birch);
  box-shadow: 0 1px 0 var(--hint), inset 0 0 0 1px var(--hint);
`;
const Piece = styled.i`display: block; border-right: 1px solid var(--lit); min-width: 1px;`;
const LABOUR = 'repeating-linear-gradient(-56deg, var(--walnut) 0 4px, var(--labour) 4px 8px)';

/** What a thing is made of: staves side by side, width = share of cost. */
export function Block({ pieces, small = false }: { pieces: readonly BlockPiece[]; small?: boolean }) {
  const total = pieces.reduce((sum, piece) => sum + piece.cost, 0);
  const percent = (cost: number) => (total > 0 ? (100 * cost) / total : 0);
  const label = pieces.map((piece) => `${piece.label} ${percent(piece.cost).toFixed(0)}%`).join(', ');
  return (
    <Frame $small={small} role="img" aria-label={label || 'Nothing here yet'}>
      {pieces.map((piece) => (
        <Piece
          key={piece.key}
          title={`${piece.label} · ${percent(piece.cost).toFixed(1)}%`}
          style={{ width: `${percent(piece.cost)}%`, background: piece.code ? woodOf(piece.code) : LABOUR }}
        />
      ))}
    </Frame>
  );
}
