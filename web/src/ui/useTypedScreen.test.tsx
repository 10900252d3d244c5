// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { useTyped, useTypedScreen } from './useTypedScreen.ts';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const Used = z.map(z.number(), z.string());
const open = (key = 'finish.7', begin = 'begun') =>
  renderHook(
    (now: string) => {
      const screen = useTypedScreen(now);
      const [note, setNote] = useTyped(screen, 'note', begin);
      const [isClosing, setClosing] = useTyped(screen, 'closing', false);
      const [used, setUsed] = useTyped<ReadonlyMap<number, string>>(screen, 'used', () => new Map([[1, '2']]), Used);
      const [chosen, setChosen] = useTyped<ReadonlySet<number>>(screen, 'chosen', new Set(), z.set(z.number()));
      return { screen, note, setNote, isClosing, setClosing, used, setUsed, chosen, setChosen };
    },
    { initialProps: key },
  );
/** What the screen says when it is opened anew, as after a reload. */
const again = (key?: string, begin?: string) => {
  cleanup();
  return open(key, begin).result.current;
};

describe('what is typed on a screen', () => {
  it('is there again as what it was: a text, a tick, a map, a set', () => {
    const { result } = open();
    act(() => {
      result.current.setNote('glued');
      result.current.setClosing(true);
      result.current.setUsed((before) => new Map(before).set(4, '0.5'));
      result.current.setChosen(new Set([9]));
    });
    const used = new Map([
      [1, '2'],
      [4, '0.5'],
    ]);
    expect(result.current).toMatchObject({ note: 'glued', isClosing: true, used, chosen: new Set([9]) });
    expect(again()).toMatchObject({ note: 'glued', isClosing: true, used, chosen: new Set([9]) });
  });

  it('is of that screen alone, and of the name it was typed under', () => {
    const { result } = open();
    act(() => result.current.setNote('glued'));
    expect(again('finish.8')).toMatchObject({ note: 'begun', isClosing: false });
    expect(again('finish.7')).toMatchObject({ note: 'glued', isClosing: false });
  });

  it('begins as it is told only where nothing was typed', () => {
    expect(again('finish.7', 'from the plan').note).toBe('from the plan');
    const { result } = open();
    act(() => result.current.setNote(''));
    expect(again('finish.7', 'from the plan').note).toBe('');
  });

  it('is gone once it is posted, all of it, and what is typed after that is kept again', () => {
    const { result } = open();
    act(() => {
      result.current.setNote('glued');
      result.current.setClosing(true);
      result.current.setChosen(new Set([9]));
    });
    act(() => result.current.screen.forget());
    expect(again()).toMatchObject({ note: 'begun', isClosing: false, chosen: new Set() });
    const next = open('finish.9').result;
    act(() => next.current.setNote('once more'));
    expect(again('finish.9').note).toBe('once more');
  });

  it('is left where it is by a screen of something else that is posted', () => {
    const { result } = open('finish.7');
    act(() => result.current.setNote('glued'));
    cleanup();
    const other = open('finish.70').result;
    act(() => other.current.screen.forget());
    expect(again('finish.7').note).toBe('glued');
  });

  it('is written under the new name when the screen turns to another record', () => {
    const { result, rerender } = open('finish.7');
    act(() => result.current.setNote('of seven'));
    rerender('finish.8');
    act(() => result.current.setNote('of eight'));
    expect(again('finish.7').note).toBe('of seven');
    expect(again('finish.8').note).toBe('of eight');
  });

  it('of another kind than it is now is not taken over', () => {
    const { result } = open();
    act(() => result.current.setNote('glued'));
    const key = Object.keys(localStorage).find((name) => name.includes('finish.7.note')) ?? '';
    localStorage.setItem(key, (localStorage.getItem(key) ?? '').replace('"glued"', '{"a":1}'));
    expect(again().note).toBe('begun');
  });

  it('by two quick hands is what both left', () => {
    const { result } = open();
    act(() => {
      result.current.setUsed((before) => new Map(before).set(4, '0.5'));
      result.current.setUsed((before) => new Map(before).set(5, '7'));
    });
    expect([...again().used]).toEqual([
      [1, '2'],
      [4, '0.5'],
      [5, '7'],
    ]);
  });
});
