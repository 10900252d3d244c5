import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holdsRows, readPaste } from '../lines/paste.ts';
import { type History, historyOf, type Step, take } from './history.ts';

describe('undo and redo', () => {
  const change = (to: number, tag: string | null = null): Step<number> => ({ do: 'change', to, tag });
  const run = (steps: readonly Step<number>[]) => steps.reduce<History<number>>(take, historyOf(0));

  it('go back and forth, one step for typing on in the same cell, and a new change ends the way forth', () => {
    const typed = [change(1, 'a'), change(2, 'a'), change(3, 'b')];
    expect(run(typed).past).toEqual([0, 2]);
    expect(run([...typed, { do: 'undo' }]).present).toBe(2);
    expect(run([...typed, { do: 'undo' }, { do: 'undo' }, { do: 'undo' }]).present).toBe(0);
    expect(run([...typed, { do: 'undo' }, { do: 'redo' }]).present).toBe(3);
    expect(run([...typed, { do: 'undo' }, change(9), { do: 'redo' }]).present).toBe(9);
    // Typing on after a step back is a step of its own.
    expect(run([change(1, 'a'), { do: 'undo' }, change(2, 'a'), { do: 'undo' }]).present).toBe(0);
    expect(run([...typed, { do: 'replace', by: 7 }, { do: 'undo' }]).present).toBe(7);
  });

  it('keep the newest when there are more than anyone goes back', () => {
    const steps = Array.from({ length: 260 }, (_, index) => change(index + 1));
    const { past, present } = run(steps);
    expect([past.length, past[0], past.at(-1), present]).toEqual([200, 60, 259, 260]);
  });

  it('lose nothing: as many redos as undos come back to where it was', () => {
    fc.assert(
      fc.property(fc.array(fc.integer(), { maxLength: 30 }), fc.nat(40), (values, count) => {
        const before = run(values.map((value) => change(value)));
        const undone = Array.from({ length: count }).reduce<History<number>>(
          (state) => take(state, { do: 'undo' }),
          before,
        );
        const back = Array.from({ length: count }).reduce<History<number>>(
          (state) => take(state, { do: 'redo' }),
          undone,
        );
        expect(back.present).toBe(before.present);
        expect(back.past).toEqual(before.past);
        expect(undone.present).toBe([0, ...values][Math.max(0, values.length - count)]);
      }),
    );
  });
});

describe('pasted rows', () => {
  it('are told from a word by their tabs and lines', () => {
    expect(['HOOK', 'two words', 'a\tb', 'a\nb', 'a\n'].map(holdsRows)).toEqual([false, false, true, true, false]);
  });

  it.each<[string, string, [string, string][]]>([
    [
      'with titles in any order',
      'Qty\tDescription\tPart no\n2\tHook\tH-1\n0.5\tOil\tO-1',
      [
        ['H-1|Hook', '2'],
        ['O-1|Oil', '0.5'],
      ],
    ],
    [
      'without titles',
      'H-1\tHook\t2\tpcs\nO-1\tOil\t450\tml',
      [
        ['H-1|Hook', '2'],
        ['O-1|Oil', '450 ml'],
      ],
    ],
    [
      'with decimal commas and units in the cell',
      'O-1\t1,5 L\nW-1\t0,25 kg',
      [
        ['O-1', '1.5 L'],
        ['W-1', '0.25 kg'],
      ],
    ],
    [
      'a column of codes alone',
      'H-1\nO-1\n4006381333931',
      [
        ['H-1', '1'],
        ['O-1', '1'],
        ['4006381333931', '1'],
      ],
    ],
    [
      'quoted cells with line breaks',
      '"Hook\nsmall"\t3\nNail\t4',
      [
        ['Hook\nsmall', '3'],
        ['Nail', '4'],
      ],
    ],
    [
      'quantities nobody can read are left to be mended',
      'H-1\t2\nO-1\tsome',
      [
        ['H-1', '2'],
        ['O-1', 'some'],
      ],
    ],
  ])('are read %s', (_, text, rows) => {
    expect(readPaste(text).map(({ texts, quantity }) => [texts.join('|'), quantity])).toEqual(rows);
  });

  it.each([
    ['titles', 'Part\tQty\tUnit price\tWaste %\nH-1\t2\t€ 1,50\t5 %', '1.5', '5'],
    ['no titles', 'H-1\tHook\t2\tpcs\t1.50', '1.50', ''],
    ['no price', 'H-1\t2', '', ''],
  ])('have a price and a waste with %s', (_, text, price, waste) => {
    const [row] = readPaste(text);
    expect([Number(row?.quantity), Number(row?.price), Number(row?.waste)]).toEqual([2, Number(price), Number(waste)]);
  });

  it('come out as many as went in, whatever they hold', () => {
    const cell = fc.stringMatching(/^[A-Za-z0-9 .,-]{0,8}$/);
    const row = fc
      .array(cell, { minLength: 1, maxLength: 4 })
      .filter((cells) => cells.some((one) => one.trim() !== ''));
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 12 }), (rows) => {
        // A first row of titles says nothing of its own.
        const table = [['§ 1', '9'], ...rows];
        expect(readPaste(table.map((cells) => cells.join('\t')).join('\n'))).toHaveLength(table.length);
      }),
    );
  });
});
