import { expect, test } from '@playwright/test';
import { Application, type Visit } from './harness.ts';

/** That the watch over the focus, which every browser test keeps, sees it lost. */
test.describe('the watch over the focus', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser, 'empty');
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('tells of a deed after which it is nowhere', async () => {
    const { page } = visit;
    await page.goto('/buying');
    await page.locator('#main h1').waitFor();
    await page.evaluate(() => {
      const button = document.createElement('button');
      button.textContent = 'Lose it';
      button.onclick = () => {
        const lose = () => {
          if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
          requestAnimationFrame(lose);
        };
        lose();
      };
      document.querySelector('#main')?.append(button);
    });
    await page.getByRole('button', { name: 'Lose it' }).click();
    await expect.poll(() => visit.faults).toEqual(['the focus is nowhere after “Lose it”, at /buying']);
  });
});
