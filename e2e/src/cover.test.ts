import { expect, test } from '@playwright/test';
import { Application, choose, dayIn, type Visit } from './harness.ts';

/** Cover: the question, the answer, over time, cases beside it, and two people at once. */
test.describe('cover', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('is asked from open orders, by a day, from some stores, and the question is kept for everybody', async () => {
    const { page } = visit;
    await page.goto('/cover');
    await page.getByRole('button', { name: 'Fill from' }).click();
    await page.getByRole('menuitem', { name: /^Open orders/ }).click();
    await page.getByText(/Promises to orders are left out/).waitFor();
    await expect(page.getByRole('list', { name: 'Parts' }).getByRole('listitem').first()).toBeVisible();
    const whole = await page.getByRole('heading', { level: 1 }).textContent();
    await page.getByRole('button', { name: /from every store/ }).click();
    await page.getByLabel('Wanted by').fill(dayIn(20));
    await page.keyboard.press('Enter');
    await page.getByText('Use finished stock first').click();
    await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(whole ?? '');
    await page.getByText('all in stock').first().waitFor();
    await expect(page).toHaveURL(/aside=orders/);
    await expect(page).toHaveURL(/finished=1/);
    await page.getByRole('button', { name: 'Questions' }).click();
    await page.getByRole('menuitem', { name: 'Save this question…' }).click();
    await page.getByLabel('Name of the question').fill('Before the holidays');
    await page.keyboard.press('Enter');
    await visit.notice(/“Before the holidays” is saved for everyone/);
    const other = await application.open();
    await other.page.goto('/cover');
    await other.page.getByRole('button', { name: 'Questions' }).click();
    await other.page.getByRole('menuitem', { name: /Before the holidays/ }).click();
    await expect(other.page).toHaveURL(/finished=1/);
    await other.context.close();
    await choose(page.getByLabel('Grouping of the parts'), 'By supplier');
    await page.getByRole('heading', { name: 'Combe Metalwares' }).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('offers a build of what is made and missing, one level down, and counts it as coming', async () => {
    const { page } = visit;
    await page.goto('/cover?want=41x9');
    await page.getByRole('heading', { name: /stuck on Wired frame, waxed/ }).waitFor();
    await page.getByRole('button', { name: /^build .* too, of Wired frame, waxed$/ }).click();
    await page.getByLabel('Quantity of Wired frame, waxed').waitFor();
    const frames = page.getByRole('listitem').filter({ has: page.getByRole('link', { name: 'Wired frame, waxed' }) });
    await frames.getByRole('button', { name: /coming, of Wired frame, waxed/ }).click();
    await frames.getByText('From this question').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('tells who took parts meanwhile, before planning and after', async () => {
    const { page } = visit;
    await page.goto('/cover?want=44x20');
    await page.getByText('20 now').waitFor();
    const other = await application.open();
    await other.page.goto('/cover?want=44x110');
    await other.page.getByRole('button', { name: 'Plan 1 build' }).click();
    await other.page.getByRole('heading', { level: 1, name: /Honey tasting trio/ }).waitFor();
    await page.getByText(/You could make 20 × .* a moment ago, now/).waitFor();
    expect(visit.faults).toEqual([]);
    await other.context.close();
  });

  test('shows an item over time, moves a delivery by keys and by typing, and takes the case over', async () => {
    const { page } = visit;
    await page.goto('/cover/time/24');
    await page.getByRole('heading', { name: /^Never short/ }).waitFor();
    const handle = page.getByRole('button', { name: /^PO-0027 brings .*The arrow keys move the day/ });
    const before = await handle.textContent();
    await handle.focus();
    await page.keyboard.press('PageDown');
    await expect(handle).not.toHaveText(before ?? '');
    await expect(page).toHaveURL(/case=day\.purchase\./);
    await page
      .getByRole('group', { name: 'This case' })
      .getByText(/^PO-0027 on/)
      .waitFor();
    await page.getByLabel('Quantity missing').fill('25');
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: /^Short by/ }).waitFor();
    await page.getByRole('button', { name: /^Remove: 25/ }).click();
    await page.getByRole('heading', { name: /^Never short/ }).waitFor();
    await page.getByLabel('What if PO-0027 came on').fill(dayIn(30));
    await page.keyboard.press('Enter');
    await page.getByText('Applying this case expects 1 delivery').waitFor();
    await page.getByRole('button', { name: 'Apply…' }).click();
    const look = page.getByRole('dialog', { name: 'Apply this case?' });
    await look.getByText(/^Expect PO-0027 on/).waitFor();
    await look.getByRole('button', { name: 'Use', exact: true }).click();
    await visit.notice(/The case is applied/);
    await page.getByRole('link', { name: 'PO-0027' }).click();
    await visit.heading(/PO-0027|Waxworks/);
    expect(visit.faults).toEqual([]);
  });

  test('proposes when to order again, from use and deliveries, taken one by one and taken back', async () => {
    const { page } = visit;
    await page.goto('/buying/reorder');
    await page.getByRole('heading', { name: /would run out during a slow delivery/ }).waitFor();
    const bellows = page.getByRole('row').filter({ has: page.getByRole('link', { name: 'Smoker bellows' }) });
    await bellows.getByRole('button', { name: 'Use for Smoker bellows' }).click();
    await visit.notice(/1 reorder point set/);
    await expect(bellows.getByRole('button', { name: 'Use for Smoker bellows' })).toBeHidden();
    await visit.notices.first().getByRole('button', { name: 'Undo' }).click();
    await bellows.getByRole('button', { name: 'Use for Smoker bellows' }).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('buys what is short for exactly what was asked', async () => {
    const { page } = visit;
    await page.goto('/cover?want=43x30');
    await page.getByRole('link', { name: /^Buy what’s short/ }).click();
    await visit.heading(/You’d need to buy/);
    await page.getByLabel('Order of Smoker bellows').fill('48');
    await page.getByRole('button', { name: /^Draft / }).click();
    await visit.notice(/drafted/);
    expect(visit.faults).toEqual([]);
  });

  test('says what to do where there is nothing to say', async () => {
    const { page } = visit;
    await page.goto('/cover/time/99999');
    await visit.heading('This item does not exist');
    await page.goto('/cover?want=99999x1');
    await page.getByText('This item does not exist.').waitFor();
    await page.goto('/cover?want=1x5');
    await page.getByRole('heading', { name: /has no bill of materials in use/ }).waitFor();
    await page.goto('/cover?want=40x1&by=2020-01-01');
    await page.getByRole('button', { name: /from every store/ }).click();
    await page.getByText('This day has passed').waitFor();
  });

  test('takes rows of a spreadsheet at once, and says which it does not know', async () => {
    const { page } = visit;
    await page.goto('/cover');
    const box = page.getByRole('combobox', { name: 'Add a product' });
    await box.focus();
    await box.evaluate((field) => {
      const rows = new DataTransfer();
      rows.setData('text/plain', 'HIVE-10\t3\nFEED-2L\t4\nNO-SUCH\t1');
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: rows, bubbles: true, cancelable: true }));
    });
    await page.getByText('1 row not known: “NO-SUCH”').waitFor();
    await expect(page.getByLabel('Quantity of Ten-frame hive, cedar')).toHaveValue('3');
    await expect(page.getByLabel('Quantity of Feeder, 2 litre')).toHaveValue('4');
    expect(visit.faults).toEqual([]);
  });

  test('plans what was typed last, however quick the hand', async () => {
    const { page } = visit;
    await page.goto('/cover?want=39x3');
    await page.getByRole('button', { name: 'Plan 1 build' }).waitFor();
    await page.getByLabel('Quantity of Wired frame, waxed').fill('5');
    await page.keyboard.press('Control+Enter');
    await visit.heading(/^5 × Wired frame, waxed/);
    expect(visit.faults).toEqual([]);
  });

  test('starts its worker anew when that has crashed, and keeps the question', async () => {
    const { page } = visit;
    await page.goto('/cover?want=40x3');
    await page.getByText('Coverage').waitFor();
    const [worker] = page.workers();
    await worker?.evaluate(() =>
      setTimeout(() => {
        throw new Error('crashed on purpose');
      }),
    );
    await page.getByLabel('Quantity of', { exact: false }).first().fill('7');
    await page.getByRole('button', { name: /^Plan \d+ builds?$/ }).waitFor();
    await expect(page).toHaveURL(/want=40x7/);
    await page.getByRole('listitem').filter({ hasText: 'Brood box, cedar' }).getByText('7', { exact: true }).waitFor();
  });
});
