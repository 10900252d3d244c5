import { expect, test } from '@playwright/test';
import { Application, choose, tick, type Visit } from './harness.ts';

// What cannot be taken back is asked for once, with what depends on it.
test.describe('what cannot be taken back', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(async () => {
    expect(visit.faults).toEqual([]);
    expect(await application.verify()).toEqual([]);
    await application.close();
  });
  const asked = (text: RegExp | string) => visit.page.getByRole('alertdialog').getByText(text).first().waitFor();
  const stateOf = async (table: 'build' | 'revision' | 'sales_order', id: number) =>
    (await application.one<{ state: string }>(`SELECT state FROM ${table} WHERE id = ${id}`))?.state;

  test('a build that an order counts on is cancelled only once the order was named', async () => {
    const { page } = visit;
    const build = await application.one<{ id: number; number: string }>(
      `SELECT b.id, o.number FROM build b JOIN build_for f ON f.build_id = b.id JOIN order_part p ON p.id = f.part_id
       JOIN order_line l ON l.id = p.line_id JOIN sales_order o ON o.id = l.order_id WHERE b.state = 'planned'`,
    );
    const id = build?.id ?? 0;
    await page.goto(`/build/${id}`);
    await page.getByRole('button', { name: 'Cancel the build…' }).click();
    await asked('1 order counts on it:');
    await asked(build?.number ?? 'the order');
    await page.keyboard.press('Escape');
    expect(await stateOf('build', id)).toBe('planned');
    await page.getByRole('button', { name: 'Cancel the build…' }).click();
    await page.keyboard.press('Enter');
    // Enter without looking keeps it.
    await page.getByRole('alertdialog').waitFor({ state: 'detached' });
    expect(await stateOf('build', id)).toBe('planned');
    await page.getByRole('button', { name: 'Cancel the build…' }).click();
    await visit.answer('Cancel the build');
    await expect.poll(() => stateOf('build', id)).toBe('cancelled');
  });

  test('a build that is partly finished is stopped only once that was seen', async () => {
    const { page } = visit;
    const build = await application.one<{ id: number }>(
      "SELECT id FROM build WHERE state = 'on-bench' AND finished > 0 AND repair_id IS NULL",
    );
    await page.goto(`/build/${build?.id}`);
    await page.getByRole('button', { name: /^Stop at 1 finished…/ }).click();
    await asked(/won’t be made/);
    await visit.answer('Keep the build');
    expect(await stateOf('build', build?.id ?? 0)).toBe('on-bench');
  });

  test('a revision is retired only once one has seen what that means', async () => {
    const { page } = visit;
    const used = await application.one<{ id: number; definition: number }>(
      `SELECT r.id, r.definition_id AS definition FROM revision r JOIN build b ON b.revision_id = r.id
       WHERE r.state = 'in-use' AND b.state = 'planned'`,
    );
    await page.goto(`/define/${used?.definition}`);
    await page.getByRole('button', { name: 'Retire…' }).click();
    await asked(/open build.* took it and keep/);
    await visit.answer('Keep revision 1 in use');
    expect(await stateOf('revision', used?.id ?? 0)).toBe('in-use');
    await page.getByRole('button', { name: 'Retire…' }).click();
    await visit.answer('Retire revision');
    await expect.poll(() => stateOf('revision', used?.id ?? 0)).toBe('retired');
  });

  test('an order is cancelled for a reason only', async () => {
    const { page } = visit;
    await page.goto('/orders/105');
    await page.getByRole('button', { name: 'Cancel the order…' }).click();
    await expect(page.getByLabel('Reason for cancelling')).toBeFocused();
    await expect(page.getByRole('button', { name: 'Cancel the order', exact: true })).toBeDisabled();
    expect(await stateOf('sales_order', 105)).toBe('confirmed');
  });

  test('a count is given up only once the lines that were counted were named', async () => {
    const { page } = visit;
    await page.goto('/stock/counts');
    await tick(page.getByRole('checkbox', { name: 'A4', exact: true }));
    await page.getByLabel('Item name contains').press('Control+Enter');
    await visit.heading('2 lines to count.');
    const path = new URL(page.url()).pathname;
    await page.getByLabel('Counted Frame nails, 20 mm in A4').fill('500 g');
    await page.getByLabel('Counted Frame nails, 20 mm in A4').press('Enter');
    await visit.heading('1 line to count.');
    await page.getByRole('button', { name: 'Cancel the count…' }).click();
    await asked('1 counted line would be thrown away.');
    await visit.answer('Keep the count');
    // What is begun comes before the start of another.
    await page.goto('/stock/counts');
    await visit.heading('1 count open.');
    const [open, begin] = await Promise.all(
      [
        page.getByRole('cell', { name: 'open', exact: true }),
        page.getByRole('heading', { name: 'What do you want to count?' }),
      ].map((one) => one.boundingBox()),
    );
    expect(open?.y ?? 0).toBeLessThan(begin?.y ?? 0);
    await page.goto(path);
    await page.getByRole('button', { name: 'Cancel the count…' }).click();
    await visit.answer('Cancel the count');
    await visit.heading(/CT-\d+ is cancelled/);
  });

  test('an item and its picture are deleted only once that was asked', async () => {
    const { page } = visit;
    await page.goto('/stock/items/20?edit=1');
    const drawing = await page.screenshot({ clip: { x: 0, y: 0, width: 60, height: 30 } });
    await page.getByLabel('Picture file').setInputFiles({ name: 'jar.png', mimeType: 'image/png', buffer: drawing });
    await page.getByRole('button', { name: 'Back to the tile…' }).click();
    await asked('Yosegi has no other copy.');
    await visit.answer('Keep the picture');
    await page.getByRole('button', { name: 'Back to the tile…' }).click();
    await visit.answer('Remove the picture');
    await page.getByRole('button', { name: 'Choose a picture…' }).waitFor();

    await page.goto('/stock/items?new=1');
    await page.getByLabel('Code', { exact: true }).fill('ODD-1');
    await page.getByLabel('Name', { exact: true }).fill('Odd thing');
    await page.keyboard.press('Control+Enter');
    await visit.heading('Odd thing');
    const there = () => application.one("SELECT 1 FROM item WHERE code = 'ODD-1'");
    await page.getByRole('button', { name: 'Delete…' }).click();
    await asked('No orders or builds use this item.');
    await visit.answer('Keep the item');
    expect(await there()).toBeDefined();
    await page.getByRole('button', { name: 'Delete…' }).click();
    await visit.answer('Delete item');
    await expect.poll(there).toBeUndefined();
  });

  test('the rest of a line that came in part is given up only once it was named', async () => {
    const { page } = visit;
    const line = await application.one<{ order_id: number; name: string; id: number }>(
      `SELECT l.order_id, l.id, i.name FROM purchase_order_line l JOIN item i ON i.id = l.item_id
       JOIN purchase_order o ON o.id = l.order_id WHERE o.state IN ('sent', 'confirmed') AND l.received > 0
         AND l.open > 0`,
    );
    await page.goto(`/buying/orders/${line?.order_id}`);
    const giveUp = page.getByRole('button', { name: `Give up the rest of ${line?.name}` });
    const closed = () =>
      application.one<{ closed: number }>(`SELECT closed FROM purchase_order_line WHERE id = ${line?.id}`);
    const before = await closed();
    await giveUp.click();
    await asked(line?.name ?? 'the line');
    await visit.answer('Keep the line open');
    expect(await closed()).toEqual(before);
    await giveUp.click();
    await visit.answer('Give up the line');
    await expect.poll(closed).not.toEqual(before);
  });
});

