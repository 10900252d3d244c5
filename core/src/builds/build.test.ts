import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type PartLine, required, runCost } from '../definitions/index.ts';
import { spotOf, takeFrom } from '../ledger/index.ts';
import { type Money, type Percent, parseDecimal, type Quantity } from '../number/index.ts';
import { checkPick } from '../picking/index.ts';
import {
  checkPortion,
  finishCost,
  labourPortion,
  openToPick,
  plannedPortion,
  plannedUse,
  rejectedCost,
  type UsedLine,
} from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const money = (text: string) => parseDecimal(text) as Money;
const progress = (quantity: string, finished: string) => ({
  quantity: q(quantity),
  finished: q(finished),
  outputQuantity: q('1'),
});

describe('finish', () => {
  const used = (lineId: number, quantity: string, decimals: number, actual: string, unitCost: string): UsedLine => ({
    kind: 'part',
    lineId,
    itemId: lineId,
    basis: 'per-output',
    quantity: q(quantity),
    waste: 0 as Percent,
    decimals,
    actual: q(actual),
    unitCost: money(unitCost),
  });

  it('12 planned, 5.100 kg instead of 4.800 at 3.00, 12 each at 1.20: unit cost 2.475 instead of 2.40', () => {
    const cost = finishCost(
      [used(1, '0.4', 3, '5.1', '3'), used(2, '1', 0, '12', '1.2')],
      progress('12', '0'),
      q('12'),
    );
    expect(cost).toMatchObject({
      planned: money('28.8'),
      actual: money('29.7'),
      plannedUnitCost: money('2.4'),
      unitCost: money('2.475'),
    });
    expect(cost.lines[0]).toMatchObject({ difference: q('0.3'), costDifference: money('0.9'), cost: money('15.3') });
  });

  it('costs nothing where none of the very units is used', () => {
    const none = { ...used(1, '1', 0, '0', '5'), worth: money('0') };
    const [line] = finishCost([none], progress('2', '0'), q('2')).lines;
    expect(line).toMatchObject({ planned: q('2'), plannedCost: money('10'), cost: 0 });
  });

  it('costs labour by the minutes spent and charges once a batch', () => {
    const lines: UsedLine[] = [
      { kind: 'labour', lineId: 1, basis: 'per-output', minutes: q('20'), ratePerHour: money('24'), actual: q('90') },
      { kind: 'charge', lineId: 2, basis: 'per-run', amount: money('5') },
    ];
    expect(finishCost(lines, progress('4', '0'), q('4')).lines.map((line) => [line.plannedCost, line.cost])).toEqual([
      [money('32'), money('36')],
      [money('5'), money('5')],
    ]);
    expect(finishCost(lines, progress('4', '3'), q('1')).lines[1]?.cost).toBe(0);
  });

  it('is planned to cost what Cover says before: 10 of one part at 2.00, three at 2.00 and 25 once a batch make 51', () => {
    const each = { kind: 'part', itemId: 1, basis: 'per-output', quantity: q('1'), waste: 0 as Percent } as const;
    const line: PartLine = { ...each, taken: 'picked-first', decimals: 0 };
    const lines = [
      line,
      { ...line, itemId: 2, basis: 'per-run' as const, quantity: q('3') },
      { kind: 'charge' as const, basis: 'per-run' as const, amount: money('25') },
      { kind: 'labour' as const, basis: 'per-run' as const, minutes: q('30'), ratePerHour: money('0') },
    ];
    const cost = runCost({ outputQuantity: q('1'), lines }, q('10'), () => money('2'));
    expect(cost).toMatchObject({ parts: money('26'), charges: money('25'), total: money('51'), minutes: q('30') });
  });

  it('is planned to cost what Cover says before, whatever it is made of', () => {
    const basis = fc.constantFrom('per-output' as const, 'per-run' as const);
    const anyLine = fc.oneof(
      fc.record({
        kind: fc.constant('part' as const),
        itemId: fc.integer({ min: 1, max: 3 }),
        basis,
        quantity: fc.integer({ min: 1, max: 9000 }).map((n) => (n * 1000) as Quantity),
        waste: fc.constantFrom(0, 4_000_000, 7_500_000).map((n) => n as Percent),
        taken: fc.constant('picked-first' as const),
        decimals: fc.constantFrom(0, 3),
      }),
      fc.record({
        kind: fc.constant('labour' as const),
        basis,
        minutes: fc.integer({ min: 1, max: 90 }).map((n) => (n * 1e6) as Quantity),
        ratePerHour: fc.integer({ min: 0, max: 50_000_000 }).map((n) => n as Money),
      }),
      fc.record({
        kind: fc.constant('charge' as const),
        basis,
        amount: fc.integer({ min: 0, max: 50_000_000 }).map((n) => n as Money),
      }),
    );
    fc.assert(
      fc.property(
        fc.array(anyLine, { maxLength: 6 }),
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom('1', '5', '0.5'),
        (lines, n, output) => {
          const made = (n * 1e6) as Quantity;
          const revision = { outputQuantity: q(output), lines };
          const unitCost = (itemId: number) => money(`${itemId}.3333`);
          const used = lines.map((line, lineId): UsedLine => {
            const actual = 0 as Quantity;
            if (line.kind === 'part') return { ...line, lineId, actual, unitCost: unitCost(line.itemId) };
            return line.kind === 'labour' ? { ...line, lineId, actual } : { ...line, lineId };
          });
          const plan = finishCost(used, { quantity: made, finished: 0 as Quantity, outputQuantity: q(output) }, made);
          expect(runCost(revision, made, unitCost).total).toBe(plan.planned);
        },
      ),
    );
  });

  it('refuses more than planned, and nothing', () => {
    expect(() => checkPortion(progress('12', '5'), q('8'))).toThrow(
      expect.objectContaining({ code: 'more-than-planned', facts: { left: q('7') } }),
    );
    expect(() => checkPortion(progress('12', '5'), q('0'))).toThrow(expect.objectContaining({ code: 'not-positive' }));
    expect(() => checkPortion(progress('12', '5'), q('7'))).not.toThrow();
  });

  it.each([
    ['5', '2', 'carried', null],
    ['5', '3', 'carried', 'rejected'],
    ['7', '1', 'carried', 'rejected'],
    ['8', '0', 'carried', 'good'],
    ['0', '7', 'carried', 'rejectCost'],
    ['0', '7', 'written-off', null],
    ['0', '8', 'written-off', 'rejected'],
    ['1', '6', 'carried', null],
  ] as const)('of 7 open, %s good and %s rejected whose cost is %s: %s', (good, rejected, cost, field) => {
    const check = () => checkPortion(progress('12', '5'), q(good), q(rejected), cost);
    if (field) expect(check).toThrow(expect.objectContaining({ field }));
    else expect(check).not.toThrow();
  });

  it('writes off with rejected units their share of the plan, rounded down', () => {
    expect(rejectedCost(money('10'), q('0'), q('0'))).toBe(0);
    expect(rejectedCost(money('10'), q('0'), q('5'))).toBe(0);
    expect(rejectedCost(money('10'), q('1'), q('2'))).toBe(money('3.333333'));
    expect(rejectedCost(money('10'), q('2'), q('0'))).toBe(money('10'));
  });

  it('books all that was written down of a task with the last units, unless told that more follows', () => {
    const work = {
      basis: 'per-output',
      minutes: q('10'),
      spent: { total: q('100'), booked: q('40'), isOver: false },
    } as const;
    const of = (now: string, closes?: boolean) => labourPortion(work, progress('12', '5'), q(now), closes) / 1e6;
    expect([of('7'), of('7', false), of('6'), of('6', true)]).toEqual([60, 80, 70, 60]);
  });

  it('portions add up to the whole, however a build is divided', () => {
    const line = fc.record({
      basis: fc.constantFrom('per-output' as const, 'per-run' as const),
      quantity: fc.integer({ min: 1, max: 9999 }).map((n) => (n * 1000) as Quantity),
      waste: fc.integer({ min: 0, max: 20 }).map((n) => (n * 1e6) as Percent),
      decimals: fc.constantFrom(0, 2, 3),
    });
    fc.assert(
      fc.property(
        line,
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 8 }),
        fc.constantFrom('1', '5', '150'),
        (need, portions, output) => {
          const outputQuantity = q(output);
          const quantity = (portions.reduce((a, b) => a + b, 0) * 1e6) as Quantity;
          let [finished, planned, labour] = [0, 0, 0];
          for (const portion of portions) {
            const at = { quantity, finished: finished as Quantity, outputQuantity };
            planned += plannedUse(need, at, (portion * 1e6) as Quantity);
            labour += plannedPortion(need.basis, need.quantity, at, (portion * 1e6) as Quantity);
            finished += portion * 1e6;
          }
          const whole = { quantity, finished: 0 as Quantity, outputQuantity };
          expect(planned).toBe(required(need, quantity, outputQuantity));
          expect(labour).toBe(plannedPortion(need.basis, need.quantity, whole, quantity));
        },
      ),
    );
  });
});

