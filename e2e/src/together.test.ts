import { expect, test } from '@playwright/test';
import { Application } from './harness.ts';

test.describe('two browsers and a bad line', () => {
  let application: Application;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
  });
  test.afterAll(() => application.close());

  test('what one does the other sees, without doing anything', async () => {
    const [mine, theirs] = [await application.open(), await application.open('Ada Quill')];
    await mine.page.goto('/build/125');
    await theirs.page.goto('/today');
    await theirs.page.getByRole('button', { name: 'Send to bench, B-0121' }).waitFor();
    await mine.page.getByRole('button', { name: 'Send to bench' }).click();
    await theirs.page.getByRole('button', { name: 'Send to bench, B-0121' }).waitFor({ state: 'detached' });
    await theirs.page.getByText('4 on the bench').or(theirs.page.getByText('3 on the bench')).first().waitFor();
    await mine.context.close();
    await theirs.context.close();
  });

  test('a stale save shows both versions and loses neither', async () => {
    const [mine, theirs] = [await application.open(), await application.open('Ada Quill')];
    for (const { page } of [mine, theirs]) await page.goto('/stock/items/25?edit=1');
    await theirs.page.getByLabel('Name').fill('Gift box, three jars, brown');
    await mine.page.getByLabel('Name').fill('Gift box, three jars, white');
    await theirs.page.getByRole('button', { name: 'Save' }).click();
    await theirs.heading('Gift box, three jars, brown');
    await mine.page.getByRole('button', { name: 'Save' }).click();
    await mine.page.getByText(/Theirs now: .*brown/).waitFor();
    expect(await mine.page.getByLabel('Name').inputValue()).toBe('Gift box, three jars, white');
    await mine.page.getByRole('button', { name: 'Save mine over theirs' }).click();
    await mine.page.getByRole('button', { name: 'Save', exact: true }).click();
    await mine.heading('Gift box, three jars, white');
    await mine.context.close();
    await theirs.context.close();
  });

  test('what is typed over something stays while another saves it, and is refused with both versions', async () => {
    const [mine, theirs] = [await application.open(), await application.open()];
    for (const { page } of [mine, theirs]) await page.goto('/stock/places');
    await mine.page.getByLabel('Code of bin A4').fill('A4-NEW');
    await theirs.page.getByLabel('Code of bin A3').fill('A3-NEW');
    await theirs.page.getByLabel('Code of bin A3').press('Enter');
    await theirs.notice('Main store saved.');
    await theirs.page.getByLabel('Code of bin K1').fill('K1-NEW');
    await theirs.page.getByLabel('Code of bin K1').press('Enter');
    await theirs.notice('Cold room saved.');
    // What nobody here has typed over follows; by then the other has come too.
    await expect(mine.page.getByLabel('Code of bin K1-NEW')).toHaveValue('K1-NEW');
    await expect(mine.page.getByLabel('Code of bin A4')).toHaveValue('A4-NEW');
    await mine.page.getByLabel('Code of bin A4').press('Enter');
    await mine.page.getByText(/Theirs now: Main store · MAIN, bins A1, A2, A3-NEW, A4, B1/).waitFor();
    await mine.page.getByRole('button', { name: 'Save mine over theirs' }).click();
    await mine.page.getByLabel('Code of bin A4').press('Enter');
    await mine.notice('Main store saved.');
    await expect(theirs.page.getByLabel('Code of bin A4-NEW')).toHaveValue('A4-NEW');
    expect(mine.faults).toEqual([]);
    await mine.context.close();
    await theirs.context.close();
  });

  test('a lost connection keeps what was typed, and trying again posts once', async () => {
    const { page, context } = await application.open();
    await page.goto('/stock/receive?item=32&quantity=7');
    await page.getByLabel('Unit cost of First season guide').fill('3.05');
    // The server carries it out, but its answer never arrives.
    await page.route(
      '**/api/receipts',
      async (route) => {
        await route.fetch();
        await route.abort('connectionreset');
      },
      { times: 1 },
    );
    await page.getByRole('button', { name: 'Receive 1 line' }).click();
    await page.getByText(/The server can’t be reached/).waitFor();
    expect(await page.getByLabel('Quantity of First season guide').inputValue()).toBe('7');
    await page.getByRole('button', { name: 'Receive 1 line' }).dblclick();
    await page.getByRole('heading', { name: /· Receipt/ }).waitFor();
    const receipts = await application.one<{ n: number }>(
      'SELECT count(*) AS n FROM movement WHERE quantity = 7000000 AND value = 21350000',
    );
    expect(receipts?.n).toBe(1);
    await context.close();
  });

  test('a draft survives a closed tab, and the address brings the question back', async () => {
    const { page, context } = await application.open();
    await page.goto('/define/5?rev=2');
    await page.getByLabel('Amount of Smoker hook').fill('3');
    await page.getByText('Not saved yet').waitFor();
    await page.goto('/cover?want=42x12,43x3&by=2026-12-24');
    await page.getByLabel('Quantity of Feeder, 2 litre').waitFor();
    expect(await page.getByLabel('Quantity of Smoker, lined').inputValue()).toBe('3');
    await page.goto('/define/5?rev=2');
    await page.getByText('Not saved yet').waitFor();
    expect(await page.getByLabel('Amount of Smoker hook').inputValue()).toBe('3');
    await page.getByLabel('Amount of Smoker hook').fill('one');
    await page
      .getByText(/is not a number. Enter digits/)
      .first()
      .waitFor();
    expect(await page.getByRole('button', { name: 'Save draft' }).isDisabled()).toBe(true);
    await context.close();
  });

  test('the first load is at most 250 kB of compressed script, and what a station adds to it 120 kB', async () => {
    const { page, context } = await application.open();
    /** As they came, compressed; what the browser had already has the size that it came with. */
    const bytesAt = async (path: string) => {
      await page.goto(path, { waitUntil: 'networkidle' });
      await page.getByRole('heading', { level: 1 }).first().waitFor();
      return page.evaluate(() =>
        (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
          .filter((one) => new URL(one.name).pathname.endsWith('.js'))
          .reduce((sum, one) => sum + one.encodedBodySize, 0),
      );
    };
    const first = await bytesAt('/today');
    expect(first).toBeGreaterThan(150_000);
    expect(first).toBeLessThanOrEqual(250 * 1024);
    for (const station of ['/define', '/cover', '/orders', '/build', '/pick', '/take-apart', '/stock/items', '/buying'])
      expect((await bytesAt(station)) - first, station).toBeLessThanOrEqual(120 * 1024);
    await context.close();
  });
});
