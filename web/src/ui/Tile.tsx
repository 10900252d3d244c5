import { picturePath } from '@yosegi/contract';
import { tileOf } from '@yosegi/core/items';
import { createContext, memo, useContext } from 'react';
import styled from 'styled-components';

/** Address of the picture that stands in for an item's tile, by code. */
const PictureContext = createContext<ReadonlyMap<string, string>>(new Map());
export const PictureProvider = PictureContext.Provider;
export const picturesByCode = (rows: readonly { itemId: number; code: string; hash: string }[]) =>
  new Map(rows.map(({ itemId, code, hash }) => [code, picturePath(itemId, hash)]));

/**
 * One marquetry tile per item: the same code always draws the same tile, unless a picture stands in for it. Decorative;
 * the name stands beside it.
 */
export const Tile = memo(function Tile({ code, size = 34 }: { code: string; size?: number }) {
  const picture = useContext(PictureContext).get(code);
  if (picture) return <Picture src={picture} width={size} height={size} alt="" className="tile" />;
  return <Marquetry code={code} size={size} />;
});

const Picture = styled.img`object-fit: cover; border-radius: 2px; background: #fff; display: block; flex: none;`;

function Marquetry({ code, size }: { code: string; size: number }) {
  const { ground, pieces } = tileOf(code);
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" focusable="false" className="tile">
      <rect width="24" height="24" rx="0.8" fill={ground} />
      {pieces.map(({ d, fill }) => (
        <path key={d} d={d} fill={fill} />
      ))}
    </svg>
  );
}
