// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { countDaysIn, dayOf, today, useToday } from './today.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

it('counts days where the company is, wherever the browser is', () => {
  const moment = '2026-12-01T23:30:00Z';
  countDaysIn('Pacific/Auckland');
  expect(dayOf(moment)).toBe('2026-12-02');
  countDaysIn('America/Los_Angeles');
  expect(dayOf(moment)).toBe('2026-12-01');
});

it('goes on to the next day while a page stays open over midnight', () => {
  countDaysIn('Europe/London');
  vi.setSystemTime('2026-12-01T23:59:50Z');
  const { result } = renderHook(useToday);
  expect(result.current).toBe('2026-12-01');
  act(() => vi.advanceTimersByTime(30_000));
  expect(result.current).toBe('2026-12-02');
  expect(today()).toBe('2026-12-02');
});
