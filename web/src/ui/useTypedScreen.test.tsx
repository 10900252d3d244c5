// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { z } from 'zod';
import { useTyped, useTypedScreen } from './useTypedScreen.ts';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const open = (key = 'finish.7') =>
  renderHook(() => {
    const screen = useTypedScreen(key);
    const [note, setNote] = useTyped(screen, 'note', 'begun');
    const [used, setUsed] = useTyped<ReadonlyMap<number, string>>(
      screen,
      'used',
      () => new Map([[1, '2']]),
      z.map(z.number(), z.string()),
    );
    const [chosen, setChosen] = useTyped<ReadonlySet<number>>(screen, 'chosen', new Set(), z.set(z.number()));
    return { screen, note, setNote, used, setUsed, chosen, setChosen };
  }).result;

it('what is typed on a screen is there again, as what it was, until it is posted', () => {
  const first = open();
  act(() => {
    first.current.setNote('glued');
    first.current.setUsed((before) => new Map(before).set(4, '0.5'));
    first.current.setChosen(new Set([9]));
  });
  cleanup();
  const again = open();
  expect(again.current).toMatchObject({
    note: 'glued',
    used: new Map([
      [1, '2'],
      [4, '0.5'],
    ]),
    chosen: new Set([9]),
  });
  expect(open('finish.8').current.note).toBe('begun');
  act(() => again.current.screen.forget());
  cleanup();
  expect(open().current).toMatchObject({ note: 'begun', used: new Map([[1, '2']]), chosen: new Set() });
});
