import { type Money, parseDecimal, type Quantity } from '@yosegi/core/number';
import { type OrderDocument, readDespatchAdvice, readOrderResponse, writeOrder } from '@yosegi/core/ubl';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Answering, answerOrder } from './mailbox.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const party = { name: 'X', address: [], email: null };
const line = (id: string, quantity: string, wantedOn: string | null = null) => ({
  id,
  quantity: q(quantity),
  unit: 'each',
  price: 1e6 as Money,
  wantedOn,
  name: `Part ${id}`,
  code: `P${id}`,
  supplierCode: '',
  gtin: null,
});
const order: OrderDocument = {
  number: 'PO-1',
  issuedOn: '2026-11-24',
  currency: 'EUR',
  note: '',
  wantedOn: '2026-12-01',
  buyer: party,
  seller: party,
  buyerCode: '',
  deliverTo: [],
  sellerCode: 'S',
  lines: [line('1', '5'), line('2', '3', '2026-12-24')],
};
const asked = (more: Partial<Answering>): Answering => ({
  answer: 'confirm',
  days: 7,
  today: '2026-11-25',
  number: 4,
  sent: [],
  keptBy: new Map(),
  closed: new Set(),
  ...more,
});

describe('the stand-in for a supplier', () => {
  it('promises the days that were asked for, or later ones, never one that has passed', () => {
    const days = (more: Partial<Answering>) =>
      readOrderResponse(answerOrder(writeOrder(order), asked(more)) ?? '').lines.map((one) => one.promisedOn);
    expect(days({})).toEqual(['2026-12-01', '2026-12-24']);
    expect(days({ answer: 'delay' })).toEqual(['2026-12-08', '2026-12-31']);
    expect(days({ answer: 'delay', today: '2026-12-20' })).toEqual(['2026-12-27', '2026-12-31']);
  });

  it('prints lots and serials on what is kept by them, and sends nothing that is not wanted any more', () => {
    const keptBy = new Map([
      ['1', 'serial'],
      ['2', 'lot'],
    ] as const);
    const xml = answerOrder(writeOrder(order), asked({ answer: 'deliver', keptBy }));
    expect(readDespatchAdvice(xml ?? '').lines).toMatchObject([
      { quantity: q('5'), serials: ['S-D4-1-1', 'S-D4-1-2', 'S-D4-1-3', 'S-D4-1-4', 'S-D4-1-5'], lot: null },
      { quantity: q('3'), serials: [], lot: 'S-D4-2', bestBefore: '2028-05-18' },
    ]);
    const rest = answerOrder(writeOrder(order), asked({ answer: 'deliver', closed: new Set(['1']) }));
    expect(readDespatchAdvice(rest ?? '').lines.map((one) => one.orderLine)).toEqual(['2']);
  });

  it('sends off exactly what was ordered, however many halves it takes', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5e9 }), fc.array(fc.boolean(), { maxLength: 40 }), (quantity, halves) => {
        const own = writeOrder({ ...order, lines: [{ ...line('1', '1'), quantity: quantity as Quantity }] });
        const sent: Answering['sent'][number][] = [];
        for (const half of [...halves, false]) {
          const xml = answerOrder(own, asked({ answer: half ? 'deliver-part' : 'deliver', sent, number: sent.length }));
          if (xml !== null) sent.push(readDespatchAdvice(xml));
        }
        expect(sent.flatMap((one) => one.lines).reduce((sum, one) => sum + one.quantity, 0)).toBe(quantity);
        expect(answerOrder(own, asked({ answer: 'deliver', sent }))).toBeNull();
      }),
      { numRuns: 60 },
    );
  });
});
