import { expect, test } from '@playwright/test';
import { Application, choose, chosen, find, type Visit } from './harness.ts';

test.describe('a company that writes as Germans do', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser, 'demo', 'de-DE');
    visit = await application.open();
  });
  test.afterAll(async () => {
    expect(await application.verify()).toEqual([]);
    await application.close();
  });

  test('types and reads decimal commas, in a price and in a quantity with its unit', async () => {
    const { page } = visit;
    await page.goto('/stock/items/12?edit=1');
    const price = page.getByLabel('Sell price');
    await price.fill('1.234,5');
    await page.getByLabel('Reorder point').fill('2.500');
    await page.getByText('Read as 2.500').waitFor();
    await page.getByLabel('Reorder point').fill('7,25');
    await price.focus();
    expect([await page.getByLabel('Reorder point').inputValue(), await price.inputValue()]).toEqual(['7,25', '1234,5']);
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await visit.heading('Beeswax, filtered');
    await page.getByText('1.234,50\u00a0€').waitFor();
    expect(await application.one('SELECT sell_price AS price, reorder_point AS point FROM item WHERE id = 12')).toEqual(
      {
        price: 1_234_500_000,
        point: 7_250_000,
      },
    );
    expect(visit.faults).toEqual([]);
  });

  test('types days in its order, and orders by them', async () => {
    const { page } = visit;
    await page.goto('/orders?new=1');
    await find(page.getByRole('combobox', { name: 'For', exact: true }), 'Quince & Sons');
    const day = page.getByLabel('Wanted on', { exact: true });
    const year = new Date().getFullYear() + 1;
    await day.fill(`9.3.${year}`);
    await day.press('Tab');
    expect(await day.inputValue()).toBe(`09.03.${year}`);
    await page.getByRole('combobox', { name: 'Add an item' }).fill('candles');
    await page.getByRole('option', { name: /Beeswax/ }).click();
    await page.getByLabel('Unit price of Beeswax candles, pair').fill('6,90');
    await page.getByRole('button', { name: 'Save as quote' }).click();
    await visit.notice(/saved as a quote/);
    await page.getByText('6,90\u00a0€').first().waitFor();
    expect(
      await application.one(
        'SELECT o.wanted_on, price FROM sales_order o JOIN order_line l ON l.order_id = o.id ORDER BY o.id DESC LIMIT 1',
      ),
    ).toEqual({ wanted_on: `${year}-03-09`, price: 6_900_000 });
    expect(visit.faults).toEqual([]);
  });

  test('brings in a file with semicolons and decimal commas', async () => {
    const { page } = visit;
    await page.goto('/stock/in-out');
    const rows = [
      'Artikel;Bezeichnung;Einheit;Preis',
      'PEG-OAK;Holznagel, Eiche;each;1,25',
      'PEG-ASH;Holznagel, Esche;each;1.250,00',
    ];
    await page
      .getByLabel('File of items')
      .setInputFiles({ name: 'Artikel.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\r\n')) });
    for (const [column, means] of [
      ['Artikel', 'Code'],
      ['Bezeichnung', 'Name'],
      ['Einheit', 'Unit'],
      ['Preis', 'Sell price'],
    ] as const) {
      const choice = page.getByLabel(`“${column}” is read as`);
      if ((await chosen(choice)) !== means) await choose(choice, means);
      await expect.poll(() => chosen(choice)).toBe(means);
      await page.getByRole('button', { name: /^Import \d/ }).waitFor();
    }
    await page.getByRole('button', { name: 'Import 2 rows' }).click();
    await visit.notice('2 records added, 0 changed.');
    expect(
      await application.one(
        "SELECT group_concat(sell_price) AS prices FROM (SELECT sell_price FROM item WHERE code LIKE 'PEG-%' ORDER BY code)",
      ),
    ).toEqual({ prices: '1250000000,1250000' });
    expect(visit.faults).toEqual([]);
  });
});