describe('pick', () => {
  it('never brings more than is open, whatever is brought and finished in between', () => {
    const steps = fc.array(
      fc.record({ pick: fc.integer({ min: 0, max: 60 }), finish: fc.integer({ min: 0, max: 10 }) }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(steps, fc.integer({ min: 1, max: 20 }), (history, perUnit) => {
        const line = {
          basis: 'per-output' as const,
          quantity: (perUnit * 1e6) as Quantity,
          waste: 0 as Percent,
          decimals: 0,
        };
        let [onBench, finished] = [0, 0];
        for (const step of history) {
          const at = { quantity: q('30'), finished: finished as Quantity, outputQuantity: q('1') };
          const pick = Math.min(step.pick * 1e6, openToPick(line, at, onBench as Quantity));
          onBench += pick;
          const portion = Math.min(step.finish * 1e6, q('30') - finished);
          const use = plannedUse(line, at, portion as Quantity);
          if (use > onBench) continue;
          onBench -= use;
          finished += portion;
          expect(onBench + required(line, finished as Quantity, q('1'))).toBeLessThanOrEqual(
            required(line, q('30'), q('1')),
          );
        }
      }),
    );
  });

  it('refuses more than is open', () => {
    expect(() => checkPick(q('3'), q('4'), 'quantity')).toThrow(
      expect.objectContaining({ code: 'more-than-open', field: 'quantity', facts: { open: q('3') } }),
    );
  });

  it('takes from bins in order and leaves a shortage in one place', () => {
    const [first, second] = [spotOf(1, 1), spotOf(1, 2)];
    const standing = [
      { spot: first, quantity: q('2') },
      { spot: second, quantity: q('5') },
    ];
    expect(takeFrom(standing, q('4'), first)).toEqual([
      { spot: first, quantity: q('2') },
      { spot: second, quantity: q('2') },
    ]);
    expect(takeFrom(standing, q('9'), first)).toEqual([
      { spot: first, quantity: q('4') },
      { spot: second, quantity: q('5') },
    ]);
    expect(takeFrom([], q('1'), spotOf(1, 7))).toEqual([{ spot: spotOf(1, 7), quantity: q('1') }]);
  });
});
