import { type Money, parseDecimal, type Quantity } from '@yosegi/core/number';
import { readOrder, readOrderCancellation, readOrderChange } from '@yosegi/core/ubl';
import { describe, expect, it } from 'vitest';
import { type ShopOrderFacts, shopCancellation, shopChange, shopOrder } from './shop.ts';

const party = (name: string) => ({ name, address: ['Mill Lane 4'], email: 'a@b.example' });
const facts: ShopOrderFacts = {
  number: 'WS-7',
  today: '2026-11-25',
  currency: 'EUR',
  wantedOn: '2026-12-12',
  note: 'For a birthday',
  buyer: party('Ada'),
  buyerCode: 'WEB-3',
  seller: party('Us'),
  lines: [
    {
      code: 'HIVE',
      name: 'Hive',
      unit: 'each',
      quantity: parseDecimal('2') as Quantity,
      price: parseDecimal('189') as Money,
    },
  ],
};

describe('the stand-in for a shop', () => {
  it('says what was ordered, by whom and for when, in the seller’s own codes', () => {
    expect(readOrder(shopOrder(facts))).toMatchObject({
      number: 'WS-7',
      wantedOn: '2026-12-12',
      buyer: { name: 'Ada', email: 'a@b.example' },
      buyerCode: 'WEB-3',
      deliverTo: ['Mill Lane 4'],
      lines: [{ id: 'HIVE', supplierCode: 'HIVE', unit: 'EA' }],
    });
  });

  it('changes and cancels it under the number it was sent with', () => {
    expect(readOrderChange(shopChange(facts, 1)).number).toBe('WS-7');
    expect(readOrderCancellation(shopCancellation(facts, 'Too late'))).toMatchObject({
      number: 'WS-7',
      why: 'Too late',
    });
  });
});
