import { expect, test } from '@playwright/test';
import { Application, type Visit } from './harness.ts';

test.describe('ways out and ways around', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('a shortage offers to start some now, and the rest stays planned', async () => {
    const { page } = visit;
    await page.goto('/build/127');
    await page.getByRole('button', { name: 'Send to bench' }).click();
    await page.getByRole('button', { name: 'Start 26 now, keep the rest planned' }).click();
    await visit.heading('26 × Smoker, lined');
    await page.getByRole('link', { name: 'B-0127', exact: true }).click();
    await visit.heading('34 × Smoker, lined');
  });

  test('an owner may send it anyway with a reason, which Today shows; bench people may not', async () => {
    const { page } = visit;
    await page.goto('/build/126');
    await page.getByRole('button', { name: 'Send to bench' }).click();
    await page.getByRole('button', { name: 'Start anyway…' }).click();
    await page.getByLabel(/^Reason/).fill('Boxes arrive at noon');
    await page.getByRole('button', { name: 'Start short of parts' }).click();
    await visit.notice('B-0122 started');
    await page.goto('/today');
    await page.getByText('Ten-frame hive, cedar: started short').waitFor();
    await page.getByText(/“Boxes arrive at noon”/).waitFor();
    const bench = await application.open('Tom Birch');
    await bench.page.goto('/build/129');
    await bench.page.getByRole('button', { name: 'Send to bench' }).click();
    await bench.page.getByRole('alert').waitFor();
    expect(await bench.page.getByRole('button', { name: 'Start anyway…' }).count()).toBe(0);
    await bench.context.close();
  });

  test('the grid moves by arrows, lines move by Alt and arrows, and a line can go', async () => {
    const { page } = visit;
    await page.goto('/define/5?rev=2');
    await page.getByLabel('Amount of Smoker can, steel').click();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.type('2');
    expect(await page.getByLabel('Amount of Smoker bellows').inputValue()).toBe('2');
    await page.keyboard.press('Alt+ArrowUp');
    await expect.poll(() => page.locator('tbody tr').first().textContent()).toContain('Smoker bellows');
    await page.getByRole('button', { name: 'Remove Smoker liner' }).click();
    expect(await page.getByLabel('Amount of Smoker liner').count()).toBe(0);
    await page.keyboard.press('Control+s');
    await page.getByText('Saved. Ctrl S saves again.').waitFor();
    await page.reload();
    await expect.poll(() => page.locator('tbody tr').first().textContent()).toContain('Smoker bellows');
    await page.getByRole('button', { name: 'Discard draft…' }).click();
    await visit.answer('Discard draft');
    await page.getByRole('button', { name: 'Start revision 2' }).waitFor();
  });

  test('a number or a piece of a name takes no item, unless it was seen marked', async () => {
    const { page, context, faults } = await application.open();
    await page.goto('/stock/move');
    const adder = page.getByLabel('Add an item');
    await adder.pressSequentially('125');
    await page.getByRole('option', { name: /Tasting jar, 125 ml/ }).waitFor();
    await adder.press('Enter');
    await expect.poll(() => adder.getAttribute('aria-activedescendant')).not.toBeNull();
    expect(await page.getByLabel(/^Quantity of/).count()).toBe(0);
    await adder.press('Enter');
    await page.getByLabel('Quantity of Tasting jar, 125 ml').waitFor();
    expect(faults).toEqual([]);
    await context.close();
  });

  test('? lists the keys of the screen, Escape closes it', async () => {
    const { page } = visit;
    await page.goto('/cover');
    await page.getByRole('heading', { name: /orders and builds are short/ }).click();
    await page.locator('body').press('?');
    await page.getByRole('heading', { name: 'Keys on this screen' }).waitFor();
    await page.getByText('Plan the builds', { exact: true }).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('heading', { name: 'Keys on this screen' }).waitFor({ state: 'detached' });
  });

  test('undo that comes too late says why and what to do', async () => {
    const { page } = visit;
    await page.goto('/stock/documents?kind=opening');
    await page.getByRole('link', { name: 'OS-0001' }).click();
    await page.getByRole('button', { name: 'Undo this posting' }).click();
    await page
      .getByRole('alert')
      .getByText(/RV-0001 has changed what this is worth since. Undo that one first/)
      .waitFor();
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('prints the pick list and the bench sheet with a barcode', async () => {
    const { page } = visit;
    for (const sheet of ['bench', 'pick']) {
      await page.goto(`/print/${sheet}/128`);
      await page.getByRole('heading', { name: /B-0124/ }).waitFor();
      expect(await page.locator('figure svg path').count()).toBeGreaterThan(0);
      await page.emulateMedia({ media: 'print' });
      expect(await page.getByRole('button', { name: 'Print' }).isVisible()).toBe(false);
      await page.emulateMedia({ media: 'screen' });
    }
  });
});
