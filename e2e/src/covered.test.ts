import { expect, type Page, test } from '@playwright/test';
import { Application, type Visit } from './harness.ts';

/** Every key that does something on some screen. */
const SHORTCUTS = ['Control+Enter', 'Control+s', 'Control+k', 'Alt+n', 'F2', '?'];
/** A barcode, as a key-wedge scanner types it: faster than any hand, with Enter at the end. */
const SCAN = '4006381333931';

/** Screens on which a shortcut or a scan does something, with what has to be typed for that. */
const SCREENS: readonly (readonly [path: string, ready: RegExp, type?: (page: Page) => Promise<void>])[] = [
  ['/orders', /can ship now/],
  ['/buying/orders/30', /draft/],
  ['/define/5?rev=2', /Smoker, lined/, (page) => page.getByLabel('Amount of Smoker bellows').fill('3')],
  ['/cover?want=40x4', /\S/],
  ['/build/122/finish', /What was actually used/],
  ['/pick/121', /to pick for/],
  ['/stock/receive?item=32', /to receive/],
  ['/take-apart', /to deal with/],
];

/** What can lie over a page, how it is opened, and whether it takes typed keys itself. */
const OVERLAYS: readonly (readonly [what: string, open: (page: Page) => Promise<void>, typesInto?: true])[] = [
  [
    'the palette',
    async (page) => {
      await page.keyboard.press('Control+k');
      await page.getByRole('dialog', { name: 'Find or do' }).waitFor();
    },
    true,
  ],
  [
    'the list of keys',
    async (page) => {
      await page.locator('body').press('?');
      await page.getByRole('dialog', { name: 'Keys on this screen' }).waitFor();
    },
  ],
];

test.describe('whatever lies over a page', () => {
  let application: Application;
  let visit: Visit;
  const sent: string[] = [];
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
    visit.page.on('request', (request) => {
      if (request.method() !== 'GET' && !/cover|match|look|check-serials/.test(request.url()))
        sent.push(`${request.method()} ${request.url()}`);
    });
  });
  test.afterAll(() => application.close());

  /** Presses everything while `open` has covered the page, which has to stay as it is. */
  async function pressEverything(open: (page: Page) => Promise<void>, typesInto = false): Promise<void> {
    const { page } = visit;
    const before = page.url();
    for (const key of [...SHORTCUTS, ...(typesInto ? [] : [SCAN])]) {
      await open(page);
      const layers = page.locator('[role=dialog], [role=listbox]');
      const over = await layers.count();
      if (key === SCAN) {
        await page.keyboard.type(SCAN);
        await page.keyboard.press('Enter');
      } else await page.keyboard.press(key);
      // Nothing else has come over it.
      expect(await layers.count(), key).toBeLessThanOrEqual(over);
      for (let tries = 0; tries < 3 && (await isCovered(page)); tries += 1) await page.keyboard.press('Escape');
      await expect.poll(() => isCovered(page)).toBe(false);
      expect([key, page.url(), ...sent]).toEqual([key, before]);
    }
  }

  for (const [path, ready, type] of SCREENS)
    for (const [what, open, typesInto] of OVERLAYS)
      test(`lets no shortcut and no scan through: ${what} over ${path}`, async () => {
        const { page } = visit;
        await page.goto(path);
        await visit.heading(ready);
        await visit.loaded();
        await type?.(page);
        await page.locator('h1').first().click();
        await pressEverything(open, typesInto);
        expect(visit.faults).toEqual([]);
      });

  test('lets no shortcut through: a choice, a calendar and a question over an order that could be sent', async () => {
    const { page } = visit;
    await page.goto('/buying/orders/30');
    await visit.heading(/draft/);
    await pressEverything(async () => {
      await page.getByRole('button', { name: /Sending method/ }).click();
      await page.getByRole('option').first().waitFor();
    });
    await pressEverything(async () => {
      await page.getByRole('button', { name: 'Calendar' }).first().click();
      await page.getByRole('grid').first().waitFor();
    });
    await pressEverything(async () => {
      await page.getByRole('button', { name: 'Cancel the order…' }).click();
      await page.getByRole('alertdialog', { name: /Cancel the draft/ }).waitFor();
    });
    expect(visit.faults).toEqual([]);
  });
});

const isCovered = (page: Page) =>
  page.evaluate(() => document.getElementById('main')?.closest('[aria-hidden=true], [inert]') !== null);