test.describe('what is short and who does it', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('a build that cannot start leads to buying what it is short of', async () => {
    const { page } = visit;
    await page.goto('/build/127');
    await page.getByRole('button', { name: 'Send to bench' }).click();
    await page.getByRole('link', { name: 'Buy what’s short' }).click();
    await visit.heading(/to buy/);
    await page.getByLabel('Order of Smoker can, steel').waitFor();
  });

  test('another supplier’s rule keeps the quantities that were typed', async () => {
    const { page } = visit;
    await page.goto('/buying');
    await page.getByLabel('Order of Smoker can, steel').fill('77');
    await choose(page.getByLabel('Supplier'), 'fastest');
    await visit.loaded();
    await expect(page.getByLabel('Order of Smoker can, steel')).toHaveValue('77');
    await page.reload();
    await expect(page.getByLabel('Order of Smoker can, steel')).toHaveValue('77');
  });

  test('a task gets its person and its day on the sheet of its build', async () => {
    const { page, faults } = visit;
    const task = await application.one<{ build_id: number; id: number }>(
      `SELECT t.id, l.build_id FROM task t JOIN build_line l ON l.id = t.id JOIN build b ON b.id = l.build_id
       WHERE t.state = 'open' AND b.state = 'on-bench' AND b.repair_id IS NULL`,
    );
    await page.goto(`/build/${task?.build_id}`);
    await page.getByRole('button', { name: 'Assign…' }).first().click();
    await choose(page.getByLabel('Person'), 'Tom Birch');
    await page.getByLabel('Due, if not with the build').fill('24/12/2030');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await page
      .getByText(/24 Dec 2030/)
      .first()
      .waitFor();
    const given = await application.one<{ name: string }>(
      "SELECT p.name FROM task t JOIN person p ON p.id = t.person_id WHERE t.due = '2030-12-24'",
    );
    expect(given?.name).toBe('Tom Birch');
    expect(faults).toEqual([]);
  });

  test('what the owner keeps beside a parts list for the record is typed, read and printed', async () => {
    const { page } = visit;
    const record = await application.one<{ id: number }>("SELECT id FROM definition WHERE purpose = 'record'");
    await page.goto(`/define/${record?.id}`);
    await page.getByText('EX4-0117').waitFor();
    await page.getByRole('button', { name: 'Custom fields' }).click();
    await page.getByRole('button', { name: '+ Field' }).click();
    await page.getByLabel('Name of field 4').fill('Owner');
    await page.getByLabel('Value of field 4').fill('x'.repeat(190));
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await page
      .getByText(/is there twice|already|twice/i)
      .first()
      .waitFor();
    await expect(page.getByLabel('Value of field 4')).toHaveValue('x'.repeat(190));
    await page.getByLabel('Name of field 4').fill('Locations');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await visit.notice(/saved/);
    await page.setViewportSize({ width: 390, height: 800 });
    await page.getByRole('button', { name: 'Lines', exact: true }).click();
    await page.getByText('x'.repeat(190)).waitFor();
    // A long one is read to its end, and nothing is pushed out.
    const wider = () =>
      page.evaluate(() =>
        [document.documentElement, ...document.querySelectorAll('main, #main, #main section')].some(
          (pane) => pane.scrollWidth > pane.clientWidth + 1,
        ),
      );
    expect(await wider()).toBe(false);
    await page.goto(`/print/definition/${record?.id}`);
    await page.getByText('Locations').waitFor();
    await page.setViewportSize({ width: 1280, height: 800 });
  });

  test('-10% typed as a price is a discount, an order has one too, and its freight; what changed is told', async () => {
    const { page, faults } = visit;
    await page.goto('/orders/115?change=1');
    await page.getByLabel('Unit price of Seed bag').fill('-10%');
    await expect(page.getByLabel('Discount on Seed bag')).toHaveValue('10');
    await page.getByLabel('Unit price of Seed bag').press('Enter');
    await expect(page.getByLabel('Unit price of Seed bag')).toHaveValue('');
    await page.getByLabel('Order discount').fill('5');
    await page.getByLabel('Freight').fill('12.50');
    await page.getByLabel('Quantity of Seed bag').fill('7');
    await page.getByLabel('Discount on Seed bag').press('Enter');
    await expect(page.getByLabel('Add an item')).toBeFocused();
    await page.reload();
    await expect(page.getByLabel('Discount on Seed bag')).toHaveValue('10');
    await page.getByLabel('Discount on Seed bag').fill('110');
    await expect(page.getByRole('button', { name: 'Save the changes' })).toBeDisabled();
    await page.getByLabel('Discount on Seed bag').fill('10');
    await page.getByRole('button', { name: 'Save the changes' }).click();
    await page.getByRole('heading', { name: 'Changes' }).waitFor();
    await page.getByText('Seed bag: 7 instead of 4').waitFor();
    const order = await application.one<{ price: number; freight: number }>(
      `SELECT l.price, o.freight FROM sales_order o JOIN order_line l ON l.order_id = o.id WHERE o.id = 115 ORDER BY l.position`,
    );
    // 6.90 less 10 % is 6.21, less 5 % is 5.8995.
    expect(order).toEqual({ price: 5_899_500, freight: 12_500_000 });
    await page.goto('/orders/115/papers');
    await page.getByText('Freight').first().waitFor();
    expect(faults).toEqual([]);
  });
});
