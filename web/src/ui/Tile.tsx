import { picturePath } from '@yosegi/contract';
import { createContext, memo, useContext } from 'react';
import styled from 'styled-components';

const WOODS = [
  '#e9d9b6',
  '#d39a35',
  '#b4622f',
  '#7a3441',
  '#5d7445',
  '#2f6f73',
  '#344a78',
  '#4a3527',
  '#c9b48a',
  '#94713f',
];

/** Cuts of a tile: two sets of pieces on the ground. */
const CUTS: readonly (readonly [string, string])[] = [
  ['M0 0H12V12H0zM12 12H24V24H12z', 'M12 0L24 12H12zM0 12L12 24H0z'],
  ['M0 0L12 6V18L0 12zM24 0L12 6V18L24 12z', 'M0 12L12 18L24 12V24H0z'],
  ['M12 0L24 12L12 24L0 12z', 'M12 6L18 12L12 18L6 12z'],
  ['M0 0L8 0L0 8zM16 0H24L0 24V16z', 'M24 8V16L16 24H8z'],
  ['M0 0H24L12 12zM0 24H24L12 12z', 'M0 0L12 12L0 24z'],
  ['M0 0H6V24H0zM12 0H18V24H12z', 'M0 8H24V14H0z'],
];

/** FNV-1a, 32 bits. */
function hash(text: string): number {
  let value = 2166136261;
  for (const letter of text) value = Math.imul(value ^ letter.charCodeAt(0), 16777619);
  return value >>> 0;
}

/** The main wood of an item's tile, for its share in a block. */
export const woodOf = (code: string) => WOODS[hash(code) % WOODS.length] as string;

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
  const value = hash(code);
  const ground = value % 10;
  const second = (value >>> 5) % 10;
  const first = second === ground ? (value + 3) % 10 : second;
  const [one, two] = CUTS[(value >>> 16) % CUTS.length] as (typeof CUTS)[number];
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" focusable="false" className="tile">
      <rect width="24" height="24" rx="0.8" fill={WOODS[ground]} />
      <path d={one} fill={WOODS[first]} />
      <path d={two} fill={WOODS[(value >>> 10) % 10]} />
    </svg>
  );
}
