import { expect, test } from '@playwright/test';
import { Application, choose, scanLikeAWedge, type Visit } from './harness.ts';

test.describe('devices', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('print labels of what came, after a look at them', async () => {
    const { page } = visit;
    const finish = await application.one<{ id: number }>(
      `SELECT max(m.document_id) AS id FROM movement m JOIN document d ON d.id = m.document_id
       WHERE m.serial_id IS NOT NULL AND m.quantity > 0 AND d.kind = 'finish'`,
    );
    await page.goto(`/stock/documents/${finish?.id}`);
    await page.getByRole('button', { name: 'Print labels' }).click();
    await visit.notice(/1 label/);
    await page.getByRole('link', { name: 'Open printer' }).click();
    await visit.heading(/What FN-\d+ brought/);
    await page.getByRole('img', { name: /Barcode \(01\)\d{14}\(21\)SC-\d+/ }).waitFor();
    const [sheet] = await Promise.all([
      visit.context.waitForEvent('page'),
      page.getByRole('button', { name: 'Print 1 label' }).click(),
    ]);
    expect(sheet.url()).toMatch(/labels\.pdf$/);
    await sheet.close();
    await page.getByRole('button', { name: 'Print again' }).waitFor();
    await page.getByText('Nothing to print.').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('the scanner’s stand-in sends GS1 labels and bins to another open screen', async () => {
    const { page, context } = visit;
    await page.goto('/stock/move');
    await visit.heading('What goes where?');
    const scanner = await context.newPage();
    await scanner.goto('/devices/scanner');
    await scanner.getByRole('button', { name: /^What goes where/ }).waitFor();
    const scan = scanner.getByRole('button', { name: /^Scan/ });
    await choose(scanner.getByLabel('or a bin'), 'B3 · Main store');
    await scan.click();
    await page.getByText(/Out of B3 · Main store/).waitFor();
    await scanner.getByRole('combobox', { name: 'An item' }).fill('SCALE-1');
    await scanner.getByRole('combobox', { name: 'An item' }).press('Enter');
    await scanner.getByLabel('Serial (21)').fill('SC-0002');
    await expect.poll(() => scanner.getByLabel('Scanned text').inputValue()).toMatch(/^\]C101\d{14}21SC-0002$/);
    await scan.click();
    await expect.poll(() => page.getByLabel('Serial numbers of Hive scale').inputValue()).toBe('SC-0002');
    await scanner.getByLabel('Serial (21)').fill('SC-0001');
    await scan.click();
    await expect.poll(() => page.getByLabel('Quantity of Hive scale').inputValue()).toBe('2');
    await choose(scanner.getByLabel('or a bin'), 'C3 · Main store');
    await scan.click();
    await scanner.getByText('Entered in the selected field.').waitFor();
    await page.getByRole('button', { name: 'Move 1 line' }).click();
    await visit.heading(/TR-\d+ · Transfer/);
    expect(await page.getByRole('cell', { name: 'SC-0001' }).count()).toBe(2);
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('a separator of GS1 data, sent as Ctrl and ], reaches the field', async () => {
    const { page } = visit;
    await page.goto('/stock/receive');
    const adder = page.getByLabel('Add an item');
    await adder.focus();
    await page.keyboard.insertText(']C110AB-7');
    await page.keyboard.press('Control+]');
    await page.keyboard.insertText('21S-9');
    expect(await adder.inputValue()).toBe(']C110AB-7\u001d21S-9');
  });

  test('a scanner guides the phone through its picks: the right bin, the right thing', async () => {
    const phone = await application.open('Tom Birch', { width: 390, height: 800 });
    const { page } = phone;
    const scan = (text: string) => scanLikeAWedge(page, text);
    const build = await application.one<{ id: number }>(
      "SELECT b.id FROM build b JOIN item i ON i.id = b.item_id WHERE i.code = 'FEED-2L' AND b.state = 'on-bench'",
    );
    await page.goto(`/pick/${build?.id}`);
    await page.getByRole('button', { name: 'Start picking' }).click();
    const card = page.getByRole('region', { name: /^Pick / });
    const name = ((await card.getAttribute('aria-label')) ?? '').replace('Pick ', '');
    const item = await application.one<{ code: string; bin: string }>(
      `SELECT i.code, s.code || '/' || b.code AS bin FROM item i JOIN bin b ON b.id = i.home_bin_id JOIN store s ON s.id = b.store_id
       WHERE i.name = '${name}'`,
    );
    await scan('HB-GUIDE');
    await card.getByText(/^That is .*\. You need /).waitFor();
    await scan('COLD/K1');
    await card.getByText(`That is bin K1. You need ${name}`).waitFor();
    await scan(item?.bin ?? '');
    await card.getByText(/Here it is:/).waitFor();
    await scan(`HB-${item?.code}`);
    await card.getByText('That is the right one.').waitFor();
    await card.getByRole('button', { name: /^Picked 14 from/ }).click();
    await phone.heading('Everything is picked.');
    expect(phone.faults).toEqual([]);
    await phone.context.close();
  });
});
