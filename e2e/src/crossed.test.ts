import { expect, test } from '@playwright/test';
import { api } from '@yosegi/contract';
import { Application, type Visit } from './harness.ts';

// What a page does when something else happens: a connection that is gone, a session that has ended, another tab.
test.describe('while something else happens', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(async () => {
    expect(await application.verify()).toEqual([]);
    await application.close();
  });
  const itemId = async (code: string) =>
    (await application.one<{ id: number }>(`SELECT id FROM item WHERE code = '${code}'`))?.id ?? 0;
  const rows = (n: number) => ({
    name: 'catalogue.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['Code,Name', ...Array.from({ length: n }, (_, at) => `NEW-${at},Item ${at}`)].join('\n')),
  });

  test('serial numbers that are no range are told while typing, and nothing can leave', async () => {
    const { page } = visit;
    const scale = await itemId('SCALE-1');
    const { id } = await visit.call(api.createOrder, {
      body: { customerId: 2, confirm: true, lines: [{ itemId: scale, quantity: '1' }] },
    });
    await page.goto(`/orders/${id}?ship=1`);
    const serials = page.getByLabel('Serial numbers of Hive scale');
    await serials.fill('SC-0009..SC-0001');
    await page
      .locator('td')
      .getByText(/SC-0009/)
      .first()
      .waitFor();
    await expect(page.getByRole('button', { name: /^Ship/ }).last()).toBeDisabled();
    await serials.fill('SC-0009');
    await expect(page.getByRole('button', { name: /^Ship/ }).last()).toBeEnabled();
  });

  test('counting by serial keeps its field, scan after scan', async () => {
    const { page, faults } = visit;
    const scale = await itemId('SCALE-1');
    const bins = await visit.call(api.itemBins, { params: { id: scale } });
    const there = bins.flatMap((bin) => bin.pieces.map(({ serial }) => ({ serial: serial ?? '', binId: bin.binId })));
    const binId = there[0]?.binId ?? 0;
    const [one, two] = there.filter((piece) => piece.binId === binId).map(({ serial }) => serial);
    const { id } = await visit.call(api.beginCount, { body: { binIds: [binId], q: 'SCALE-1' } });
    await page.goto(`/stock/counts/${id}`);
    const seen = page.getByLabel(/^Serial numbers of Hive scale/);
    await seen.click();
    await page.keyboard.type(`${one}`);
    await page.keyboard.press('Enter');
    await page.getByText('1 serial by Mo Okafor').waitFor();
    await expect(seen).toBeFocused();
    await page.keyboard.type(`${two}`);
    await page.keyboard.press('Enter');
    await page.getByText('2 serials by Mo Okafor').waitFor();
    await expect(seen).toBeFocused();
    expect(faults).toEqual([]);
  });

  test('what is typed to take apart stays when stock changes elsewhere', async () => {
    const { page } = visit;
    const feeder = await itemId('FEED-2L');
    await page.goto(`/take-apart/stock?item=${feeder}`);
    const many = page.getByLabel('Quantity');
    await many.fill('3');
    const remark = page.getByLabel('Remark');
    await remark.fill('For parts');
    const [bin] = await visit.call(api.itemBins, { params: { id: feeder } });
    const answered = page.waitForResponse((response) => response.url().includes(`/api/items/${feeder}/take-apart`));
    const { id: reasonId } = (await visit.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'adjustment') ?? {
      id: 1,
    };
    await visit.call(api.adjust, {
      body: { reasonId, lines: [{ itemId: feeder, binId: bin?.binId ?? 0, change: '-1' }] },
    });
    await answered;
    await page.keyboard.type(' only');
    await expect(remark).toHaveValue('For parts only');
    await expect(many).toHaveValue('3');
  });

  test('stopping an import goes on until the server has heard', async () => {
    const { page } = visit;
    await page.goto('/stock/in-out');
    await page.getByLabel('File of items').setInputFiles(rows(20_000));
    await visit.heading('20000 new, 0 changed, 0 the same. Nothing is refused.');
    let tries = 0;
    await page.route('**/api/imports/*/cancel', (route) => {
      tries += 1;
      return tries < 2 ? route.abort() : route.continue();
    });
    await page.getByRole('button', { name: 'Import 20000 rows' }).click();
    await page.getByRole('button', { name: 'Stop; nothing is imported' }).click();
    await page.getByRole('button', { name: 'Try to stop again' }).click();
    await visit.heading('Import your catalogue, or export it.');
    await page.unroute('**/api/imports/*/cancel');
    expect(tries).toBe(2);
    expect(await application.one("SELECT count(*) AS n FROM item WHERE code LIKE 'NEW-%'")).toEqual({ n: 0 });
  });

  test('a session that has ended is asked for once more, and the file goes up after all', async () => {
    const { page, context } = await application.open();
    await page.goto('/stock/in-out');
    await page.getByLabel('File of items').waitFor({ state: 'attached' });
    await context.clearCookies();
    await page.getByLabel('File of items').setInputFiles(rows(2));
    await page.getByRole('dialog').getByRole('button', { name: 'Mo Okafor' }).click();
    await page.getByRole('heading', { name: '2 new, 0 changed, 0 the same. Nothing is refused.' }).waitFor();
    await page.goto('/orders');
    await page.getByRole('button', { name: 'Export' }).first().waitFor();
    await context.clearCookies();
    await page.getByRole('button', { name: 'Export' }).first().click();
    await page.getByRole('menuitem', { name: 'CSV file' }).click();
    const file = page.waitForEvent('download');
    await page.getByRole('dialog').getByRole('button', { name: 'Mo Okafor' }).click();
    await file;
    await context.close();
  });

  test('a finish is not called a clash with itself while it is being posted', async () => {
    const { page } = visit;
    const build = await application.one<{ id: number }>(
      "SELECT b.id FROM build b JOIN item i ON i.id = b.item_id WHERE i.code = 'SCALE-1' AND b.state = 'on-bench' AND b.repair_id IS NULL",
    );
    await page.goto(`/build/${build?.id}/finish`);
    await page.getByLabel('Serial numbers of Hive scale').press('F2');
    await expect(page.getByLabel('Serial numbers of Hive scale')).not.toHaveValue('');
    let release = () => {};
    const held = new Promise<void>((resolve) => {
      release = resolve;
    });
    let posted = () => {};
    const isPosted = new Promise<void>((resolve) => {
      posted = resolve;
    });
    await page.route(`**/api/builds/${build?.id}/finish`, async (route) => {
      const response = await route.fetch();
      posted();
      await held;
      await route.fulfill({ response });
    });
    const asked = page.waitForResponse((response) => response.url().includes('/check-serials'));
    await page.getByRole('button', { name: /^Finish \d/ }).click();
    await isPosted;
    // Every open page is told at once, this one before it has its own answer.
    await asked;
    await page.waitForFunction(() => document.querySelector('[role=status][aria-label=Loading]') === null);
    expect(await page.getByText(/is in stock already|already/).count()).toBe(0);
    release();
    await page.getByText(/are in stock|is in stock/).waitFor();
  });

  test('where a page has the colours of the system, its bars keep theirs', async () => {
    const { page } = visit;
    await page.emulateMedia({ forcedColors: 'active' });
    for (const path of ['/orders', '/define/2']) {
      await page.goto(path);
      await visit.loaded();
      const colours = await page
        .getByRole('img', { name: /\d ?%/ })
        .first()
        .evaluate((bar) => {
          const look = (piece: Element) => {
            const { backgroundColor, backgroundImage } = getComputedStyle(piece);
            return backgroundColor + backgroundImage;
          };
          return new Set([bar, ...bar.querySelectorAll('*')].map(look)).size;
        });
      expect(colours, path).toBeGreaterThan(1);
    }
    await page.emulateMedia({ forcedColors: null });
  });

  test('a step of a repair leads to the next one, though the page knows of it before its answer is here', async () => {
    const { page } = visit;
    const customerId = (await application.one<{ id: number }>('SELECT id FROM customer ORDER BY id'))?.id ?? 0;
    const body = { customerId, itemId: await itemId('SCALE-1'), serial: 'LATE-1', fault: 'Shows nothing' };
    const { id } = await visit.call(api.takeIn, { body });
    await page.goto(`/build/repairs/${id}`);
    const next = page.getByRole('button', { name: 'Record agreement…' });
    await page.route('**/api/repairs/*/estimate', async (route) => {
      const response = await route.fetch();
      await next.waitFor();
      await route.fulfill({ response });
    });
    await page.getByRole('button', { name: 'Estimate…' }).click();
    await page.getByLabel('Estimate for the customer').fill('40');
    await page.getByLabel('Estimate for the customer').press('Enter');
    await expect(page.getByLabel('Estimate for the customer')).toHaveCount(0);
    await expect(next).toBeFocused();
    await page.unroute('**/api/repairs/*/estimate');
  });
});
