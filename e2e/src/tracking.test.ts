import { expect, test } from '@playwright/test';
import { Application, choose, chosen, tick, type Visit } from './harness.ts';

test.describe('lots and serials', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('come in by a scanned label; a clash is told while typing, and one key takes the next free block', async () => {
    const { page } = visit;
    const barcode = await application.one<{ barcode: string }>("SELECT barcode FROM item WHERE code = 'SCALE-1'");
    await page.goto('/stock/receive');
    const adder = page.getByLabel('Add an item');
    // What a scanner types for a GS1 label: GTIN and serial.
    await adder.fill(`]d2010${barcode?.barcode}21SC-0500`);
    await adder.press('Enter');
    const serials = page.getByLabel('Serial numbers of Hive scale');
    await expect.poll(() => serials.inputValue()).toBe('SC-0500');
    await serials.fill('SC-0001..0003');
    await page.getByText('SC-0001 is in stock: Main store, B3, and 2 more.').waitFor();
    await expect.poll(() => page.getByLabel('Quantity of Hive scale').inputValue()).toBe('3');
    await serials.press('F2');
    await expect.poll(() => serials.inputValue()).toMatch(/^SC-\d{4}\.\.\d{4}$/);
    await page.getByText('is in stock').waitFor({ state: 'detached' });
    await serials.press('Control+Enter');
    await visit.heading(/RC-\d+ · Receipt/);
    expect(await page.getByRole('table').first().getByRole('row').count()).toBe(4);
    expect(visit.faults).toEqual([]);
  });

  test('a lot keeps its day: another one is refused at its field, with everything typed still there', async () => {
    const { page } = visit;
    await page.goto('/stock/receive');
    await page.getByLabel('Add an item').fill('WAX-F');
    await page.getByLabel('Add an item').press('Enter');
    await page.getByLabel('Quantity of Beeswax').fill('4500 g');
    await page.getByLabel('Quantity of Beeswax').press('Enter');
    await page.getByLabel('Unit cost of Beeswax').press('Enter');
    await page.keyboard.type('WX-006');
    await page.keyboard.press('Enter');
    await page.getByLabel('Best-before day of Beeswax').fill('2031-01-31');
    await page.getByRole('button', { name: 'Receive 1 line' }).click();
    await page.getByText(/Lot WX-006 already exists, best before/).waitFor();
    await page.getByLabel('Best-before day of Beeswax').fill('');
    await page.getByRole('button', { name: 'Receive 1 line' }).click();
    await visit.heading(/RC-\d+ · Receipt/);
    await page.getByRole('cell', { name: 'WX-006' }).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('are held with a reason and released by an owner', async () => {
    const { page } = visit;
    await page.goto('/stock/lots');
    await visit.heading(/1 lot is past its date, 2 lots expire within 30 days/);
    await tick(page.getByLabel(/Choose HE-000/));
    await page.getByRole('button', { name: 'Hold or release…' }).click();
    await choose(page.getByLabel('Reason for hold'), 'Doubtful quality');
    await page.getByRole('button', { name: 'Hold 1 lot' }).click();
    await page
      .getByRole('row', { name: /HE-000/ })
      .getByText('Doubtful quality')
      .waitFor();
    const bench = await application.open('Tom Birch');
    await bench.page.goto('/stock/lots?show=held');
    await tick(bench.page.getByLabel(/Choose HE-000/));
    await bench.page.getByRole('button', { name: 'Hold or release…' }).click();
    await bench.page.getByText('An owner releases what is held.').waitFor();
    await bench.context.close();
    await tick(page.getByLabel(/Choose WX-023/));
    await page.getByRole('button', { name: 'Hold or release…' }).click();
    await page.getByRole('button', { name: 'Release 2 lots' }).click();
    await page.getByText('Doubtful quality').waitFor({ state: 'detached' });
    await choose(page.getByLabel('Which lots'), 'Held');
    await expect.poll(() => page.getByRole('row').count()).toBe(2);
    expect(visit.faults).toEqual([]);
  });

  test('are picked the first to expire first, unless an owner says otherwise', async () => {
    const { page } = visit;
    await page.goto('/stock/receive');
    await page.getByLabel('Add an item').fill('WICK-3');
    await page.getByLabel('Add an item').press('Enter');
    await page.getByLabel('Quantity of Candle wick').fill('50');
    await page.getByRole('button', { name: 'Receive 1 line' }).click();
    await visit.heading(/RC-\d+ · Receipt/);
    const build = await application.one<{ id: number }>(
      "SELECT b.id FROM build b JOIN item i ON i.id = b.item_id WHERE i.code = 'CANDLE-2' AND b.state = 'planned'",
    );
    await page.goto(`/build/${build?.id}`);
    await page
      .getByRole('button', { name: /to bench/ })
      .first()
      .click();
    await page.getByRole('link', { name: 'Pick its parts' }).click();
    await visit.heading(/1 line to pick/);
    const lot = page.getByLabel('Lot of Beeswax, filtered');
    await expect.poll(() => chosen(lot)).toMatch(/first to expire: WX-006/);
    await choose(lot, /WX-023/);
    await page.getByRole('button', { name: 'Bring 1 line to the bench' }).click();
    await page.getByText(/Lot WX-006 in K3 is best before .* so it goes first/).waitFor();
    await page.getByRole('button', { name: 'Take it anyway…' }).click();
    await page.getByLabel(/^Reason/).fill('The customer asked for the pale one');
    await page.getByRole('button', { name: 'Take it anyway', exact: true }).click();
    await visit.heading(/Everything for B-\d+ is picked/);
    expect(visit.faults).toEqual([]);
  });

  test('a product is finished with its own serials and taken apart by the one that is named', async () => {
    const { page } = visit;
    const build = await application.one<{ id: number }>(
      "SELECT b.id FROM build b JOIN item i ON i.id = b.item_id WHERE i.code = 'SCALE-1' AND b.state = 'on-bench' AND b.repair_id IS NULL",
    );
    await page.goto(`/build/${build?.id}/finish`);
    await page.getByRole('button', { name: 'Finish 2' }).click();
    await page.getByText('Hive scale is tracked by serial number: 2 are needed here and 0 given.').waitFor();
    const serials = page.getByLabel('Serial numbers of Hive scale');
    await serials.press('F2');
    await expect(serials).not.toHaveValue('');
    const [first] = (await serials.inputValue()).split('..');
    await page.getByRole('button', { name: 'Finish 2' }).click();
    await page.getByText(/are in stock/).waitFor();
    const item = await application.one<{ id: number }>("SELECT id FROM item WHERE code = 'SCALE-1'");
    await page.goto(`/take-apart/stock?item=${item?.id}`);
    await page.getByRole('button', { name: first ?? '', exact: true }).click();
    await expect.poll(() => page.url()).toContain(`serials=${first}`);
    // Until the parts are those of the piece that was named, nothing is posted.
    await page.getByText(/By what actually went in with B-/).waitFor();
    await page.getByRole('button', { name: 'Take 1 apart' }).click();
    await page.getByText(/back in parts/).waitFor();
    await page.goto(`/stock/items/${item?.id}?view=serials`);
    await page.getByLabel('Find a serial').fill(first ?? '');
    await page.getByRole('cell', { name: /left with TA-/ }).waitFor();
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });
});
