import type { Order, OrderLine } from '@yosegi/contract';
import { describe, expect, it } from 'vitest';
import { headOf, inputOf, keptAs, linesOf } from './typedOrder.ts';

const line = (more: Partial<OrderLine> = {}) => ({
  ...{ id: 11, itemId: 3, code: 'HIVE', name: 'The hive', unit: 'each', decimals: 0, quantity: '4', dropped: '0' },
  ...{ listPrice: '9.50', price: '9', discount: '0', priceFrom: 'own', wantedOn: null },
  ...more,
});
const order = (lines: object[], more: object = {}) =>
  ({
    ...{ id: 5, customerId: 8, reference: 'PO 7', wantedOn: '2026-12-01', delivery: 'as-ready', remark: 'gate' },
    ...{ benchNote: 'oak', deliverTo: 'Mill', jobTag: 'J1', turnOn: '2026-12-09', orderDiscount: '5', freight: '12' },
    ...more,
    lines,
  }) as unknown as Order;

describe('an order that is typed over', () => {
  it('shows what it says, and nothing where nothing is taken off', () => {
    expect(headOf(order([]), null)).toEqual({
      customerId: '8',
      reference: 'PO 7',
      wantedOn: '2026-12-01',
      delivery: 'as-ready',
      remark: 'gate',
      benchNote: 'oak',
      deliverTo: 'Mill',
      jobTag: 'J1',
      turnOn: '2026-12-09',
      orderDiscount: '5',
      freight: '12',
    });
    expect(headOf(order([], { orderDiscount: '0', freight: '0' }), null)).toMatchObject({
      orderDiscount: '',
      freight: '',
    });
  });

  it('begins empty for whoever it is begun for', () => {
    const empty = headOf(null, null);
    expect(empty).toMatchObject({ customerId: '', delivery: 'whole', orderDiscount: '', freight: '' });
    expect(Object.entries(empty).filter(([name, value]) => value !== '' && name !== 'delivery')).toEqual([]);
    expect(headOf(null, 8).customerId).toBe('8');
    expect(linesOf(null)).toEqual([]);
  });

  it('keeps agreed prices agreed, and shows typed ones as they were typed', () => {
    const own = linesOf(
      order([line(), line({ id: 12, priceFrom: 'contents' }), line({ id: 13, priceFrom: 'typed', discount: '10' })]),
    );
    expect(own.map(({ id, price, discount }) => [id, price, discount])).toEqual([
      [11, '', ''],
      [12, '', ''],
      [13, '9.50', '10'],
    ]);
    expect(own[0]).toEqual({
      key: 11,
      id: 11,
      item: { id: 3, code: 'HIVE', name: 'The hive', unit: 'each', decimals: 0, measures: [] },
      quantity: '4',
      wantedOn: '',
      price: '',
      discount: '',
      contents: null,
    });
  });

  it('leaves out what was given up whole, and shows what was given up in part', () => {
    const shown = linesOf(order([line({ dropped: '4' }), line({ id: 12, dropped: '1', wantedOn: '2026-12-03' })]));
    expect(shown.map(({ id, wantedOn }) => [id, wantedOn])).toEqual([[12, '2026-12-03']]);
  });

  it('is sent as it stands, spaces and empty fields aside', () => {
    const head = headOf(order([]), null);
    const [first] = linesOf(order([line()]));
    if (!first) throw new Error('no line');
    const typed = { ...first, quantity: ' 6 ', price: ' 8 ', discount: ' 2 ', wantedOn: '2026-12-03' };
    const contents = [{ position: 2, item: { id: 4, unit: 'each', decimals: 0, measures: [] }, amount: '7' }];
    const sent = inputOf({
      ...head,
      reference: ' PO 8 ',
      remark: ' x ',
      benchNote: ' y ',
      deliverTo: ' z ',
      jobTag: ' J ',
      orderDiscount: ' 3 ',
      freight: ' 4 ',
      lines: [typed, { ...first, contents: contents as never }],
    });
    expect(sent).toMatchObject({ customerId: 8, reference: 'PO 8', remark: 'x', benchNote: 'y', deliverTo: 'z' });
    expect(sent).toMatchObject({ jobTag: 'J', orderDiscount: '3', freight: '4', wantedOn: '2026-12-01' });
    expect(sent).toMatchObject({ turnOn: '2026-12-09', delivery: 'as-ready' });
    expect(sent.lines).toEqual([
      { id: 11, itemId: 3, quantity: '6', price: '8', discount: '2', wantedOn: '2026-12-03', contents: null },
      {
        ...{ id: 11, itemId: 3, quantity: '4', price: null, discount: '0', wantedOn: null },
        contents: [{ position: 2, itemId: 4, amount: '7' }],
      },
    ]);
    const empty = inputOf({ ...headOf(null, null), lines: [] });
    expect(empty).toMatchObject({ wantedOn: null, turnOn: null, orderDiscount: '0', freight: '0' });
    expect(empty.customerId).toBeUndefined();
  });

  it('stays on this machine under its own name, a new one under its customer’s', () => {
    expect([keptAs(5, 8), keptAs(null, 8), keptAs(null, null)]).toEqual(['sale.5', 'sale.new.8', 'sale.new.']);
  });
});
