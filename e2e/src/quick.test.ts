import { expect, test } from '@playwright/test';
import { Application, find, paste, type Visit } from './harness.ts';

test.describe('a quick hand', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('types item and quantity in one go, and goes on before the answer is there', async () => {
    const { page } = visit;
    await page.goto('/cover');
    await page.getByLabel('Add a product').focus();
    for (const keys of ['30 HIVE-10', 'Enter', 'Enter', 'FEED-2L', 'Enter', '7', 'Enter'])
      await (keys === 'Enter' ? page.keyboard.press('Enter') : page.keyboard.type(keys));
    await expect(page.getByLabel('Quantity of Ten-frame hive, cedar')).toHaveValue('30');
    await expect(page.getByLabel('Quantity of Feeder, 2 litre')).toHaveValue('7');
    await expect(page.getByLabel('Add a product')).toBeFocused();
    await expect(page.getByLabel('Add a product')).toHaveValue('');
    await page.goto('/stock/receive');
    await page.getByLabel('Add an item').fill('FEED-2L 12');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Quantity of Feeder, 2 litre')).toHaveValue('12');
    await expect(page.getByLabel('Quantity of Feeder, 2 litre')).toBeFocused();
    // The only one that is found is meant.
    await page.goto('/stock/move');
    await page.getByLabel('Add an item').fill('twist lid');
    await page.keyboard.press('Enter');
    await page.getByLabel('Quantity of Twist lid, 58 mm').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('goes on by Tab, through fields that are only asked for once the answer is there', async () => {
    const { page } = visit;
    await page.goto('/build/repairs?new=1');
    let answer = () => {};
    const asked = new Promise<void>((resolve) => {
      answer = resolve;
    });
    await page.route('**/api/items?*', async (route) => {
      await asked;
      await route.continue();
    });
    await page.getByLabel('Item').focus();
    for (const keys of ['SCALE-1', 'Enter', 'Tab', 'OLD-77', 'Tab', 'Shows nothing', 'Tab', 'Charger'])
      await (['Enter', 'Tab'].includes(keys) ? page.keyboard.press(keys) : page.keyboard.type(keys));
    answer();
    await expect(page.getByLabel('Accessories')).toHaveValue('Charger');
    await expect(page.getByLabel('Problem')).toHaveValue('Shows nothing');
    await expect(page.getByLabel(/^Serial number/)).toHaveValue('OLD-77');
    await page.unroute('**/api/items?*');
    expect(visit.faults).toEqual([]);
  });

  test('pastes rows of a spreadsheet wherever lines are typed, with what they cost', async () => {
    const { page } = visit;
    const rows = 'Item\tQty\tUnit price\nSCREW-40\t12\t0.45\nno such thing\t3\t1';
    await page.goto('/stock/receive');
    await paste(page.getByLabel('Add an item'), rows);
    await expect(page.getByLabel('Quantity of Screw 4 × 40 mm')).toHaveValue('12');
    await expect(page.getByLabel('Unit cost of Screw 4 × 40 mm')).toHaveValue('0.45');
    const unplaced = page.getByRole('region', { name: 'Pasted rows to match' });
    await unplaced.getByText('no such thing').waitFor();
    await find(unplaced.getByRole('combobox'), 'Twist lid, 58 mm');
    await expect(page.getByLabel('Quantity of Twist lid, 58 mm')).toHaveValue('3');
    for (const path of ['/stock/move', '/stock/adjust', '/buying/orders?new=1']) {
      await page.goto(path);
      await paste(page.getByLabel('Add an item'), 'FEED-2L\t12');
      const line = page.getByRole('row').filter({ hasText: 'Feeder, 2 litre' });
      await expect(line.locator('input.num').first()).toHaveValue(/12/);
    }
    expect(visit.faults).toEqual([]);
  });

  test('is offered the order that was left, and never finds it opened again by itself', async () => {
    const { page } = visit;
    await page.goto('/orders');
    await visit.heading(/can ship now/);
    await page.keyboard.press('Alt+n');
    await visit.heading('A new order');
    const customer = page.getByRole('combobox', { name: 'For', exact: true });
    await expect(customer).toBeFocused();
    await page.keyboard.type('larkfield');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Add an item')).toBeFocused();
    await page.keyboard.type('3 FEED-2L');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Quantity of Feeder, 2 litre')).toHaveValue('3');
    // A reload is no new order.
    await page.reload();
    await expect(page.getByLabel('Quantity of Feeder, 2 litre')).toHaveValue('3');
    await page.getByRole('link', { name: /^Cover/ }).click();
    await visit.answer('Leave, and save it for later');
    await page.getByRole('link', { name: /^Orders/ }).click();
    await page.getByRole('link', { name: 'Enter an order' }).click();
    await visit.heading('You started an order for Larkfield Allotments.');
    await page.getByRole('button', { name: 'Continue the order for Larkfield Allotments' }).click();
    await expect(page.getByLabel('Quantity of Feeder, 2 litre')).toHaveValue('3');
    await page.getByRole('link', { name: /^Cover/ }).click();
    await visit.answer('Leave, and save it for later');
    await page.getByRole('link', { name: /^Orders/ }).click();
    await page.getByRole('link', { name: 'Enter an order' }).click();
    await page.getByRole('button', { name: 'Start new order' }).click();
    await expect(customer).toHaveValue('');
    // A customer nobody knows is added on the way.
    await customer.fill('Moss & Fern');
    await page.getByRole('option', { name: /New customer/ }).click();
    await page.getByRole('dialog', { name: 'New customer' }).getByLabel('Email').fill('hello@mossfern.example');
    await page.keyboard.press('Enter');
    await expect(customer).toHaveValue('Moss & Fern · MOSS-FERN');
    expect(visit.faults).toEqual([]);
  });

  test('loses no screen to a part of it that cannot be fetched', async () => {
    const { page } = visit;
    await page.goto('/today');
    await visit.heading(/Ready to start/);
    await page.route(/\/assets\/(Palette|KeysHelp)/, (route) => route.abort());
    await page.keyboard.press('Control+k');
    await page.getByText('This screen can’t be loaded right now. Trying again…').waitFor();
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible();
    await page.unroute(/\/assets\/(Palette|KeysHelp)/);
    await page.getByRole('dialog', { name: 'Find or do' }).waitFor();
  });

  test('finds no button beneath what was said at the foot of the screen', async () => {
    const { page } = visit;
    await page.goto('/stock/items/32?edit=1');
    await page.getByLabel('Note').fill('Two pages');
    await page.keyboard.press('Control+Enter');
    await visit.notice(/saved/);
    for (const station of ['Cover', 'Define', 'Orders']) {
      await page.getByRole('link', { name: new RegExp(`^${station}`) }).click();
      await visit.loaded();
      await expect
        .poll(() =>
          page.evaluate(() => {
            const over = document.querySelector('[aria-label="Messages"]');
            return [...document.querySelectorAll('#main :is(button, input)')].filter((one) => {
              const { left, top, width, height } = one.getBoundingClientRect();
              const seen = document.elementFromPoint(left + width / 2, top + height / 2);
              return seen !== null && over?.contains(seen);
            }).length;
          }),
        )
        .toBe(0);
      await expect(visit.notices.first()).toBeVisible();
    }
  });

  test('finds whatever has a name or number, settings and keys by Ctrl K, in any order of words', async () => {
    const { page } = visit;
    await page.goto('/today');
    await visit.heading(/Ready to start/);
    for (const [asked, shows] of [
      ['SC-0003', /SC-0003 · Hive scale/],
      ['RT-0006', /RT-0006/],
      ['scale RP-0003', /RP-0003/],
      ['WS-0001', /Juna Keel · O-0116/],
      ['winter fair', /Winter fair/],
      ['currency', /Company and people/],
      ['custmers', /^→?Customers/],
      ['shortcuts', /Keys of this screen/],
      ['cedar hive', /Ten-frame hive, cedar/],
    ] as const) {
      await page.keyboard.press('Control+k');
      await page.getByRole('searchbox', { name: 'Find or do' }).fill(asked);
      await page.getByRole('menuitem').filter({ hasText: shows }).first().waitFor();
      await page.keyboard.press('Escape');
    }
    await page.keyboard.press('Control+k');
    await page.getByRole('searchbox', { name: 'Find or do' }).fill('SC-0003');
    await page.getByRole('menuitem').filter({ hasText: 'SC-0003 · Hive scale' }).first().click();
    await visit.heading('Hive scale, SC-0003');
    expect(visit.faults).toEqual([]);
  });
});
