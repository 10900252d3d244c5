import { expect, test } from '@playwright/test';
import { Application, type Visit } from './harness.ts';

test.describe('nothing that is typed is lost', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('leaving a form with changes asks once, and what was typed is there again', async () => {
    const { page } = visit;
    await page.goto('/buying/suppliers/1');
    await page.getByRole('button', { name: 'Change', exact: true }).click();
    await page.getByLabel('Address, as printed').fill('Harbour 3');
    await page.getByRole('link', { name: /^Cover/ }).click();
    const dialog = page.getByRole('alertdialog', { name: /You haven’t saved/ });
    await dialog.getByRole('button', { name: 'Stay here' }).click();
    await expect(page).toHaveURL(/suppliers\/1$/);
    await page.getByRole('link', { name: /^Cover/ }).click();
    await dialog.getByRole('button', { name: 'Leave, and save it for later' }).click();
    await expect(page).toHaveURL(/cover/);
    await page.goBack();
    await expect(page.getByLabel('Address, as printed')).toHaveValue('Harbour 3');
    await page.reload();
    await expect(page.getByLabel('Address, as printed')).toHaveValue('Harbour 3');
    await page.getByRole('link', { name: /^Define/ }).click();
    await dialog.getByRole('button', { name: 'Discard it' }).click();
    await expect(page).toHaveURL(/define/);
    await page.goBack();
    await visit.heading('North Shed Timber');
    const address = page.getByLabel('Address, as printed');
    await expect(async () => {
      if (!(await address.isVisible())) await page.getByRole('button', { name: 'Change', exact: true }).click();
      await expect(address).not.toHaveValue('Harbour 3', { timeout: 2000 });
    }).toPass();
  });

  test('what was used for a build is there again after a reload, and what fits no more is put aside and said', async () => {
    const { page } = visit;
    await page.goto('/build/122/finish');
    const used = page.getByLabel(/^Actually used of /).first();
    const planned = await used.inputValue();
    const other = String(Number(planned) + 1);
    await used.fill(other);
    await page.reload();
    await expect(used).toHaveValue(other);
    await page.goto('/build');
    await page.goBack();
    await expect(used).toHaveValue(other);
    // As an older version, or somebody's hand, might have left it.
    await page.evaluate(() => {
      for (const name of Object.keys(localStorage).filter((one) => one.endsWith('.finish.122.used')))
        localStorage.setItem(name, JSON.stringify({ at: Date.now(), value: { actuals: {}, tracks: {}, why: {} } }));
    });
    await page.reload();
    await page.getByText('What you entered here earlier can’t be used any more.').waitFor();
    await expect(used).toHaveValue(planned);
    expect(visit.faults).toEqual([]);
  });

  test('what is to be counted is still chosen after a look elsewhere', async () => {
    const { page } = visit;
    await page.goto('/stock/counts');
    await visit.heading('No open counts');
    const first = page.getByRole('form', { name: 'Start a count' }).getByRole('checkbox').nth(1);
    await first.focus();
    await page.keyboard.press('Space');
    await page.getByLabel('Item name contains').fill('wax');
    await page.getByRole('button', { name: 'Start the count · 1 bin' }).waitFor();
    await page.goto('/today');
    await page.goto('/stock/counts');
    await page.getByRole('button', { name: 'Start the count · 1 bin' }).waitFor();
    await expect(page.getByLabel('Item name contains')).toHaveValue('wax');
    expect(visit.faults).toEqual([]);
  });

  test('a closed tab gives its text to the next one, while two open tabs keep one each', async () => {
    const open = async () => {
      const page = await visit.context.newPage();
      await page.goto('/stock/items?new=1');
      await page.getByRole('heading', { name: 'New item' }).waitFor();
      return page;
    };
    const [one, other] = [await open(), await open()];
    await one.getByLabel('Name').fill('Queen cage');
    await other.getByLabel('Name').fill('Pollen trap');
    await one.reload();
    await expect(one.getByLabel('Name')).toHaveValue('Queen cage');
    await one.close();
    await other.reload();
    await expect(other.getByLabel('Name')).toHaveValue('Pollen trap');
    await other.close();
    // Both are closed now: each comes back in a tab of its own.
    const again = [await open(), await open()];
    const names = await Promise.all(again.map((page) => page.getByLabel('Name').inputValue()));
    expect(names.sort()).toEqual(['Pollen trap', 'Queen cage']);
    for (const page of again) await page.close();
  });

  test('a session that ended is begun again where one stands, and the same command goes on', async () => {
    const { page, context } = visit;
    await page.goto('/stock/items/25?edit=1');
    await page.getByLabel('Note').fill('Folded flat');
    await context.clearCookies();
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    const dialog = page.getByRole('dialog', { name: 'Sign in again' });
    await dialog.getByRole('button', { name: 'Mo Okafor' }).click();
    await expect.poll(() => application.one('SELECT note FROM item WHERE id = 25')).toEqual({ note: 'Folded flat' });
    await expect(dialog).toBeHidden();
    await expect(page.getByText('Connection lost')).toBeHidden();
  });

  test('back brings a list to where it was, and a link puts the focus at the heading of its page', async () => {
    const { page } = visit;
    await page.goto('/stock/documents');
    const frame = page.getByRole('table', { name: 'Documents' });
    await page.getByRole('row').nth(5).waitFor();
    await frame.evaluate((element) => element.scrollTo(0, 3000));
    await expect.poll(() => frame.evaluate((element) => element.scrollTop)).toBe(3000);
    const link = page.locator('[data-row]').nth(9).locator('a').first();
    await link.scrollIntoViewIfNeeded();
    const number = (await link.textContent()) ?? '';
    const top = await frame.evaluate((element) => element.scrollTop);
    await link.click();
    const heading = page.getByRole('heading', { level: 1 });
    await expect(heading).toContainText(number);
    await expect(heading).toBeFocused();
    await page.goBack();
    await expect.poll(() => frame.evaluate((element) => element.scrollTop)).toBe(top);
  });

  test('a screen that cannot be fetched is tried again, inside the band', async () => {
    const { page } = visit;
    await page.goto('/today');
    let refused = 0;
    await page.route(/\/assets\/WeeksPage/, async (route) => {
      refused += 1;
      if (refused > 2) await route.continue();
      else await route.abort();
    });
    await page
      .getByRole('link', { name: /^Orders/ })
      .first()
      .click();
    await page.getByRole('link', { name: /weeks/i }).first().click();
    await page.getByText('This screen can’t be loaded right now. Trying again…').waitFor();
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('week');
    expect(refused).toBe(3);
    await page.unroute(/\/assets\/WeeksPage/);
  });
});
