import { demoOnce } from '@yosegi/demo/once';
import { expect, it } from 'vitest';
import { fuzz } from './run.ts';

it('a minute of hostile requests finds nothing', { timeout: 240_000 }, async () => {
  const { findings, requests, done } = await fuzz({ seconds: 60, seed: 7, demo: await demoOnce() });
  expect(findings).toEqual([]);
  // It has really been at work: through most doors, not only against them.
  expect(requests).toBeGreaterThan(500);
  expect(done.size).toBeGreaterThan(50);
});
