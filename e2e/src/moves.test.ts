import { expect, test } from '@playwright/test';
import { Application, choose, chosen, Keyboard, scanLikeAWedge, tick, type Visit } from './harness.ts';

test.describe('stock that is elsewhere, or not there', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('moves by keyboard, several lines in one document', async () => {
    const { page } = visit;
    const keys = new Keyboard(page);
    await keys.goTo('Move goods', /What goes where/);
    for (const [code, name, quantity] of [
      ['GUIDE', 'First season guide', '4'],
      ['SCREW-40', 'Screw 4 × 40 mm', '1/2 box'],
    ] as const) {
      await keys.tabTo(/^Add an item$/);
      await keys.type(code);
      await keys.press('Enter');
      const amount = page.getByLabel(`Quantity of ${name}`);
      await expect.poll(() => amount.evaluate((input) => input === document.activeElement)).toBe(true);
      await keys.type(quantity);
      await choose(page.getByLabel(`Where ${name} goes`), 'B1 · Main store');
      await expect.poll(() => chosen(page.getByLabel(`Where ${name} comes from`))).toMatch(/ · /);
    }
    await page.getByLabel('Quantity of First season guide').fill('4000');
    await keys.press('Control+Enter');
    await page.getByText(/First season guide: 4,000 needed from D1/).waitFor();
    await page.getByLabel('Quantity of First season guide').fill('4');
    await keys.press('Control+Enter');
    await visit.heading(/TR-\d+ · Transfer/);
    expect(
      await application.one(
        'SELECT sum(quantity) AS n, sum(value) AS value FROM movement WHERE document_id = (SELECT max(id) FROM document)',
      ),
    ).toEqual({ n: 0, value: 0 });
    await page.getByRole('button', { name: 'Undo this posting' }).click();
    await visit.heading(/UN-\d+ · Undo/);
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('keeps lines that are typed while something is looked up elsewhere, until they are posted', async () => {
    const { page } = visit;
    await page.goto('/stock/move');
    await page.getByLabel('Add an item').fill('BRUSH');
    await page.getByLabel('Add an item').press('Enter');
    await page.getByLabel('Quantity of Bee brush').fill('3');
    await expect.poll(() => chosen(page.getByLabel('Where Bee brush comes from'))).toMatch(/ · /);
    await choose(page.getByLabel('Where Bee brush goes'), 'C1 · Main store');
    await page.getByRole('link', { name: 'Lots and serial numbers' }).click();
    await visit.heading(/expire|past/);
    await page.reload();
    await page.getByRole('button', { name: 'Receive, move, count' }).click();
    await page.getByRole('menuitem', { name: /^Move/ }).click();
    await visit.heading('1 line to move.');
    expect(await page.getByLabel('Quantity of Bee brush').inputValue()).toBe('3');
    await page.getByRole('button', { name: 'Move 1 line' }).click();
    await visit.heading(/TR-\d+ · Transfer/);
    await page.goto('/stock/move');
    await visit.heading('What goes where?');
    expect(visit.faults).toEqual([]);
  });

  test('moves by scan: a bin, what comes out of it, and the bin where it goes', async () => {
    const { page } = visit;
    const scan = (text: string) => scanLikeAWedge(page, text);
    await page.goto('/stock/move');
    const adder = page.getByLabel('Add an item');
    await expect.poll(() => adder.evaluate((input) => input === document.activeElement)).toBe(true);
    await scan('MAIN/A2');
    await page.getByText(/Out of A2 · Main store/).waitFor();
    await scan('HB-BRUSH');
    await page.getByText('1 line to move.').waitFor();
    await scan('HB-BRUSH');
    await expect.poll(() => page.getByLabel('Quantity of Bee brush').inputValue()).toBe('2');
    // Nothing can be moved before it is said where to.
    expect(await page.getByRole('button', { name: 'Move 1 line' }).isDisabled()).toBe(true);
    await page.getByRole('heading', { name: '1 line to move.' }).click();
    await scan('MAIN/C3');
    await expect.poll(() => chosen(page.getByLabel('Where Bee brush goes'))).toBe('C3 · Main store');
    await page.keyboard.press('Control+Enter');
    await visit.heading(/TR-\d+ · Transfer/);
    expect(
      await application.one(
        `SELECT sum(m.quantity) AS n, group_concat(b.code) AS bins FROM movement m JOIN bin b ON b.id = m.bin_id
         WHERE m.document_id = (SELECT max(id) FROM document) AND m.quantity > 0`,
      ),
    ).toEqual({ n: 2_000_000, bins: 'C3' });
    expect(visit.faults).toEqual([]);
  });

  test('is adjusted with a reason of the owner’s own, and says first what it comes to', async () => {
    const { page } = visit;
    await page.goto('/stock/adjust');
    await page.getByRole('combobox', { name: 'Add an item' }).fill('SUIT-M');
    await page.getByRole('option', { name: /Bee suit, medium/ }).click();
    await page.getByLabel('Found or gone of Bee suit, medium').fill('-1');
    await visit.heading(/Stock is worth €\d\d\.\d\d less after this/);
    await page.getByRole('button', { name: 'Add a reason…' }).click();
    await page.getByLabel('New reason').fill('Moths');
    await page.getByLabel('New reason').press('Enter');
    await expect.poll(() => chosen(page.getByLabel('Reason'))).toBe('Moths');
    await page.getByRole('button', { name: 'Adjust 1 line' }).click();
    await visit.heading(/AD-\d+ · Adjustment/);
    await page.getByText(/Moths/).first().waitFor();
    await page.getByText('Adjusted · Bee suit, medium').waitFor();
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('is counted blind, on a phone too, and approved by the owner', async () => {
    const { page } = visit;
    await page.goto('/stock/counts');
    await tick(page.getByRole('checkbox', { name: 'A4', exact: true }));
    await page.getByRole('button', { name: 'Start the count · 1 bin' }).click();
    await visit.heading('2 lines to count.');
    const path = new URL(page.url()).pathname;
    const bench = await application.open('Tom Birch', { width: 390, height: 800 });
    await bench.page.goto(path);
    await bench.heading('2 lines to count.');
    expect(await bench.page.getByRole('button', { name: /Approve/ }).isDisabled()).toBe(true);
    expect(await bench.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await bench.page.getByLabel('Counted Frame nails, 20 mm in A4').fill('500 g');
    await bench.page.getByLabel('Counted Frame nails, 20 mm in A4').press('Enter');
    await visit.heading('1 line to count.');
    await bench.page.getByLabel('Counted Screw 4 × 40 mm in A4').fill('much');
    await bench.page.getByLabel('Counted Screw 4 × 40 mm in A4').press('Enter');
    await bench.page.getByText('“much” is not a number').waitFor();
    await bench.page.getByLabel('Counted Screw 4 × 40 mm in A4').fill('1 box');
    await bench.page.getByLabel('Counted Screw 4 × 40 mm in A4').press('Enter');
    await visit.heading('Everything is counted.');
    await page.getByRole('button', { name: 'Differences' }).click();
    await visit.heading(/2 lines differ, €\d+\.\d\d less than in the books/);
    await page.getByRole('button', { name: 'Count Screw 4 × 40 mm in A4 again' }).click();
    await visit.heading(/1 line differs/);
    await page.getByRole('button', { name: 'Approve 1 line' }).click();
    await visit.heading(/CT-0001/);
    await page.getByRole('link', { name: 'document' }).click();
    await visit.heading(/CD-0001 · Count/);
    const stock =
      "SELECT sum(b.quantity) AS quantity FROM balance b JOIN item i ON i.id = b.item_id WHERE i.code = 'NAIL-20'";
    expect(await application.one(stock)).toEqual({ quantity: 500_000 });
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
    expect(bench.faults).toEqual([]);
    await bench.context.close();
  });

  test('is found by what, where, who and when, and looked at as it was', async () => {
    const { page } = visit;
    await page.goto('/stock/movements');
    await page.getByLabel('Text').fill('SUIT-M');
    await choose(page.getByLabel('Kind'), 'Adjustment');
    await choose(page.getByLabel('Who'), 'Mo Okafor');
    await expect.poll(() => page.getByRole('table').getByRole('row').count()).toBe(2);
    await expect.poll(() => page.url()).toMatch(/q=SUIT-M&kind=adjustment&person=1/);
    await choose(page.getByLabel('Who'), 'Tom Birch');
    await page.getByText('No movements match.').waitFor();
    await page.getByRole('button', { name: 'Clear filters' }).click();
    await expect.poll(() => page.url()).toMatch(/movements\?kind=adjustment$/);
    await expect.poll(() => page.getByLabel('Text').inputValue()).toBe('');
    await page.goto('/stock/on-a-day');
    await visit.heading(/stock was worth €/);
    const heading = () => page.getByRole('heading', { level: 1 }).textContent();
    const now = await heading();
    const chart = page.getByRole('img', { name: /Value of stock on \d+ days/ });
    const box = await chart.boundingBox();
    await chart.click({ position: { x: (box?.width ?? 0) / 2, y: 60 } });
    await expect.poll(() => page.url()).toMatch(/day=\d{4}-\d\d-\d\d/);
    await expect.poll(heading).not.toBe(now);
    const then = await heading();
    await page.getByLabel('Find an item').fill('oil');
    await page.getByRole('link', { name: 'Tung oil, pure' }).waitFor();
    expect(await heading()).toBe(then);
    expect(visit.faults).toEqual([]);
  });
});
