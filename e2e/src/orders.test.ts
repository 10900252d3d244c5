import { expect, test } from '@playwright/test';
import { Application, dayIn, find, type Visit } from './harness.ts';

/** The day so many days from now, as the demo business counts them. */

test.describe('orders', () => {
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

  test('leave in part by mouse, come back whole when that is undone, and end when the rest is given up', async () => {
    const { page } = visit;
    await page.getByRole('link', { name: /^Orders/ }).click();
    await visit.heading(/orders? can ship now/);
    await page.getByRole('navigation', { name: 'Orders', exact: true }).getByText('Alder Vale Apiaries').click();
    await visit.heading('Alder Vale Apiaries');
    await page.getByRole('button', { name: 'Ship · 2 lines ready' }).click();
    await page.getByLabel('Ship now of Feeder, 2 litre').fill('99');
    await page.getByLabel('Ship now of Beeswax candles, pair').fill('');
    await page.getByRole('button', { name: 'Ship 1 line' }).click();
    await page.getByText('Only 12 of this line is left to ship.').waitFor();
    await page.getByLabel('Ship now of Feeder, 2 litre').fill('5');
    await page.getByRole('button', { name: 'Ship 1 line' }).click();
    await visit.notice(/2 lines still open/);
    await page.getByText('partly shipped').first().waitFor();
    await visit.undo();
    await visit.notice(/Undone by UN-/);
    await page.getByText('· confirmed ·').waitFor();
    // Shipped again, and this time the back order is not wanted any more.
    await page.getByRole('button', { name: 'Ship · 2 lines ready' }).click();
    await page.getByLabel('Ship now of Beeswax candles, pair').fill('');
    await page.getByRole('button', { name: 'Ship 1 line' }).click();
    await visit.notice(/1 line still open/);
    await page.getByRole('button', { name: 'Give up the rest…' }).click();
    expect(await page.getByRole('button', { name: 'Give up the rest', exact: true }).isDisabled()).toBe(true);
    await page.getByLabel('Reason for giving up the rest').fill('Candles came from a neighbour');
    await page.keyboard.press('Enter');
    await visit.notice(/Rest of O-\d+ given up/);
    await page.getByText('Given up: “Candles came from a neighbour”').waitFor();
    await page.getByText('· shipped ·').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('say while they are typed whom they delay, and are changed, given up with a reason and found', async () => {
    const { page } = visit;
    await page.goto('/orders?new=1');
    await find(page.getByRole('combobox', { name: 'For', exact: true }), 'Quince & Sons');
    await page.getByLabel('Wanted on').fill(dayIn(6));
    await page.getByRole('combobox', { name: 'Add an item' }).fill('tasting');
    await page.getByRole('option', { name: /Honey tasting trio/ }).click();
    await page.getByLabel('Quantity of Honey tasting trio').fill('70');
    const margin = page.getByRole('complementary', { name: 'Total' });
    await margin.getByText('Orders delayed').waitFor();
    await margin.getByText('O-0106').waitFor();
    await page.getByLabel('Quantity of Honey tasting trio').fill('0');
    expect(await page.getByRole('button', { name: 'Confirm the order' }).isDisabled()).toBe(true);
    // What was typed outlives a reload.
    await page.getByLabel('Quantity of Honey tasting trio').fill('70');
    await page.reload();
    expect(await page.getByLabel('Quantity of Honey tasting trio').inputValue()).toBe('70');
    await page.getByRole('button', { name: 'Save as quote' }).click();
    await visit.notice(/saved as a quote/);
    await page.getByRole('button', { name: 'Confirm the order' }).click();
    await visit.notice(/confirmed. Its stock and parts are promised/);
    await page.getByRole('link', { name: 'Change', exact: true }).click();
    await visit.heading(/^Change O-/);
    await page.getByLabel('Quantity of Honey tasting trio').fill('2');
    await page.getByLabel('Their reference').fill('Q-311');
    await page.getByRole('button', { name: 'Save the changes' }).click();
    await visit.notice(/changed/);
    await page.getByText('their Q-311').waitFor();
    await page.getByRole('button', { name: 'Cancel the order…' }).click();
    await page.getByLabel('Reason for cancelling').fill('They found some');
    await page.getByRole('button', { name: 'Cancel the order', exact: true }).click();
    await visit.notice(/cancelled/);
    await page.getByText('Given up: “They found some”').waitFor();
    await page.keyboard.press('Control+k');
    await page.getByRole('searchbox', { name: 'Find or do' }).fill('Quince');
    await page
      .getByRole('menuitem')
      .filter({ hasText: /customer/ })
      .click();
    await visit.heading('Quince & Sons');
    expect(visit.faults).toEqual([]);
  });

  test('belong to customers, who are added once and keep what was typed when they are refused', async () => {
    const { page } = visit;
    await page.goto('/orders/customers?new=1');
    await page.getByLabel('Code', { exact: true }).fill('LARK');
    await page.getByLabel('Name').fill('Moor End');
    await page.getByLabel('Discount, %').fill('120');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByText('Enter a value from 0 to 100.').waitFor();
    await page.getByLabel('Discount, %').fill('4');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByText(/LARK/).last().waitFor();
    expect(await page.getByLabel('Name').inputValue()).toBe('Moor End');
    await page.getByLabel('Code', { exact: true }).fill('MOOR');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await visit.heading('Moor End');
    await page.getByRole('link', { name: 'New order' }).click();
    await visit.heading('A new order');
    await expect(page.getByRole('combobox', { name: 'For', exact: true })).toHaveValue('Moor End · MOOR');
    expect(visit.faults).toEqual([]);
  });

  test('are split: what waits goes to an order of its own', async () => {
    const { page } = visit;
    await page.goto('/orders/114');
    await visit.heading('Ferry Road Primary');
    await page.getByRole('button', { name: 'Split…' }).click();
    const covers = page.getByLabel('To new order of Winter cover');
    expect(await covers.inputValue()).toBe('33');
    expect(await page.getByLabel('To new order of Hive strap').inputValue()).toBe('');
    await covers.fill('61');
    await page.getByRole('button', { name: 'Split off 1 line' }).click();
    await page.getByText(/Only 60/).waitFor();
    await covers.fill('33');
    await page.getByRole('button', { name: 'Split off 1 line' }).click();
    await visit.notice(/split off/);
    await page.getByRole('cell', { name: '33', exact: true }).first().waitFor();
    await visit.notices
      .first()
      .getByRole('link', { name: /Back to O-/ })
      .click();
    await page.getByRole('cell', { name: '27', exact: true }).first().waitFor();
    await page.getByRole('button', { name: 'Ship · 2 lines ready' }).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('are named on Cover, beside builds, where a part is promised', async () => {
    const { page } = visit;
    await page.goto('/cover?want=40x24');
    await page.getByRole('button', { name: /promised.*, of Brood box, cedar: to whom/ }).click();
    await page
      .getByRole('region', { name: 'Promised to, of Brood box, cedar' })
      .getByRole('link', { name: /^B-/ })
      .click();
    await visit.heading(/Ten-frame hive, cedar/);
    expect(visit.faults).toEqual([]);
  });
});
