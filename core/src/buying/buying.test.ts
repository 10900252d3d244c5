import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAfter } from '../days/index.ts';
import { type Money, parseDecimal, type Quantity } from '../number/index.ts';
import {
  bestOffer,
  bestQuantity,
  expectedOn,
  leadFor,
  learnLead,
  type Offer,
  openOfLine,
  overOfLine,
  packUp,
  priceFor,
  stateOfOrder,
} from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const line = (ordered: string, received: string, closed = false) => ({
  ordered: q(ordered),
  received: q(received),
  closed,
});
const offer = (supplierId: number, price: string, pack = '1', minimum = '0', leadDays: number | null = 7): Offer => ({
  supplierId,
  price: parseDecimal(price) as Money,
  pack: q(pack),
  minimum: q(minimum),
  breaks: [],
  leadDays,
});
const quantity = fc.integer({ min: 0, max: 5e12 }).map((n) => n as Quantity);

describe('a line of an order', () => {
  it('is open for what has not come, unless the rest will not; what comes beyond it is over', () => {
    expect(openOfLine(line('10', '4'))).toBe(q('6'));
    expect(openOfLine(line('10', '4', true))).toBe(0);
    expect(openOfLine(line('10', '12'))).toBe(0);
    expect(overOfLine(line('10', '4'), q('9'))).toBe(q('3'));
    expect(overOfLine(line('10', '4'), q('6'))).toBe(0);
  });

  it('makes its order partly received, then closed', () => {
    expect(stateOfOrder('draft', [line('1', '0')])).toBe('draft');
    expect(stateOfOrder('cancelled', [line('1', '1')])).toBe('cancelled');
    expect(stateOfOrder('sent', [line('1', '0'), line('2', '0')])).toBe('sent');
    expect(stateOfOrder('confirmed', [line('1', '1'), line('2', '0')])).toBe('partly-received');
    expect(stateOfOrder('confirmed', [line('1', '1'), line('2', '0', true)])).toBe('closed');
    expect(stateOfOrder('sent', [line('1', '1'), line('2', '3')])).toBe('closed');
  });
});

describe('what to buy', () => {
  it('fills whole packs and the minimum', () => {
    expect(packUp(q('13'), { pack: q('12'), minimum: q('0') })).toBe(q('24'));
    expect(packUp(q('1'), { pack: q('12'), minimum: q('30') })).toBe(q('36'));
    expect(packUp(q('0.4'), { pack: q('2.5'), minimum: q('0') })).toBe(q('2.5'));
    expect(packUp(q('0'), { pack: q('12'), minimum: q('30') })).toBe(0);
  });

  it('is never less than needed, a multiple of the pack, and never a pack too many', () => {
    const pack = fc.integer({ min: 1, max: 1e9 }).map((n) => n as Quantity);
    fc.assert(
      fc.property(quantity, pack, quantity, (needed, pack, minimum) => {
        const bought = packUp(needed, { pack, minimum });
        if (needed === 0) {
          expect(bought).toBe(0);
          return;
        }
        expect(bought % pack).toBe(0);
        expect(bought).toBeGreaterThanOrEqual(Math.max(needed, minimum));
        expect(bought - pack).toBeLessThan(Math.max(needed, minimum));
      }),
    );
  });

  it('takes the cheapest by what is paid in all, or the fastest', () => {
    const offers = [offer(1, '1', '100'), offer(2, '1.2', '10', '0', 3), offer(3, '1.1', '10', '0', null)];
    expect(bestOffer(offers, q('25'), 'cheapest')).toMatchObject({ offer: { supplierId: 3 }, quantity: q('30') });
    expect(bestOffer(offers, q('95'), 'cheapest')).toMatchObject({ offer: { supplierId: 1 }, quantity: q('100') });
    expect(bestOffer(offers, q('25'), 'fastest')).toMatchObject({ offer: { supplierId: 2 } });
    expect(bestOffer([], q('25'), 'fastest')).toBeNull();
  });

  it('is the usual supplier’s only where that is asked for, and the cheapest where there is none', () => {
    const offers = [offer(1, '1', '100'), offer(2, '1.2', '10', '0', 3), offer(3, '1.1', '10', '0', null)];
    const of = (by: 'usual' | 'cheapest' | 'fastest', usual: number | null) =>
      bestOffer(offers, q('25'), by, usual)?.offer.supplierId;
    expect([of('usual', 1), of('usual', 3), of('usual', 9), of('usual', null)]).toEqual([1, 3, 3, 3]);
    expect([of('cheapest', 1), of('fastest', 1)]).toEqual([3, 2]);
  });

  it('costs the same at two: the sooner, then always the same one; as fast: the cheaper', () => {
    expect(bestOffer([offer(2, '1'), offer(1, '1', '1', '0', 9)], q('5'), 'cheapest')?.offer.supplierId).toBe(2);
    expect(bestOffer([offer(2, '1'), offer(1, '1')], q('5'), 'cheapest')?.offer.supplierId).toBe(1);
    expect(bestOffer([offer(1, '2'), offer(2, '1')], q('5'), 'fastest')?.offer.supplierId).toBe(2);
  });
});

