/** What the kitchen and garden range is bought as: code, name, unit, bin, usual cost, how much comes at a time. */
export const bought = [
  ['JAR-500', 'Honey jar, 500 g', 'each', 'D1', 0.55, 240],
  ['LABEL-H', 'Honey label', 'each', 'D1', 0.06, 600],
  ['HONEY-WIL', 'Wildflower honey, bulk', 'kg', 'K2', 7.4, 90],
  ['CLOTH-C', 'Cotton cloth, washed', 'm', 'D2', 4.2, 90],
  ['WAX-PEL', 'Wax pellets', 'kg', 'K3', 12.5, 6],
  ['WEBB-25', 'Webbing, 25 mm', 'm', 'A3', 0.62, 220],
  ['WOOD-E', 'Milled strip, larch', 'each', 'T3', 0.9, 260],
  ['SEED-M', 'Meadow seed', 'kg', 'A1', 18, 8],
] as const;

export type Kit = {
  readonly onOrder: 'locked' | 'quantities' | 'swaps';
  readonly shown: boolean;
  readonly discount?: string;
};
/** What it is made into: code, name, bin, price, parts, minutes, how many at a time; and what is packed per order. */
export const products: readonly (readonly [
  code: string,
  name: string,
  bin: string,
  price: string,
  parts: readonly (readonly [string, string])[],
  minutes: string,
  batch: number,
  kit?: Kit,
])[] = [
  [
    'HONEY-500',
    'Wildflower honey, 500 g',
    'D1',
    '8.9',
    [
      ['JAR-500', '1'],
      ['LABEL-H', '1'],
      ['HONEY-WIL', '0.5'],
    ],
    '3',
    30,
  ],
  [
    'HONEY-CR',
    'Creamed honey, 500 g',
    'D1',
    '9.5',
    [
      ['JAR-500', '1'],
      ['LABEL-H', '1'],
      ['HONEY-WIL', '0.5'],
    ],
    '5',
    18,
  ],
  [
    'WRAP-3',
    'Beeswax wraps, three',
    'D2',
    '14.5',
    [
      ['CLOTH-C', '0.5'],
      ['WAX-PEL', '0.06'],
    ],
    '9',
    12,
  ],
  [
    'WRAP-6',
    'Beeswax wraps, six',
    'D2',
    '26',
    [
      ['CLOTH-C', '1'],
      ['WAX-PEL', '0.12'],
    ],
    '16',
    6,
  ],
  [
    'COVER-W',
    'Winter cover',
    'C3',
    '32',
    [
      ['CLOTH-C', '1.6'],
      ['WEBB-25', '1.2'],
    ],
    '18',
    6,
  ],
  ['STRAP-H', 'Hive strap', 'C3', '9.9', [['WEBB-25', '2.4']], '5', 20],
  ['ENTR-B', 'Entrance block, larch', 'C2', '4.5', [['WOOD-E', '1']], '4', 24],
  ['STAKE-F', 'Feeding stake', 'C2', '7.2', [['WOOD-E', '2']], '6', 12],
  [
    'MEADOW-B',
    'Meadow box',
    'C2',
    '16',
    [
      ['SEED-M', '0.03'],
      ['WOOD-E', '2'],
    ],
    '10',
    10,
  ],
  [
    'SEED-BAG',
    'Seed bag',
    'A1',
    '6.9',
    [
      ['SEED-M', '0.05'],
      ['CLOTH-C', '0.1'],
    ],
    '4',
    16,
  ],
  [
    'HONEY-Q',
    'Quarterly honey box',
    'D1',
    '25',
    [
      ['HONEY-500', '2'],
      ['HONEY-CR', '1'],
    ],
    '',
    0,
    { onOrder: 'locked', shown: true },
  ],
  [
    'GIFT-GARD',
    'Gardener’s gift',
    'D1',
    '29',
    [
      ['SEED-BAG', '1'],
      ['WRAP-3', '1'],
      ['HONEY-500', '1'],
    ],
    '',
    0,
    { onOrder: 'swaps', shown: false },
  ],
  [
    'WINTER-S',
    'Winter set for a hive',
    'C3',
    '48',
    [
      ['COVER-W', '1'],
      ['STRAP-H', '2'],
      ['ENTR-B', '1'],
    ],
    '',
    0,
    { onOrder: 'quantities', shown: true, discount: '10' },
  ],
];

/** A line of an order: what, how many. */
export type Asked = readonly [code: string, quantity: number];
/** What is asked for in turn, over and over: mostly a thing or two, now and then a kit. */
export const asked: readonly (readonly Asked[])[] = [
  [
    ['HONEY-500', 12],
    ['HONEY-CR', 6],
  ],
  [['WRAP-3', 4]],
  [
    ['STRAP-H', 8],
    ['ENTR-B', 6],
  ],
  [['GIFT-GARD', 3]],
  [
    ['SEED-BAG', 6],
    ['MEADOW-B', 3],
  ],
  [['WINTER-S', 2]],
  [['HONEY-Q', 4]],
  [
    ['STAKE-F', 5],
    ['ENTR-B', 8],
  ],
  [['COVER-W', 2]],
  [
    ['WRAP-6', 2],
    ['HONEY-500', 6],
  ],
];
export const ways = ['Own van', 'Parcel post', 'Collected'] as const;
