import { expect, test } from '@playwright/test';
import { Application, choose, Keyboard, tick, type Visit } from './harness.ts';

test.describe('buying', () => {
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

  test('goes the whole circle: from what is short to what has come, by mail and back', async () => {
    const { page } = visit;
    await page.goto('/buying');
    await visit.heading(/items to buy/);
    // Only the smoker cans, which a build waits for.
    const boxes = await page.getByRole('checkbox', { name: /^Order / }).all();
    for (const box of boxes) await tick(box, false);
    await tick(page.getByRole('checkbox', { name: 'Order Smoker can, steel' }));
    await page.getByLabel('Order of Smoker can, steel').fill('40');
    await page.getByRole('button', { name: 'Draft 1 order' }).click();
    await visit.heading(/PO-\d+ · draft/);
    await page.getByRole('complementary', { name: 'Total' }).getByText('Smoker, lined').waitFor();
    await page.getByRole('button', { name: 'Send to Combe Metalwares' }).click();
    await visit.answer('Send to Combe Metalwares');
    await visit.heading(/PO-\d+ · Combe Metalwares/);
    await page.getByText(/to come, the first on/).waitFor();
    const address = page.url();

    await page.getByRole('link', { name: 'Their mailbox' }).click();
    await visit.heading(/^Order PO-\d+ of Hollowmere Bee Supply/);
    await page.getByText('<cbc:Quantity unitCode="EA">40</cbc:Quantity>').waitFor();
    await page.getByRole('button', { name: 'Confirm as ordered' }).click();
    await visit.notice(/has answered/);
    await page.getByLabel('Days later').fill('12');
    await page.getByRole('button', { name: 'Confirm, but later' }).click();
    await page
      .getByRole('button', { name: /confirms PO-/ })
      .first()
      .waitFor();
    await page.getByRole('button', { name: 'Send half' }).click();
    await page.getByText('delivery to receive').waitFor();

    await page.goto(address);
    await page.getByText('A delivery is on its way.').waitFor();
    await page.getByRole('link', { name: 'Receive the announced delivery' }).click();
    await visit.heading(/1 line of PO-\d+ worth/);
    expect(await page.getByLabel('Arrived of Smoker can, steel').inputValue()).toBe('20');
    expect(await page.getByLabel('Delivery note').inputValue()).toMatch(/^METALS-D/);
    // More than is open has to be taken in knowingly.
    await page.getByLabel('Arrived of Smoker can, steel').fill('45');
    await page.getByText(/Receive 5 of Smoker can, steel more than was ordered/).waitFor();
    expect(await page.getByRole('button', { name: 'Receive 1 line' }).isDisabled()).toBe(true);
    await page.getByLabel('Arrived of Smoker can, steel').fill('20');
    await page.getByLabel('Unit cost of Smoker can, steel').fill('10.25');
    await page.keyboard.press('Control+Enter');
    await visit.notice(/The rest stays on back order/);
    await visit.heading(/PO-\d+ · Combe Metalwares/);
    await page.getByText('partly received').first().waitFor();
    await page.getByRole('cell', { name: '20', exact: true }).nth(1).waitFor();

    await choose(page.getByLabel('Which orders'), 'Back orders');
    await page.getByRole('navigation', { name: 'Purchase orders' }).getByText('Combe Metalwares').first().waitFor();
    await page.getByRole('button', { name: 'Close order: the rest isn’t coming…' }).click();
    await visit.answer('Close the order');
    await page.getByText('Everything expected has arrived.').waitFor();
    await page.getByText('given up').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('is written by keyboard alone, and handed over as paper, CSV and UBL', async () => {
    const { page } = visit;
    const keys = new Keyboard(page);
    await keys.goTo('New purchase order', /A new order/);
    await choose(page.getByLabel('From', { exact: true }), 'Ironbridge Fixings');
    await page.getByText('from Ironbridge Fixings').waitFor();
    await keys.tabTo(/^Add an item$/);
    await keys.type('SCREW-40');
    await keys.press('Enter');
    const quantity = page.getByLabel('Quantity of Screw 4 × 40 mm');
    await expect.poll(() => quantity.evaluate((input) => input === document.activeElement)).toBe(true);
    // The least that is sold stands there, at the supplier's price.
    expect([await quantity.inputValue(), await page.getByLabel('Unit price of Screw 4 × 40 mm').inputValue()]).toEqual([
      '200',
      '0.06',
    ]);
    await keys.type('250');
    await page.getByText(/sold in packs of 200/).waitFor();
    await keys.type('');
    await quantity.fill('2 box');
    await page.getByText('€24.00').first().waitFor();
    await keys.press('Control+s');
    await visit.heading(/PO-\d+ · draft/);
    await choose(page.getByLabel('Sending method'), 'As a UBL order (XML)');
    const waiting = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Send to Ironbridge Fixings' }).click();
    await visit.answer('Send to Ironbridge Fixings');
    const file = await waiting;
    expect(file.suggestedFilename()).toMatch(/^PO-\d+\.xml$/);
    await visit.heading(/PO-\d+ · Ironbridge Fixings/);
    const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).click()]);
    expect(csv.suggestedFilename()).toMatch(/^PO-\d+\.csv$/);
    await page.getByRole('link', { name: 'Print the order' }).click();
    await visit.heading(/^Purchase order PO-/);
    await page.getByRole('img', { name: /Barcode PO-/ }).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('keeps what was typed when the server refuses it, beside the field it concerns', async () => {
    const { page } = visit;
    await page.goto('/buying/suppliers?new=1');
    await page.getByLabel('Code').fill('iron');
    await page.getByLabel('Name').fill('Another iron');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByText(/“iron” already belongs to Ironbridge Fixings/).waitFor();
    expect(await page.getByLabel('Name').inputValue()).toBe('Another iron');
    await page.getByLabel('Code').fill('IRON-2');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await visit.heading('Another iron');
    await page.getByRole('link', { name: 'New order' }).first().click();
    await page.getByLabel('Add an item').fill('SCREW-40');
    await page.getByLabel('Add an item').press('Enter');
    await page.getByRole('button', { name: 'Send to Another iron' }).click();
    await visit.answer('Send to Another iron');
    await page.getByText(/Another iron has no email address/).waitFor();
    await page.getByLabel('Quantity of Screw 4 × 40 mm').waitFor();
    await visit.heading('A new order');
    expect(visit.faults).toEqual([]);
  });

  test('gets its price right when the invoice says otherwise, and stock its value when the market does', async () => {
    const { page } = visit;
    const receipt = await application.one<{ id: number }>("SELECT max(id) AS id FROM document WHERE kind = 'receipt'");
    await page.goto(`/stock/documents/${receipt?.id}`);
    await page.getByRole('link', { name: 'Invoice differs' }).click();
    await page.getByLabel('Invoiced unit cost of Smoker can, steel').fill('11');
    await visit.heading('€15.00 more than was received: €15.00 onto stock, €0.00 as a difference in cost.');
    await page.keyboard.press('Control+Enter');
    await visit.heading(/PD-\d+ · Price difference/);
    await page.getByText('Corrects the price of').first().waitFor();
    await page.goto(`/stock/documents/${receipt?.id}`);
    await page.getByRole('button', { name: 'Undo this posting' }).click();
    await page.getByText(/has changed what this is worth since. Undo that one first/).waitFor();

    await page.goto('/stock/revalue');
    await page.getByLabel('Add an item').fill('CAN-SMK');
    await page.getByLabel('Add an item').press('Enter');
    await page.getByLabel('New unit cost of Smoker can, steel').fill('10');
    await visit.heading(/Stock will be worth €\d+\.\d\d less/);
    await page.keyboard.press('Control+Enter');
    await visit.heading(/RV-\d+ · Revaluation/);
    expect(
      await application.one(
        "SELECT value / quantity AS cost FROM item_stock WHERE item_id = (SELECT id FROM item WHERE code = 'CAN-SMK')",
      ),
    ).toEqual({ cost: 10 });
    expect(visit.faults).toEqual([]);
  });

  test('puts right what went below zero in one step', async () => {
    const { page } = visit;
    await page.goto('/today');
    await page.getByRole('link', { name: 'Put right', exact: true }).click();
    await visit.heading('1 thing to fix.');
    await page.getByRole('button', { name: 'Adjust by 2.400 m' }).click();
    await visit.notice(/AD-\d+ has put it right/);
    await visit.heading('Nothing to fix.');
    expect(visit.faults).toEqual([]);
  });
});
