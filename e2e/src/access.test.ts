import { createRequire } from 'node:module';
import { expect, test } from '@playwright/test';
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

  for (const [_, path, heading] of [
    ['all products', '/define', '30 products'],
    ['a new definition', '/define/new', 'New bill of materials'],
    ['everything promised', '/cover', 'promises wait'],
    ['the bench', '/build', 'on the bench'],
    ['what came back', '/take-apart', 'came back and wait'],
    ['returns', '/take-apart/returns', '8 returns, 3 of them waiting'],
    ['a return that waits', '/take-apart/returns/6', 'to decide'],
    ['a return that is announced', '/take-apart/returns/7', 'announced, not here yet'],
    ['why things come back', '/take-apart/why', '6 returns, most often'],
    ['what can be taken apart', '/take-apart/stock', 'can be taken apart'],
    ['the label of a return', '/print/return/7', 'RT-0007'],
    ['a run that is over', '/pick/runs/1', 'RUN-0001'],
    ['a run', '/pick/runs/3', 'to go on RUN-0003'],
    ['a run on paper', '/print/run/3', 'Pick run RUN-0003'],
    ['what was posted', '/stock/documents', 'What was posted'],
    ['the company', '/company', 'The company and its people'],
    ['the set-up', '/set-up', 'Who are you'],
    ['Today', '/today', 'Ready to start'],
    ['Define', '/define/2', 'Ten-frame hive, cedar'],
    ['a draft', '/define/5?rev=2', 'Smoker, lined'],
    ['how a kit behaves', '/define/10?view=behaves', 'What happens with'],
    ['a difference', '/define/2?view=compare&rev=2&against=1', '2 lines differ'],
    ['where it is used', '/define/2?view=used', 'goes into 3 products'],
    ['definitions to put right', '/define/faults', 'to put right'],
    ['replacing a part', '/define/replace?part=8&by=7&ratio=0.01', 'products in use list'],
    ['Cover', '/cover?want=40x24,42x30', 'stuck on'],
    ['who gets scarce parts', '/cover/scarce', 'could have everything in time'],
    ['cases of a question', '/cover?want=42x30&beside=want%3D42x12&at=1&if=late.3.9', 'Everything is there'],
    ['reorder points', '/buying/reorder', 'run out during a slow delivery'],
    ['an item over time', '/cover/time/24?case=day.purchase.42.2026-12-24&at=1', 'free at the least'],
    ['orders of customers', '/orders', 'can leave now'],
    ['an order of a customer', '/orders/107', 'Larkfield Allotments'],
    ['an order that is out', '/orders/104', 'Brook School'],
    ['orders over four weeks', '/orders/weeks', 'wanted this week'],
    ['papers of an order', '/orders/107/papers', 'O-0107'],
    ['picking for an order', '/pick/orders/105', 'to pick for O-0105'],
    ['the stand-in for a shop', '/devices/shop', 'Hive & Honey'],
    ['an order being entered', '/orders?new=1', 'A new order'],
    ['a customer', '/orders/customers/1', 'Alder Vale Apiaries'],
    ['a new customer', '/orders/customers?new=1', 'A new customer'],
    ['Build', '/build/126', '24 × Ten-frame hive'],
    ['all tasks', '/build/tasks', 'tasks'],
    ['the board', '/build/board', 'nobody’s yet'],
    ['repairs', '/build/repairs', 'repairs are here'],
    ['a repair', '/build/repairs/3', 'Hive scale of Alder Vale Apiaries'],
    ['taking a repair in', '/build/repairs?new=1', 'Take a customer’s goods in'],
    ['finishing a repair', '/build/119/finish', 'What was really used'],
    ['the papers of a repair', '/print/repair-in/3', 'Intake receipt RP-0003'],
    ['jobs', '/orders/jobs', 'Which job'],
    ['a job', '/orders/jobs/Winter%20fair', 'Winter fair brought'],
    ['units', '/stock/units', 'Units by serial number'],
    ['a unit', '/stock/units/3', 'Hive scale, SC-0003'],
    ['the scale', '/devices/scale', 'What stands on the scale'],
    ['finishing', '/build/122/finish', 'What was really used'],
    ['Pick', '/pick/121', 'to pick for'],
    ['Take apart', '/take-apart/stock?item=48', 'of parts come back'],
    ['all items', '/stock/items', 'items, .* reorder point'],
    ['what another cost does', '/stock/items/1?view=effect', 'If it cost something else'],
    ['the buy list', '/buying', 'have to be bought'],
    ['orders', '/buying/orders', 'orders are late'],
    ['an order', '/buying/orders/28', 'PO-0028'],
    ['an order being written', '/buying/orders/30', 'draft'],
    ['receiving an order', '/buying/orders/27/receive', 'to receive'],
    ['an order on paper', '/print/order/27', 'Purchase order PO-0027'],
    ['a supplier', '/buying/suppliers/6', 'Combe Metalwares'],
    ['the price of a receipt', '/stock/documents/408/prices', 'What does the invoice'],
    ['revaluing', '/stock/revalue', 'has a new value'],
    ['what to put right', '/stock/put-right', '1 thing to put right'],
    ['lots', '/stock/lots', 'past its day'],
    ['the label printer', '/devices/printer', 'No labels yet'],
    ['the scanner', '/devices/scanner', 'hold in front of the scanner'],
    ['the mailbox', '/devices/mailbox', 'has sent off'],
    ['in and out', '/stock/in-out', 'Bring your catalogue in'],
    ['a definition on paper', '/print/definition/2', 'Ten-frame hive'],
    ['an item', '/stock/items/32', 'First season guide'],
    ['changing an item', '/stock/items/32?edit=1', 'Change First season guide'],
    ['movements', '/stock/movements', 'Everything that moved'],
    ['a document', '/stock/documents/20', '·'],
    ['moving', '/stock/move', 'What goes where'],
    ['adjusting', '/stock/adjust', 'What needs correcting'],
    ['counting', '/stock/counts', 'No count is open'],
    ['stock on a day', '/stock/on-a-day', 'stock was worth'],
    ['receiving', '/stock/receive?item=32', 'to receive'],
    ['places', '/stock/places', '3 stores'],
    ['labels of bins', '/print/bins/1', 'Labels of Main store'],
    ['the bench sheet', '/print/bench/56', 'Bench sheet'],
  ] as const)
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
