/** The made-up catalogue of Hollowmere Bee Supply: code, name, unit, home bin, usual cost, sell price, usual order. */
export type Part = readonly [code: string, name: string, unit: string, bin: string, cost: number, order: number];

export const stores = [
  { code: 'MAIN', name: 'Main store', bins: ['A1', 'A2', 'A3', 'A4', 'B1', 'B2', 'B3', 'C1', 'C2', 'C3', 'D1', 'D2'] },
  { code: 'COLD', name: 'Cold room', bins: ['K1', 'K2', 'K3'] },
  { code: 'SHED', name: 'Timber shed', bins: ['T1', 'T2', 'T3'] },
] as const;

export const parts: readonly Part[] = [
  ['BROOD-C', 'Brood box, cedar', 'each', 'T1', 38.2, 12],
  ['SUPER-C', 'Honey super, cedar', 'each', 'T1', 24.5, 20],
  ['FLOOR-C', 'Floor frame, cedar', 'each', 'T2', 11.4, 20],
  ['ROOF-Z', 'Roof, zinc top', 'each', 'T3', 22.75, 20],
  ['MESH-3', 'Floor mesh, 3 mm', 'm', 'T2', 5, 25],
  ['OIL-T', 'Tung oil, pure', 'L', 'A1', 16, 5],
  ['NAIL-20', 'Frame nails, 20 mm', 'kg', 'A4', 6.4, 5],
  ['SCREW-40', 'Screw 4 × 40 mm', 'each', 'A4', 0.06, 1000],
  ['FRAME-K', 'Frame parts, unassembled', 'each', 'B1', 1.05, 500],
  ['FOUND', 'Foundation sheet', 'each', 'K1', 1.15, 500],
  ['WIRE-ST', 'Frame wire, stainless', 'm', 'A3', 0.09, 1500],
  ['WAX-F', 'Beeswax, filtered', 'kg', 'K3', 9.8, 25],
  ['TUB-2L', 'Feeder tub, 2 litre', 'each', 'B2', 2.1, 60],
  ['LID-FEED', 'Feeder lid', 'each', 'B2', 0.8, 60],
  ['FLOAT', 'Feeder float', 'each', 'B2', 0.65, 60],
  ['CAN-SMK', 'Smoker can, steel', 'each', 'B3', 9.9, 30],
  ['BELLOWS', 'Smoker bellows', 'each', 'B3', 6.2, 30],
  ['LINER-SMK', 'Smoker liner', 'each', 'B3', 2.4, 40],
  ['HOOK-SMK', 'Smoker hook', 'each', 'A2', 0.7, 50],
  ['JAR-125', 'Tasting jar, 125 ml', 'each', 'D1', 0.38, 400],
  ['LID-58', 'Twist lid, 58 mm', 'each', 'D1', 0.12, 400],
  ['HONEY-LIN', 'Linden honey', 'kg', 'K2', 8.2, 30],
  ['HONEY-CHE', 'Chestnut honey', 'kg', 'K2', 9.6, 30],
  ['HONEY-HEA', 'Heather honey', 'kg', 'K2', 14.5, 20],
  ['BOX-TRIO', 'Gift box for three jars', 'each', 'D1', 1.1, 150],
  ['SUIT-S', 'Bee suit, small', 'each', 'D2', 34, 8],
  ['SUIT-M', 'Bee suit, medium', 'each', 'D2', 34, 10],
  ['SUIT-L', 'Bee suit, large', 'each', 'D2', 35.5, 8],
  ['GLOVE', 'Leather gloves, pair', 'each', 'D2', 9.5, 20],
  ['TOOL-H', 'Hive tool', 'each', 'A2', 5.2, 30],
  ['BRUSH', 'Bee brush', 'each', 'A2', 2.9, 30],
  ['GUIDE', 'First season guide', 'each', 'D1', 3.1, 50],
  ['CART-60', 'Shipping carton, 60 cm', 'each', 'C3', 1.4, 60],
  ['SENS-40', 'Load sensor, 40 kg', 'each', 'A3', 10.3, 40],
  ['CASE-SC', 'Scale housing', 'each', 'B3', 12, 15],
  ['BATT-AA', 'Battery, AA', 'each', 'A3', 0.35, 100],
  ['WICK-3', 'Candle wick, 3 mm', 'm', 'A3', 0.22, 50],
  ['DRY-H', 'Drying cabinet, booked hours', 'h', 'C3', 4.5, 60],
];

/** What is kept by lot, with how many days it keeps and how its lots are named; what is kept by serial, with its pattern. */
export const lots: Readonly<Record<string, readonly [keeps: number, prefix: string]>> = {
  'WAX-F': [1100, 'WX'],
  'HONEY-LIN': [540, 'LI'],
  'HONEY-CHE': [540, 'CH'],
  'HONEY-HEA': [540, 'HE'],
};
export const serials: Readonly<Record<string, string>> = { 'SCALE-1': 'SC-####' };

export type Made = readonly [
  code: string,
  name: string,
  bin: string,
  price: number,
  output: number,
  lines: readonly MadeLine[],
];
export type MadeLine =
  | readonly [
      'part',
      code: string,
      quantity: number,
      more?: { waste?: number; finished?: true; run?: true; back?: false },
    ]
  | readonly ['labour', text: string, minutes: number, run?: true]
  | readonly ['charge', text: string, amount: number]
  | readonly ['note', text: string];

