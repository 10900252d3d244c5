/** The woods that tiles are cut from. */
export const WOODS = [
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
] as const;

/** Cuts of a tile of 24 by 24: two sets of pieces on the ground, as SVG paths. */
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

/** The marquetry tile of a code, always the same: its ground, and pieces as SVG paths on a field of 24 by 24. */
export function tileOf(code: string): {
  readonly ground: string;
  readonly pieces: readonly { d: string; fill: string }[];
} {
  const value = hash(code);
  const ground = value % 10;
  const second = (value >>> 5) % 10;
  const first = second === ground ? (value + 3) % 10 : second;
  const [one, two] = CUTS[(value >>> 16) % CUTS.length] as (typeof CUTS)[number];
  return {
    ground: WOODS[ground] as string,
    pieces: [
      { d: one, fill: WOODS[first] as string },
      { d: two, fill: WOODS[(value >>> 10) % 10] as string },
    ],
  };
}
