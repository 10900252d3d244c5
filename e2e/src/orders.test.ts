import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Application, Keyboard, type Visit } from './harness.ts';

/** The day so many days from now, as the demo business counts them. */
const dayIn = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

describe('orders', () => {
  let application: Application;
  let visit: Visit;
  beforeAll(async () => {
    application = await Application.start();
    visit = await application.open();
  });
  afterAll(async () => {
    expect(await application.verify()).toEqual([]);
    await application.close();
  });

  it('are entered and shipped by keyboard alone: something from the shelf, and a kit packed for it', async () => {
    const { page } = visit;
    const keys = new Keyboard(page);
    await keys.goTo('New order', /A new order/);
    await keys.tabTo(/^For$/);
    await keys.type('Tamsin');
    await keys.tabTo(/^Wanted on$/);
    const [year, month, day] = dayIn(1).split('-');
    await keys.type(`${month}${day}${year}`);
    await keys.tabTo(/^Add an item$/);
    await keys.type('tasting trio');
    await page.getByRole('option', { name: /Honey tasting trio/ }).waitFor();
    await keys.press('Enter');
    await page.getByLabel('Quantity of Honey tasting trio').waitFor();
    await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).toBe('INPUT');
    await keys.type('3');
    await keys.press('Enter');
    await keys.press('Enter');
    await keys.type('winter evening');
    await page.getByRole('option', { name: /Winter evening gift/ }).waitFor();
    await keys.press('Enter');
    await page.getByLabel('Quantity of Winter evening gift').waitFor();
    await page.getByText('Everything is here. It could leave now.').waitFor();
    await page.getByRole('complementary').getByText('€77.00').waitFor();
    await keys.press('Control+Enter');
    await visit.notice(/O-\d+ is confirmed/);
    await visit.heading('Tamsin Hale');
    await keys.tabTo(/^packed for this order/);
    await keys.press('Enter');
    await page.getByRole('cell', { name: 'Beeswax candles, pair' }).waitFor();
    await keys.tabTo(/^Ship what is ready · 2 lines$/);
    await keys.press('Enter');
    await visit.heading('What leaves now?');
    await keys.tabTo(/^Who takes it$/);
    await keys.type('Own van');
    await keys.press('Control+Enter');
    await visit.notice(/SH-\d+: O-\d+ is shipped. Everything has left./);
    await page.getByText('Everything has been shipped.').waitFor();
    expect(
      await application.one(
        `SELECT count(*) AS movements, sum(m.quantity) AS quantity FROM movement m JOIN document d ON d.id = m.document_id
         WHERE d.kind = 'shipment' AND d.id = (SELECT max(id) FROM document)`,
      ),
    ).toEqual({ movements: 4, quantity: -6e6 });
    expect(visit.faults).toEqual([]);
  });

  it('leave in part by mouse, and come back whole when that is undone', async () => {
    const { page } = visit;
    await page.getByRole('link', { name: /^Orders/ }).click();
    await visit.heading(/orders? can leave now/);
    await page.getByRole('navigation', { name: 'Orders', exact: true }).getByText('Alder Vale Apiaries').click();
    await visit.heading('Alder Vale Apiaries');
    await page.getByRole('button', { name: 'Ship what is ready · 2 lines' }).click();
    await page.getByLabel('Ship now of Feeder, 2 litre').fill('99');
    await page.getByLabel('Ship now of Beeswax candles, pair').fill('');
    await page.getByRole('button', { name: 'Ship 1 line' }).click();
    await page.getByText('Only 12 of this line is left to ship.').waitFor();
    await page.getByLabel('Ship now of Feeder, 2 litre').fill('5');
    await page.getByRole('button', { name: 'Ship 1 line' }).click();
    await visit.notice(/2 lines still open/);
    await page.getByText('partly shipped').first().waitFor();
    await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
    await visit.notice(/Undone by UN-/);
    await page.getByText('· confirmed ·').waitFor();
    expect(visit.faults).toEqual([]);
  });

  it('say while they are typed whom they delay, and are changed, given up with a reason and found', async () => {
    const { page } = visit;
    await page.goto('/orders?new=1');
    await page.getByLabel('For', { exact: true }).selectOption({ label: 'Quince & Sons' });
    await page.getByLabel('Wanted on').fill(dayIn(6));
    await page.getByRole('combobox', { name: 'Add an item' }).fill('candles');
    await page.getByRole('option', { name: /Beeswax/ }).click();
    await page.getByLabel('Quantity of Beeswax candles, pair').fill('30');
    const margin = page.getByRole('complementary', { name: 'What it comes to' });
    await margin.getByText('Whom it delays').waitFor();
    await margin.getByText('O-0006').waitFor();
    await page.getByLabel('Quantity of Beeswax candles, pair').fill('0');
    expect(await page.getByRole('button', { name: 'Confirm the order' }).isDisabled()).toBe(true);
    // What was typed outlives a reload.
    await page.getByLabel('Quantity of Beeswax candles, pair').fill('30');
    await page.reload();
    expect(await page.getByLabel('Quantity of Beeswax candles, pair').inputValue()).toBe('30');
    await page.getByRole('button', { name: 'Keep as a quote' }).click();
    await visit.notice(/is kept as a quote/);
    await page.getByRole('button', { name: 'Confirm the order' }).click();
    await visit.notice(/is confirmed; what it needs is promised/);
    await page.getByRole('link', { name: 'Change', exact: true }).click();
    await visit.heading(/^Change O-/);
    await page.getByLabel('Quantity of Beeswax candles, pair').fill('2');
    await page.getByLabel('Their reference').fill('Q-311');
    await page.getByRole('button', { name: 'Save the changes' }).click();
    await visit.notice(/is changed/);
    await page.getByText('their Q-311').waitFor();
    await page.getByRole('button', { name: 'Cancel the order…' }).click();
    await page.getByLabel('Why is it cancelled?').fill('They found some');
    await page.getByRole('button', { name: 'Cancel the order', exact: true }).click();
    await visit.notice(/is cancelled/);
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

  it('belong to customers, who are added once and keep what was typed when they are refused', async () => {
    const { page } = visit;
    await page.goto('/orders/customers?new=1');
    await page.getByLabel('Code', { exact: true }).fill('LARK');
    await page.getByLabel('Name').fill('Moor End');
    await page.getByLabel('Discount, %').fill('120');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByText('Type a value from 0 to 100.').waitFor();
    await page.getByLabel('Discount, %').fill('4');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByText(/LARK/).last().waitFor();
    expect(await page.getByLabel('Name').inputValue()).toBe('Moor End');
    await page.getByLabel('Code', { exact: true }).fill('MOOR');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await visit.heading('Moor End');
    await page.getByRole('link', { name: 'New order' }).click();
    await visit.heading('A new order');
    await expect
      .poll(() =>
        page
          .getByLabel('For', { exact: true })
          .evaluate((select) => (select as HTMLSelectElement).selectedOptions[0]?.text),
      )
      .toBe('Moor End');
    expect(visit.faults).toEqual([]);
  });
});