export const made: readonly Made[] = [
  [
    'FRM-W',
    'Wired frame, waxed',
    'C2',
    4.9,
    10,
    [
      ['part', 'FRAME-K', 10],
      ['part', 'FOUND', 10],
      ['part', 'WIRE-ST', 21, { waste: 4, finished: true }],
      ['part', 'NAIL-20', 0.225, { finished: true, back: false }],
      ['part', 'WAX-F', 0.4, { waste: 5, finished: true, back: false }],
      ['labour', 'Wire and wax', 20],
    ],
  ],
  [
    'HIVE-10',
    'Ten-frame hive, cedar',
    'C1',
    189,
    1,
    [
      ['part', 'BROOD-C', 1],
      ['part', 'FRM-W', 10],
      ['part', 'FLOOR-C', 1],
      ['part', 'ROOF-Z', 1],
      ['part', 'MESH-3', 0.46, { waste: 4, finished: true }],
      ['part', 'OIL-T', 0.12, { waste: 8, finished: true, back: false }],
      ['part', 'NAIL-20', 0.04, { finished: true, back: false }],
      ['part', 'SCREW-40', 16, { finished: true, back: false }],
      ['part', 'DRY-H', 2, { run: true, finished: true, back: false }],
      ['labour', 'Assemble and oil', 20],
      ['charge', 'Branding at the joinery', 1.5],
      ['note', 'Oil twice; let the first coat dry for an hour. Brand on the north face.'],
    ],
  ],
  [
    'SUPER-10',
    'Honey super with frames',
    'C1',
    89,
    1,
    [
      ['part', 'SUPER-C', 1],
      ['part', 'FRM-W', 10],
      ['part', 'SCREW-40', 8, { finished: true, back: false }],
      ['labour', 'Fit frames', 8],
    ],
  ],
  [
    'FEED-2L',
    'Feeder, 2 litre',
    'C2',
    9.8,
    1,
    [
      ['part', 'TUB-2L', 1],
      ['part', 'LID-FEED', 1],
      ['part', 'FLOAT', 1],
      ['labour', 'Drill and fit', 4],
    ],
  ],
  [
    'SMK-1',
    'Smoker, lined',
    'C2',
    39,
    1,
    [
      ['part', 'CAN-SMK', 1],
      ['part', 'BELLOWS', 1],
      ['part', 'LINER-SMK', 1],
      ['part', 'HOOK-SMK', 1],
      ['part', 'SCREW-40', 6, { finished: true, back: false }],
      ['labour', 'Assemble and test', 9],
    ],
  ],
  [
    'TASTE-3',
    'Honey tasting trio',
    'D1',
    16.5,
    1,
    [
      ['part', 'HONEY-LIN', 0.17, { waste: 2, finished: true }],
      ['part', 'HONEY-CHE', 0.17, { waste: 2, finished: true }],
      ['part', 'HONEY-HEA', 0.17, { waste: 2, finished: true }],
      ['part', 'JAR-125', 3],
      ['part', 'LID-58', 3],
      ['part', 'BOX-TRIO', 1],
      ['labour', 'Fill, label and pack', 6],
    ],
  ],
  [
    'CANDLE-2',
    'Beeswax candles, pair',
    'K3',
    7.9,
    20,
    [
      ['part', 'WAX-F', 4.2, { waste: 3 }],
      ['part', 'WICK-3', 9, { finished: true }],
      ['labour', 'Warm up and pour', 45, true],
      ['labour', 'Trim and wrap', 40],
    ],
  ],
  [
    'SCALE-1',
    'Hive scale',
    'B3',
    149,
    1,
    [
      ['part', 'SENS-40', 4],
      ['part', 'CASE-SC', 1],
      ['part', 'BATT-AA', 4],
      ['part', 'SCREW-40', 8, { finished: true, back: false }],
      ['labour', 'Assemble and calibrate', 25],
    ],
  ],
  ['KIT-S', 'First season kit, small suit', 'C3', 349, 1, kit('SUIT-S')],
  ['KIT-M', 'First season kit, medium suit', 'C3', 349, 1, kit('SUIT-M')],
  ['KIT-L', 'First season kit, large suit', 'C3', 355, 1, kit('SUIT-L')],
  [
    'SET-HARV',
    'Harvest day set',
    'C3',
    139,
    1,
    [
      ['part', 'SUPER-10', 1],
      ['part', 'BRUSH', 1],
      ['part', 'TOOL-H', 1],
      ['part', 'JAR-125', 24],
      ['part', 'LID-58', 24],
      ['part', 'CART-60', 1, { back: false }],
      ['labour', 'Pack', 7],
    ],
  ],
];

function kit(suit: string): readonly MadeLine[] {
  return [
    ['part', 'HIVE-10', 1],
    ['part', 'SMK-1', 1],
    ['part', 'FEED-2L', 1],
    ['part', suit, 1],
    ['part', 'GLOVE', 1],
    ['part', 'TOOL-H', 1],
    ['part', 'BRUSH', 1],
    ['part', 'GUIDE', 1],
    ['part', 'CART-60', 1, { back: false }],
    ['labour', 'Pack and check', 12],
  ];
}
