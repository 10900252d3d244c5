import { expect, test } from '@playwright/test';
import { Application, choose, type Visit } from './harness.ts';

test.describe('a company that has just begun', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser, 'empty');
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  for (const [path, text] of [
    ['/today', 'No builds are planned'],
    ['/define', 'Define your first product'],
    ['/cover', 'Is there enough?'],
    ['/build', 'No open builds'],
    ['/pick', 'Nothing to pick'],
    ['/take-apart', 'No returns to deal with'],
    ['/take-apart/stock', 'No products in stock'],
    ['/take-apart/returns', 'No returns match'],
    ['/take-apart/why', 'No returns in this period'],
    ['/stock/items', 'Add your first item'],
    ['/stock/places', 'Add your first store'],
    ['/stock/counts', 'No open counts'],
    ['/stock/in-out', 'Import your catalogue'],
    ['/stock/on-a-day', 'No stock matched on that date'],
    ['/define/faults', 'Every bill of materials is in order'],
    ['/nowhere', 'Page not found'],
    ['/print/nothing/2', 'Page not found'],
    ['/build/4711', 'Try again'],
  ] as const)
    test(`${path} teaches the first step`, async () => {
      await visit.page.goto(path);
      await visit.page.getByText(text).first().waitFor();
    });

  test('comes from nothing to its first finished product on its screens alone', async () => {
    const { page } = visit;
    await page.goto('/stock/places');
    const card = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Add a store' }) });
    await card.getByLabel('Code').fill('SHOP');
    await card.getByLabel('Name').fill('The shop');
    await card.getByRole('button', { name: 'Add' }).click();
    await page.getByLabel('New bin').fill('A1');
    await page.getByLabel('New bin').press('Enter');
    await page.getByLabel('Code of bin A1').waitFor();
    await page.getByLabel('New bin').fill('a1');
    await page.getByLabel('New bin').press('Enter');
    await page.getByRole('button', { name: 'Save The shop' }).click();
    await page.getByText('“a1” already belongs to A1. Choose another code.').waitFor();
    await page.getByRole('button', { name: 'Without bin a1', exact: true }).click();
    await page.getByRole('button', { name: 'Save The shop' }).click();
    await visit.notice('The shop saved.');
    await page.getByLabel('New rate').fill('Bench hour');
    await page.getByLabel('Per hour').fill('30');
    await page.getByLabel('Per hour').press('Enter');
    await page.getByText('€30.00 an hour').waitFor();

    for (const [code, name] of [
      ['LEG', 'Stool leg'],
      ['STOOL', 'Milking stool'],
    ] as const) {
      await page.goto('/stock/items?new=1');
      await page.getByLabel('Code', { exact: true }).fill(code);
      await page.getByLabel('Name').fill(name);
      await page.getByLabel('Sell price').fill('forty');
      await page.getByRole('button', { name: 'Add item' }).click();
      await page.getByText('“forty” is not a number').waitFor();
      expect(await page.getByLabel('Name').inputValue()).toBe(name);
      await page.getByLabel('Sell price').fill('40');
      await page.getByRole('button', { name: 'Add item' }).click();
      await visit.heading(name);
    }
    await page.goto('/stock/receive?item=1&quantity=9');
    await page.getByLabel('Unit cost of Stool leg').fill('2.5');
    await choose(page.getByLabel('Kind'), 'Opening stock');
    await page.getByRole('button', { name: 'Receive 1 line' }).click();
    await visit.heading(/OS-0001 · Opening stock/);

    await page.goto('/define');
    await page.getByRole('link', { name: 'New bill of materials' }).first().click();
    await page.getByRole('combobox', { name: 'What is made?' }).fill('stool');
    await page.getByRole('option', { name: /Milking stool/ }).click();
    await visit.heading('Milking stool');
    await page.getByRole('combobox', { name: 'Add a part' }).fill('leg');
    await page.getByRole('option', { name: /Stool leg/ }).click();
    await page.getByLabel('Amount of Stool leg').fill('3');
    await page.getByRole('button', { name: '+ Labour' }).click();
    await page.getByLabel('Amount of labour').fill('12');
    await page.getByRole('complementary').getByText('13.500').first().waitFor();
    await page.getByText('66.3%').first().waitFor();
    await page.getByRole('button', { name: 'Put in use' }).click();
    await visit.notice('Revision 1 of Milking stool is in use');
    await page.getByRole('link', { name: 'Plan a build' }).click();
    await page.getByLabel('Quantity').fill('3');
    await page.getByRole('button', { name: 'Plan the build' }).click();
    await page.getByRole('button', { name: 'Send to bench' }).click();
    await page.getByRole('link', { name: 'Finish…' }).click();
    await page.getByRole('button', { name: 'Finish 3' }).click();
    await visit.notice('3 × Milking stool at €13.500 each are in stock');
    await page.getByRole('button', { name: 'Undo' }).click();
    await visit.notice(/Undone by UN-0001/);
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });
});
