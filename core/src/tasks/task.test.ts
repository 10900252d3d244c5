import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseDecimal, type Quantity, SCALE } from '../number/index.ts';
import { checkMinutes, clockedMinutes, isOver, portionOf, spentOn, type TaskFacts, taskStates } from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;

describe('minutes', () => {
  it('of a clock are whole ones, at least one', () => {
    const from = new Date('2026-11-25T09:00:00Z');
    const after = (seconds: number) => clockedMinutes(from, new Date(from.getTime() + seconds * 1000));
    expect([0, 29, 89, 90, 3600].map(after)).toEqual(['1', '1', '1', '2', '60'].map(q));
  });

  it('are no more than a day has, nor none', () => {
    expect(() => checkMinutes(q('0'), q('0'), 'minutes')).toThrowError(/not-positive/);
    checkMinutes(q('1440'), q('0'), 'minutes');
    checkMinutes(q('40'), q('1400'), 'minutes');
    expect(() => checkMinutes(q('41'), q('1400'), 'minutes')).toThrow(
      expect.objectContaining({ code: 'minutes-of-day', facts: { left: q('40') } }),
    );
  });
});

describe('what was spent on a task', () => {
  it('is over when it is done or skipped', () => {
    expect(taskStates.filter(isOver)).toEqual(['done', 'skipped']);
  });

  it('is nothing of a skipped one, its minutes or its price, and as planned where nobody wrote any down', () => {
    const task: TaskFacts = { kind: 'labour', state: 'doing', taken: q('7'), price: null, booked: 2, added: null };
    const of = (more: Partial<TaskFacts>) => spentOn({ ...task, ...more });
    expect(of({})).toEqual({ total: q('7'), booked: 2, isOver: false });
    expect(of({ state: 'done' })).toEqual({ total: q('7'), booked: 2, isOver: true });
    expect(of({ state: 'skipped' })).toEqual({ total: 0, booked: 2, isOver: true });
    expect(of({ taken: q('0'), state: 'done' })).toBe(undefined);
    expect(of({ taken: q('0'), added: 9 })).toEqual({ total: 9, booked: 2, isOver: true, isDue: true });
    const price = q('5') as number as NonNullable<TaskFacts['price']>;
    expect(of({ price })).toEqual({ total: q('7'), booked: 2, isOver: false });
    // A price is known once and for all, whatever becomes of the task.
    expect(of({ kind: 'charge', price, state: 'open' })).toEqual({ total: price, booked: 2, isOver: true });
    expect(of({ kind: 'charge', state: 'done' })).toBe(undefined);
  });
});

describe('what a finish books of a task', () => {
  const share = (finished: string, now: string, closes = false) => ({
    finished: q(finished),
    now: q(now),
    quantity: q('10'),
    closes,
  });

  const plan = (now: string, before = '0') => ({ now: q(now), before: q(before) });

  it('is of a task that goes on what the plan has up to now, less what is booked', () => {
    const spent = (total: string, booked: string) => ({ total: q(total), booked: q(booked), isOver: false });
    // The clock ran half an hour before the first half was finished: the second is as planned again.
    expect(portionOf(plan('30'), spent('30', '0'), share('0', '5'))).toBe(q('30'));
    expect(portionOf(plan('30', '30'), spent('30', '30'), share('5', '5', true))).toBe(q('30'));
    // More was booked of the first than planned; more was written down for the second.
    expect(portionOf(plan('30', '30'), spent('30', '40'), share('5', '5', true))).toBe(q('20'));
    expect(portionOf(plan('30', '30'), spent('75', '30'), share('5', '5', true))).toBe(q('45'));
    expect(portionOf(plan('18', '30'), spent('90', '30'), share('5', '3'))).toBe(q('42'));
  });

  it('is as planned while nothing was spent, and nothing where it was skipped', () => {
    expect(portionOf(plan('30'), undefined, share('0', '5'))).toBe(q('30'));
    expect(portionOf(plan('30'), { total: q('0'), booked: q('0'), isOver: false }, share('0', '5'))).toBe(q('30'));
    expect(portionOf(plan('30'), { total: q('0'), booked: q('0'), isOver: true }, share('0', '5'))).toBe(0);
  });

  it('is its share by what is finished then, and all of it with the last', () => {
    const spent = (booked: string) => ({ total: q('90'), booked: q(booked), isOver: true });
    expect(portionOf(plan('30'), spent('0'), share('0', '4'))).toBe(q('36'));
    expect(portionOf(plan('30'), spent('36'), share('4', '2', true))).toBe(q('54'));
    // What came up with what is on the bench now goes with it, whatever is still to be built.
    expect(portionOf(plan('0'), { ...spent('0'), isDue: true }, share('0', '4'))).toBe(q('90'));
  });

  it('adds up to what was spent, in however many portions, and is never booked twice', () => {
    const minutes = fc.integer({ min: 1, max: 5000 }).map((n) => (n * 100_000) as Quantity);
    const portions = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(minutes, portions, fc.boolean(), (total, parts, early) => {
        const quantity = (parts.reduce((sum, one) => sum + one, early ? 3 : 0) * SCALE) as Quantity;
        let [booked, finished] = [0, 0];
        for (const [index, part] of parts.entries()) {
          const closes = index === parts.length - 1;
          const now = (part * SCALE) as Quantity;
          const spent = { total, booked: booked as Quantity, isOver: true };
          const portion = portionOf(plan('1'), spent, { finished: finished as Quantity, now, quantity, closes });
          expect(portion).toBeGreaterThanOrEqual(0);
          booked += portion;
          finished += now;
        }
        expect(booked).toBe(total);
      }),
    );
  });
});
