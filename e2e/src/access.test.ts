import { expect, test } from '@playwright/test';
import { makeRun } from './addresses.ts';
import { prepareAxe, violations } from './axe.ts';
import { Application, type Visit } from './harness.ts';

test.describe('everything that opens, and every phone', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
    await prepareAxe(visit);
    await makeRun(visit);
  });
  test.afterAll(() => application.close());

  for (const [_, path, open] of [
    [
      'the palette',
      '/today',
      async ({ page }) => {
        await page.keyboard.press('Control+k');
        await page.getByRole('searchbox').fill('hive');
        await page.getByText('bill of materials').first().waitFor();
      },
    ],
    [
      'the list of keys',
      '/today',
      async ({ page }) => {
        await page.keyboard.press('?');
        await page.getByRole('dialog').waitFor();
      },
    ],
    [
      'a new item without leaving',
      '/define/new',
      async ({ page }) => {
        await page.getByRole('combobox', { name: 'What is made?' }).fill('Skep, woven');
        await page.getByRole('option', { name: /New item/ }).click();
        await page.getByRole('dialog').waitFor();
      },
    ],
    [
      'a list of items that is found',
      '/cover',
      async ({ page }) => {
        await page.getByRole('combobox', { name: 'Add a product' }).fill('hive');
        await page.getByRole('option').first().waitFor();
      },
    ],
    [
      'a choice',
      '/stock/items',
      async ({ page }) => {
        await page.getByRole('button', { name: /Which items/ }).click();
        await page.getByRole('option').first().waitFor();
      },
    ],
    [
      'a menu and chosen rows',
      '/stock/items',
      async ({ page }) => {
        await page.locator('[data-row] label').first().click();
        await page.getByText('1 row chosen').waitFor();
        await page.getByRole('button', { name: 'Export' }).click();
        await page.getByRole('menuitem').first().waitFor();
      },
    ],
    [
      'a calendar',
      '/orders?new=1',
      async ({ page }) => {
        await page
          .getByRole('button', { name: /^Calendar/ })
          .first()
          .click();
        await page.getByRole('grid').waitFor();
      },
    ],
    [
      'holding lots',
      '/stock/lots',
      async ({ page }) => {
        await page.locator('[data-row] label').first().click();
        await page.getByRole('button', { name: 'Hold or release…' }).click();
        await page.getByRole('dialog').waitFor();
      },
    ],
    [
      'leaving what is typed',
      '/stock/items/32?edit=1',
      async ({ page }) => {
        await page.getByLabel('Note').fill('Folded');
        await page.getByRole('link', { name: /^Cover/ }).click();
        await page.getByRole('alertdialog').waitFor();
      },
    ],
    [
      'a notice',
      '/stock/items/32?edit=1',
      async (visit) => {
        await visit.page.getByLabel('Note').fill('Printed on both sides');
        await visit.page.getByRole('button', { name: 'Save', exact: true }).click();
        await visit.notice(/saved/);
      },
    ],
    [
      'the menu of a small screen',
      '/today',
      async ({ page }) => {
        await page.setViewportSize({ width: 390, height: 800 });
        await page.getByRole('button', { name: /All stations/ }).click();
        await page.getByRole('menuitem', { name: 'Stock' }).waitFor();
      },
    ],
  ] as const satisfies readonly (readonly [string, string, (visit: Visit) => Promise<void>])[])
    test(`${_}, open over its page, has no fault that axe can find`, async () => {
      await visit.page.setViewportSize({ width: 1280, height: 800 });
      await visit.page.goto(path);
      await visit.page.locator('h1').first().waitFor();
      await visit.loaded();
      await open(visit);
      // React Aria hides the rest of the page from screen readers while its list is open; Tab closes the list first.
      const besides = _ === 'a list of items that is found' ? ['aria-hidden-focus'] : [];
      expect(await violations(visit, besides)).toEqual([]);
    });

  for (const [width, path] of [
    [390, '/pick'],
    [390, '/pick/125'],
    [390, '/pick/runs/3'],
    [390, '/build'],
    [390, '/build/125'],
    [820, '/build'],
    [820, '/pick/125'],
  ] as const)
    test(`${path} at ${width} px has room for a finger on everything that is pressed`, async () => {
      await visit.page.setViewportSize({ width, height: 800 });
      await visit.page.goto(path);
      await visit.loaded();
      const tooSmall = await visit.page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('#main :is(a, button, input)')]
          .filter((one) => getComputedStyle(one).display !== 'inline' && one.getClientRects().length > 0)
          .flatMap((one) => {
            // A field is pressed anywhere in its box, a tick anywhere on its name.
            const pressed = one instanceof HTMLInputElement ? (one.closest('label') ?? one.parentElement ?? one) : one;
            const { height, width: wide } = pressed.getBoundingClientRect();
            return Math.round(Math.min(height, wide)) < 44 ? `${one.outerHTML.slice(0, 80)} ${wide} × ${height}` : [];
          }),
      );
      expect(tooSmall).toEqual([]);
      await visit.page.setViewportSize({ width: 1280, height: 800 });
    });
});
