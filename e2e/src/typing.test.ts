import { expect, test } from '@playwright/test';
import { Application } from './harness.ts';
import { KEYS, typeEverywhere } from './typing.ts';

test.describe('typing', () => {
  test('is not held up where much is on the screen', async ({ browser }) => {
    const application = await Application.start(browser);
    try {
      // Counted, not timed: a machine that is busy with something else holds up some keys, a screen that draws
      // everything for each of them holds up all. How few they are on a quiet one is printed by `npm run bench`.
      for (const { where, long } of await typeEverywhere(application, await application.open()))
        expect(long, where).toBeLessThanOrEqual((KEYS.length * 3) / 4);
    } finally {
      await application.close();
    }
  });
});
