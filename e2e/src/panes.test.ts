import { expect, test } from '@playwright/test';
import { Application } from './harness.ts';

/** Views with something to tick far down, or to choose among. */
const VIEWS = [
  ['/pick', /worth walking|to pick/],
  ['/build/tasks', /tasks/],
  ['/buying', /have to be bought/],
  ['/orders', /can leave now/],
  ['/stock/items', /items, /],
  ['/define/10?view=behaves', /What happens with/],
  ['/company', /The company and its people/],
] as const;

test.describe('the page itself never scrolls, only its panes do', () => {
  let application: Application;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
  });
  test.afterAll(() => application.close());

  for (const [width, height] of [
    [1280, 800],
    [820, 1000],
    [390, 800],
  ] as const)
    test(`at ${width} × ${height}, with the last tick of each view`, async () => {
      const visit = await application.open('Mo Okafor', { width, height });
      const { page } = visit;
      for (const [path, heading] of VIEWS) {
        await page.goto(path);
        await visit.heading(heading);
        await visit.loaded();
        const last = page.getByRole('checkbox').or(page.getByRole('radio')).last();
        if ((await last.count()) > 0 && (await last.isEnabled())) {
          await last.focus();
          await page.keyboard.press('Space');
        }
        const own = await page.evaluate(() => {
          const { scrollTop, scrollHeight, clientHeight } = document.scrollingElement ?? document.body;
          return { scrollTop, tooLong: scrollHeight - clientHeight };
        });
        expect({ path, ...own }).toEqual({ path, scrollTop: 0, tooLong: 0 });
      }
      expect(visit.faults).toEqual([]);
    });
});
