// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { useAtOnce } from './useAtOnce.ts';

beforeEach(() => localStorage.clear());

it('shows what is held until somebody types, and keeps that until it is saved', () => {
  const field = () => renderHook(({ held }) => useAtOnce('owed.1', held), { initialProps: { held: '80' } });
  const { result, rerender, unmount } = field();
  rerender({ held: '70' });
  expect([result.current.text, result.current.typed]).toEqual(['70', null]);
  act(() => result.current.type('5'));
  unmount();
  const again = field();
  expect(again.result.current.text).toBe('5');
  act(() => again.result.current.type('50'));
  // An answer to what was sent before takes nothing of what was typed since.
  act(() => again.result.current.saved('5'));
  expect(again.result.current.text).toBe('50');
  act(() => again.result.current.saved('50'));
  expect(again.result.current.text).toBe('80');
  again.unmount();
  expect(field().result.current.typed).toBeNull();
});