describe('price breaks', () => {
  const money = (text: string) => parseDecimal(text) as Money;
  const broken = (breaks: [string, string][], pack = '1'): Offer => ({
    ...offer(1, '2', pack),
    breaks: breaks.map(([from, price]) => ({ from: q(from), price: money(price) })),
  });

  it('hold from their quantity on, whatever the order they are told in', () => {
    const one = broken([
      ['500', '1.5'],
      ['100', '1.8'],
    ]);
    expect(['99', '100', '499', '500'].map((text) => priceFor(q(text), one))).toEqual(
      ['2', '1.8', '1.8', '1.5'].map(money),
    );
  });

  it('buy more where more costs less', () => {
    const one = broken([['100', '1.5']], '8');
    expect(bestQuantity(q('70'), one)).toBe(q('72'));
    // 80 at 2.00 is 160.00, 104 at 1.50 is 156.00.
    expect(bestQuantity(q('80'), one)).toBe(q('104'));
    expect(bestQuantity(q('0'), one)).toBe(0);
    // Two breaks that cost the same in all: the fewer.
    const same = broken([
      ['200', '1'],
      ['100', '2'],
    ]);
    expect(bestQuantity(q('99'), { ...same, price: money('9') })).toBe(q('100'));
    expect(bestQuantity(q('100'), same)).toBe(q('100'));
    expect(bestOffer([offer(2, '1.9'), one], q('90'), 'cheapest')).toMatchObject({ offer: { supplierId: 1 } });
  });

  it('never cost more than any other amount that is enough', () => {
    const some = fc.integer({ min: 1, max: 40 });
    const breaks = fc.uniqueArray(fc.tuple(some, some), { maxLength: 3, selector: ([from]) => from });
    fc.assert(
      fc.property(some, some, breaks, (needed, pack, raw) => {
        const one = broken(
          raw.map(([from, price]) => [String(from), String(price)]),
          String(pack),
        );
        const cost = (units: number) => units * Number(priceFor(q(String(units)), one));
        const bought = bestQuantity(q(String(needed)), one) / 1e6;
        expect(bought).toBeGreaterThanOrEqual(needed);
        for (let units = pack; units <= 120; units += pack)
          if (units >= needed) expect(cost(bought)).toBeLessThanOrEqual(cost(units));
      }),
    );
  });
});

describe('lead times', () => {
  const came = (sentOn: string, days: number, expectedOn: string | null = null) => ({
    sentOn,
    cameOn: dayAfter(sentOn, days),
    expectedOn,
  });

  it('are learnt from deliveries that really happened', () => {
    expect(learnLead([])).toBeNull();
    const history = [5, 6, 7, 8, 30].map((days, index) =>
      came(`2026-0${index + 1}-01`, days, dayAfter(`2026-0${index + 1}-01`, 7)),
    );
    expect(learnLead(history)).toEqual({ deliveries: 5, usual: 7, slow: 30, onTime: 3, withDay: 5 });
    expect(learnLead(history, 2)).toMatchObject({ deliveries: 2, usual: 8, slow: 30 });
  });

  it.each([
    [7, 5, true, 7, 'stated'],
    [7, 7, true, 7, 'stated'],
    [7, 8, true, 8, 'learnt'],
    [7, 8, false, 7, 'stated'],
    [null, 8, false, 8, 'learnt'],
    [7, null, true, 7, 'stated'],
  ] as const)('of %s days stated and %s learnt, learning is %s: %s %s', (stated, usual, learns, days, from) => {
    const learnt = usual === null ? null : { deliveries: 3, usual, slow: 20, onTime: 1, withDay: 1 };
    expect(leadFor(stated, learnt, learns)).toEqual({ days, from });
    expect(leadFor(null, null, learns)).toBeNull();
  });

  it('end on a day on which they deliver and we work, or on which we work where there is none', () => {
    // The 23rd is a Monday.
    const calendar = { today: '2026-11-23', workDays: new Set([1, 2, 3, 4, 5]) };
    const on = (days: number, delivers: number[]) => expectedOn(days, calendar, new Set(delivers));
    expect([on(0, [1, 2, 3, 4, 5]), on(1, [4]), on(4, [4]), on(5, [6, 7]), on(4, [5, 6])]).toEqual([
      '2026-11-23',
      '2026-11-26',
      '2026-12-03',
      '2026-11-30',
      '2026-11-27',
    ]);
  });
});
