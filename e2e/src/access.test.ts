import { createRequire } from 'node:module';
import { expect, test } from '@playwright/test';
import { addresses } from './addresses.ts';
import { Application, type Visit } from './harness.ts';

const axeFile = createRequire(import.meta.url).resolve('axe-core/axe.min.js');

test.describe('every main view', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
    // axe is put into the page by the test, which the page's own policy would refuse.
    const client = await visit.context.newCDPSession(visit.page);
    await client.send('Page.setBypassCSP', { enabled: true });
    const made = await visit.page.request.post('/api/pick-runs', {
      headers: { 'idempotency-key': 'a-run-to-look-at' },
      data: {
        goals: [
          { kind: 'build', id: 121 },
          { kind: 'order', id: 113 },
        ],
      },
    });
    expect(made.status()).toBe(200);
  });
  test.afterAll(() => application.close());

  /** What axe finds against WCAG 2.2, levels A and AA, in all that is drawn now. */
  async function violations(besides: readonly string[] = []): Promise<string[]> {
    const isThere = await visit.page.evaluate(() => 'axe' in window);
    if (!isThere) await visit.page.addScriptTag({ path: axeFile });
    return visit.page.evaluate(async (rules) => {
      const { axe } = window as unknown as {
        axe: {
          run(context: object, options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }>;
        };
      };
      // What React Aria reads aloud for a moment is named by buttons that may be gone by then.
      const context = { exclude: [['[data-live-announcer]']] };
      const { violations: found } = await axe.run(context, {
        runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
        rules: Object.fromEntries(rules.map((rule) => [rule, { enabled: false }])),
      });
      return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
    }, besides);
  }

  for (const [_, path, heading] of addresses)
    test(`${_} has no fault that axe can find, and one first heading`, async () => {
      await visit.page.goto(path);
      await visit.heading(new RegExp(heading));
      await visit.loaded();
      expect(await violations()).toEqual([]);
      await expect(visit.page.locator('h1')).toHaveCount(1);
      // Named, so that tabs and the browser's history can be told apart.
      expect(await visit.page.title()).toMatch(/\S · Yosegi$/);
      expect(visit.faults).toEqual([]);
    });

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
        await page.getByRole('button', { name: 'Take it along' }).click();
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
        await visit.notice(/is saved/);
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
      await visit.loaded();
      await open(visit);
      // React Aria hides the rest of the page from screen readers while its list is open; Tab closes the list first.
      const besides = _ === 'a list of items that is found' ? ['aria-hidden-focus'] : [];
      expect(await violations(besides)).toEqual([]);
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
