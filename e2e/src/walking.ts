import { expect, test } from '@playwright/test';
import { Keyboard, type Visit } from './harness.ts';

/** Jobs done one after the other by hands that never leave the keyboard. */
export function walking({ page }: Visit) {
  const keys = new Keyboard(page);
  const counted: Record<string, number> = {};
  return {
    keys,
    /** By job, how many keys it took beside what was typed. */
    counted,
    /** One job, and how many keys it may take beside what is typed. */
    async walk(name: string, most: number, steps: () => Promise<void>): Promise<void> {
      const before = keys.presses;
      await test.step(name, steps);
      counted[name] = keys.presses - before;
      expect.soft(counted[name], name).toBeLessThanOrEqual(most);
    },
    /** Types what is looked for, and goes on once it is there, as eyes would. */
    async pick(text: string, there: RegExp): Promise<void> {
      await keys.type(text);
      await keys.press('Enter');
      await page
        .getByLabel(there)
        .or(page.getByRole('heading', { name: there }))
        .first()
        .waitFor();
      await page.waitForFunction(() => document.activeElement?.closest('#main') !== null);
    },
    /** Waits until this has the focus, as one looks where one is. */
    at: (name: RegExp) => expect.poll(() => keys.focused()).toMatch(name),
  };
}
