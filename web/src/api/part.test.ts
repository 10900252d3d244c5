// @vitest-environment jsdom
import { renderHook } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { partOrNone, persistently, usePartMissing } from './part.ts';

it('a part that cannot be fetched is tried again, and given up in the end', async () => {
  let tries = 0;
  const load = async () => {
    tries += 1;
    if (tries < 3) throw new TypeError('Failed to fetch');
    return 'there';
  };
  expect(await persistently(load, [0, 0, 0])).toBe('there');
  expect(tries).toBe(3);
  tries = -9;
  await expect(persistently(load, [0, 0])).rejects.toThrow('Failed to fetch');
});

it('a part of a screen that is gone takes nothing else with it, and is told of', async () => {
  const { result } = renderHook(usePartMissing);
  expect(await partOrNone(async () => 'there')).toBe('there');
  expect(result.current).toBeNull();
  const load = () => Promise.reject(new TypeError('Failed to fetch'));
  expect(await partOrNone(load, [0])).toBeNull();
  await vi.waitFor(() => expect(result.current).toBe('gone'));
});
