import { expect, test } from '@playwright/test';
import { addresses, makeRun } from './addresses.ts';
import { Application, type Visit } from './harness.ts';

/** As long as a name may be: in words, and in one. */
const IN_WORDS =
  'of larch with a zinc roof, wired frames, a feeder for two litres, a queen excluder, a strap and a winter cover for it all';
const IN_ONE = 'Zargenkleinteilesortimentskartondeckelverschlussschraubensatz'.repeat(2);

test.describe('with names of 120 letters', () => {
  test.describe.configure({ mode: 'parallel' });
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    await application.write(async (tx) => {
      for (const table of ['item', 'customer', 'supplier'])
        await tx.run(
          `UPDATE ${table} SET name = substr(name || CASE id % 2 WHEN 0 THEN ' ' || $1 ELSE $2 END, 1, 120)`,
          [IN_WORDS, IN_ONE],
        );
    });
    visit = await application.open();
    await makeRun(visit);
  });
  test.afterAll(() => application.close());

  for (const [what, path] of addresses)
    test(`${what}: nothing is pushed out of its page or over anything else`, async () => {
      const { page } = visit;
      visit.faults.length = 0;
      await page.goto(path);
      await visit.loaded();
      // Lists with more columns than there is room for scroll by themselves, and say what they are.
      const wide = () =>
        page.evaluate(() =>
          [...document.querySelectorAll('#main, #main *')]
            .filter(
              (pane) =>
                ['auto', 'scroll'].includes(getComputedStyle(pane).overflowX) &&
                !(pane.ariaLabel && pane.querySelector('[data-row]')) &&
                pane.clientWidth > 0 &&
                pane.scrollWidth > pane.clientWidth + 1,
            )
            .map((pane) => `${pane.tagName} ${pane.ariaLabel ?? ''} ${pane.scrollWidth} > ${pane.clientWidth}`),
        );
      expect.soft(await wide()).toEqual([]);
      await page.setViewportSize({ width: 390, height: 800 });
      const out = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      expect.soft(out).toBe(0);
      await page.setViewportSize({ width: 1280, height: 800 });
      expect(visit.faults).toEqual([]);
    });
});
