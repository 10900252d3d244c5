import { expect, it } from 'vitest';
import { persistently } from './part.ts';

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
