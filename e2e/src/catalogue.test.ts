import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { Application, choose, tick, type Visit } from './harness.ts';

const csv = (rows: readonly string[]) => ({
  name: 'catalogue.csv',
  mimeType: 'text/csv',
  buffer: Buffer.from(rows.join('\n')),
});

test.describe('a catalogue', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());
  const chooseFile = (kind: string, rows: readonly string[]) =>
    visit.page.getByLabel(`File of ${kind}`).setInputFiles(csv(rows));

  test('an item keeps packs, a supplier, fields and a picture; what is refused shows where it was typed', async () => {
    const { page } = visit;
    await page.goto('/stock/items/20?edit=1');
    await page.getByLabel('Barcode').fill('4006381333932');
    await page.getByRole('button', { name: '+ Pack' }).click();
    await page.getByLabel('Name of pack 2').fill('crate');
    await page.getByLabel('Size of pack 2').fill('1.5');
    await page.getByRole('button', { name: '+ Field' }).click();
    await page.getByLabel('Name of field 1').fill('Colour');
    await page.getByLabel('Value of field 1').fill('clear');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await page.getByText('its last digit would have to be 1').waitFor();
    expect(await page.getByLabel('Value of field 1').inputValue()).toBe('clear');
    await page.getByLabel('Barcode').fill('4006381333931');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await page.getByText('“1.5” has decimals, but this unit has none.').waitFor();
    await page.getByLabel('Size of pack 2').fill('96');
    const drawing = await page.screenshot({ clip: { x: 0, y: 0, width: 600, height: 300 } });
    await page.getByLabel('Picture file').setInputFiles({ name: 'jar.png', mimeType: 'image/png', buffer: drawing });
    await page.getByRole('button', { name: 'Change picture…' }).waitFor();
    await page
      .getByLabel('Picture file')
      .setInputFiles({ name: 'jar.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
    await page.getByText('This file isn’t a picture Yosegi can read').waitFor();
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await visit.heading('Tasting jar, 125 ml');
    await page.getByText('GTIN').waitFor();
    await page.getByText('1 crate').waitFor();
    expect(await page.locator('img.tile').first().getAttribute('src')).toMatch(/\/api\/items\/20\/picture\?v=/);
    expect(visit.faults).toEqual([]);
  });

  test('units are added, and no decimals are lost that a quantity needs', async () => {
    const { page } = visit;
    await page.goto('/stock/places');
    await page.getByRole('button', { name: '+ Unit' }).click();
    await page.getByLabel('Code of new unit').fill('roll');
    await page.getByLabel('Name of new unit').fill('roll of felt');
    await page.getByLabel('What may be typed instead of new unit').fill('half = 0.5');
    await page.getByRole('button', { name: 'Add unit' }).click();
    await page.getByLabel('Name of roll').waitFor();
    await choose(page.getByLabel('Decimals of kg'), '1 decimal');
    await page.getByRole('button', { name: 'Save kg' }).click();
    await page.getByText(/has a quantity of .*, which would not fit. Nothing is rounded/).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('what a file would do is seen row by row; refused rows keep all of it out', async () => {
    const { page } = visit;
    await page.goto('/stock/in-out');
    const rows = [
      'SKU;Description;UoM;Price;Finish',
      'PEG-1;Oak peg;each;1,25;oiled',
      'PEG-2;Ash peg;crate;1,15;raw',
      'BROOD-C;Brood box, cedar;each;;',
    ];
    await chooseFile('items', rows);
    await visit.heading('1 row can’t be imported.');
    await page.getByText('CSV, semicolon, UTF-8').waitFor();
    await page.getByText(/“crate” is not a stock unit. There are each, kg/).waitFor();
    expect(await page.getByRole('button', { name: /^Import \d/ }).isDisabled()).toBe(true);
    await page.getByRole('button', { name: 'Cancel; nothing is imported' }).click();
    await chooseFile(
      'items',
      rows.map((row) => row.replace('crate', 'each')),
    );
    await visit.heading('2 new, 0 changed, 1 the same. Nothing is refused.');
    await choose(page.getByLabel('“Finish” is read as'), 'a custom field: Finish');
    await visit.heading('2 new, 0 changed, 1 the same. Nothing is refused.');
    await page.getByRole('button', { name: 'Import 2 rows' }).click();
    await visit.heading('Import finished: 2 rows new, 0 changed, 1 the same as before.');
    const peg = "SELECT i.sell_price, f.value FROM item i JOIN item_field f ON f.item_id = i.id WHERE i.code = 'PEG-1'";
    expect(await application.one(peg)).toEqual({ sell_price: 1_250_000, value: 'oiled' });
    await page.goto('/stock/in-out');
    await page
      .getByLabel('File of bills of materials')
      .setInputFiles({ name: 'bom.xlsx', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.7 x') });
    await visit.heading('bom.xlsx can’t be imported.');
    await page.getByText('This is a PDF, whatever its name says').waitFor();
    await page.getByRole('button', { name: 'Choose another file' }).click();
    await page.getByLabel('File of items').evaluate((input: HTMLInputElement) => {
      const files = new DataTransfer();
      files.items.add(new File([new Uint8Array(33 * 1024 * 1024)], 'huge.csv'));
      input.files = files.files;
      input.dispatchEvent(new Event('change', { bubbles: true }));
    });
    await page.getByText(/huge.csv has 33 MB; the limit is 32 MB/).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('every export comes back in without a change', async () => {
    // Eight files, each read and compared.
    test.slow();
    const { page } = visit;
    await page.goto('/stock/in-out');
    for (const [index, kind] of ['items', 'suppliers’ prices', 'opening stock', 'bills of materials'].entries()) {
      for (const format of ['CSV', 'XLSX']) {
        const [download] = await Promise.all([
          page.waitForEvent('download'),
          page.getByRole('link', { name: format, exact: true }).nth(index).click(),
        ]);
        const buffer = readFileSync(await download.path());
        const name = download.suggestedFilename();
        expect(name).toMatch(/^yosegi-(items|prices|stock|definitions)-\d{4}-\d\d-\d\d\.(csv|xlsx)$/);
        await page
          .locator('input[type=file]')
          .nth(index)
          .setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
        await visit.heading('The file holds nothing new; nothing would change.');
        await page.getByRole('button', { name: 'Cancel; nothing is imported' }).click();
        expect(kind).toBeTruthy();
      }
    }
    expect(visit.faults).toEqual([]);
  });

  test('20,000 rows come in with their progress shown, can be stopped, and are then listed without drawing them all', async () => {
    const { page } = visit;
    const many = [
      'Code,Name,Sell price',
      ...Array.from({ length: 20_000 }, (_, n) => `MANY-${String(n).padStart(5, '0')},Item number ${n},${n % 97}.5`),
    ];
    await page.goto('/stock/in-out');
    await chooseFile('items', many);
    await visit.heading('20000 new, 0 changed, 0 the same. Nothing is refused.');
    await page.getByRole('button', { name: 'Import 20000 rows' }).click();
    await page.getByRole('button', { name: 'Stop; nothing is imported' }).click();
    await visit.heading('Import your catalogue, or export it.');
    await expect
      .poll(() => application.one("SELECT count(*) AS n FROM item WHERE code LIKE 'MANY-%'"))
      .toEqual({ n: 0 });
    await chooseFile('items', many);
    await page.getByRole('button', { name: 'Import 20000 rows' }).click();
    await visit.heading(/Importing \d+ of 20000/);
    await visit.heading('Import finished: 20000 rows new, 0 changed, 0 the same as before.');
    await page.getByRole('link', { name: 'See the records' }).click();
    await visit.heading(/200\d\d items/);
    const rows = page.locator('[data-row]');
    await rows.first().waitFor();
    expect(await rows.count()).toBeLessThan(60);
    const list = page.getByLabel('Items', { exact: true }).last();
    for (let page10 = 0; page10 < 5; page10 += 1) {
      const before = await list.evaluate((frame) => frame.scrollHeight);
      await list.evaluate((frame) => frame.scrollTo(0, frame.scrollHeight));
      await expect.poll(() => list.evaluate((frame) => frame.scrollHeight)).toBeGreaterThan(before);
    }
    expect(await rows.count()).toBeLessThan(60);
    await page.getByLabel('Find an item').fill('number 19998');
    await page.getByRole('link', { name: 'Item number 19998' }).waitFor();
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('the list keeps its filter, order and columns in the address, and under a name', async () => {
    const { page } = visit;
    await page.goto('/stock/items');
    await choose(page.getByLabel('Which items'), 'In stock');
    await page
      .getByRole('button', { name: 'Sort by Value' })
      .or(page.getByRole('button', { name: 'Columns' }))
      .first()
      .waitFor();
    await page.getByRole('button', { name: 'Columns' }).click();
    await tick(page.getByRole('checkbox', { name: 'Value' }));
    await page.getByRole('button', { name: 'Sort by Value' }).click();
    await expect.poll(() => page.url()).toMatch(/show=in-stock.*cols=.*value.*sort=value&down=1/);
    const first = page.locator('[data-row]').first();
    await expect.poll(() => first.textContent()).toMatch(/€[\d,]{4,}/);
    const dearest = (await first.textContent()) ?? '';
    await page.getByRole('button', { name: 'Save this filter' }).click();
    await page.getByLabel('Name of the filter').fill('Dearest');
    await page.getByLabel('Name of the filter').press('Enter');
    await page.getByRole('button', { name: 'Forget “Dearest”' }).waitFor();
    const url = page.url();
    await page.goto('/stock/items');
    await choose(page.getByLabel('Saved filters'), 'Dearest');
    await expect.poll(() => page.url()).toBe(url);
    await expect.poll(() => first.textContent()).toBe(dearest);
    await page.locator('[data-row] a').first().focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.getByText('moving average').waitFor();
    await page.getByRole('link', { name: 'Full list' }).click();
    await expect.poll(() => page.url()).toBe(url);
    await page.goto('/stock/items/1?view=effect');
    await page.getByLabel('Unit cost').fill('150');
    await visit.heading('If the cost changed: 1 product, 1 below cost.');
    expect(visit.faults).toEqual([]);
  });
});
