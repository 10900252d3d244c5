// @vitest-environment jsdom
import { renderHook } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { patiently, useSlow } from './slow.ts';

it('what has no answer for long is told, and can be sent once more; a refusal is one at once', async () => {
  let tries = 0;
  const { result } = renderHook(useSlow);
  const sending = (signal: AbortSignal) => {
    tries += 1;
    if (tries === 2) return Promise.resolve('done');
    return new Promise<string>((_, refuse) => signal.addEventListener('abort', () => refuse(signal.reason)));
  };
  const sent = patiently(sending, 0);
  await vi.waitFor(() => expect(result.current.length).toBe(1));
  for (const again of result.current) again();
  expect(await sent).toBe('done');
  await vi.waitFor(() => expect(result.current).toEqual([]));
  expect(tries).toBe(2);
  await expect(patiently(() => Promise.reject(new Error('refused')))).rejects.toThrow('refused');
});
