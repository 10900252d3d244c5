import type { Behaviour, Item } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import { Format } from '../ui/format.ts';
import { partsPrice, sentencesOf } from './behaviour.ts';
import { partLine } from './draft.ts';
import { sharesExplained } from './shares.ts';

const item = (id: number, name: string, sellPrice: string | null): Item => ({
  id,
  code: `I-${id}`,
  name,
  unitId: 1,
  unit: 'each',
  decimals: 0,
  measures: [],
  source: 'both',
  tracking: 'none',
  lotOrder: 'prescribed',
  lotFields: [],
  returnDays: null,
  serialPattern: null,
  held: '0',
  returned: '0',
  returnedValue: '0',
  coming: '0',
  taxFree: false,
  barcode: null,
  archived: false,
  picture: null,
  homeBinId: null,
  homeBin: 'C3',
  sellPrice,
  reorderPoint: null,
  note: '',
  averageCost: '2',
  costFrom: 'average',
  latestCost: null,
  standardCost: null,
  onHand: '4',
  onBench: '0',
  promised: '0',
  free: '4',
  value: '8',
  definitionId: null,
  version: 0,
});
const kit = item(9, 'Gift box', '25');
const jar = item(1, 'Honey jar', '6.5');
const candle = item(2, 'Candle', '4');
const brush = item(3, 'Brush', '3');
const draft = {
  outputQuantity: '1',
  lines: [partLine(jar, '3'), { ...partLine(candle, '1'), alternates: [{ item: brush, ratio: '1' }] }],
  mending: [],
  price: '',
};
const own: Behaviour = {
  made: 'ahead',
  paperwork: 'one-line',
  onOrder: 'locked',
  swapFor: 'listed',
  price: 'own',
  discount: '0',
  benchDays: null,
  tasksFirst: false,
};
const say = (change: Partial<Behaviour>, purpose: 'build' | 'rework' | 'record' = 'build') =>
  sentencesOf(
    { item: kit, purpose },
    { ...own, ...change },
    draft,
    '7',
    new Format({ currency: 'EUR', locale: 'en-GB' }),
  );

describe('what a kit’s switches do', () => {
  it('is said for this very kit, at every place', () => {
    expect(say({})).toEqual({
      order: 'An order takes Gift box as it is. Its parts can’t be changed. Sells at €25.00, whatever is in the kit.',
      pickList: 'A build’s pick list shows 3 × Honey jar, 1 × Candle. An order picks the finished Gift box.',
      shelf: 'A build turns the parts into stock of Gift box in C3; 4 on hand now.',
      paperwork: 'The customer reads one line: “Gift box”.',
    });
    const packed = say({
      made: 'packed-per-order',
      paperwork: 'contents',
      onOrder: 'swaps',
      price: 'parts',
      discount: '10',
    });
    expect(packed).toEqual({
      order:
        'On an order line, Candle for Brush may be swapped, for that line only. Sells at the sum of its parts less 10%: €21.15 now.',
      pickList: 'An order’s pick list shows 3 × Honey jar, 1 × Candle, whatever the customer reads.',
      shelf: 'Gift box is never on a shelf. Its parts leave theirs when the order ships; 7 could be packed now.',
      paperwork: 'The customer reads “Gift box” and beneath it 3 × Honey jar, 1 × Candle.',
    });
    expect(say({ onOrder: 'quantities' }).order).toContain('the quantity of each part may change');
    expect(say({ onOrder: 'swaps', swapFor: 'anything' }).order).toContain('any part may be swapped for any item');
  });

  it('is said of a rework and of a record too', () => {
    expect(say({}, 'rework').order).toBe('A used Gift box goes in and a refreshed one comes out.');
    expect(say({}, 'record').shelf).toBe('Moves no stock.');
  });

  it('has no price from parts while one of them has none', () => {
    expect(partsPrice(draft, '0', 2)).toBe('23.5');
    expect(partsPrice({ ...draft, lines: [partLine(item(5, 'Felt', null), '1')] }, '0', 2)).toBeNull();
    expect(partsPrice(draft, 'much', 2)).toBeNull();
  });
});

describe('shares', () => {
  it('say how they came to a hundred', () => {
    const lines = [{ ...partLine(jar), share: '40' }, partLine(candle), { ...partLine(brush), comesBack: false }];
    const shares = [40e6, 60e6, null] as never;
    expect(sharesExplained(lines, shares)).toBe(
      'You set 40.00% on 1 part; the other 60.00% is shared by cost among 1 part, to exactly 100.00%.',
    );
    expect(sharesExplained([partLine(jar)], [100e6] as never)).toContain('follow cost');
    expect(sharesExplained([{ ...partLine(jar), share: '100' }], [100e6] as never)).toContain('that is all of them');
    expect(sharesExplained([{ ...partLine(jar), comesBack: false }], [null])).toBeNull();
  });
});
