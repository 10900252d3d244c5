import { expect, test } from '@playwright/test';
import { Application, type Visit } from './harness.ts';
import { walking } from './walking.ts';

/** Fifteen jobs of a new company, one after the other, by hands that never leave the keyboard. */
test.describe('from an empty company, by keyboard alone', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser, 'empty');
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('fifteen jobs are done, none with more keys than it needs', async () => {
    test.slow();
    const { page } = visit;
    const { keys, walk, pick, counted } = walking(visit);

    await walk('places', 12, async () => {
      await keys.goTo('Places', /place|store|bin/i);
      await keys.tabTo(/^Code$/);
      await keys.type('SHOP');
      await keys.press('Tab');
      await keys.type('The shop');
      await keys.press('Enter');
      await page.getByLabel('New bin').waitFor();
      await keys.tabTo(/^New bin$/);
      await keys.type('A1');
      await keys.press('Enter');
      await keys.type('A2');
      await keys.press('Control+Enter');
      await visit.notice('The shop saved.');
    });
    for (const [code, name, made] of [
      ['LEG', 'Stool leg', ''],
      ['SEAT', 'Stool seat', ''],
      ['STOOL', 'Milking stool', 'made here'],
    ] as const)
      await walk(`item ${code}`, 12, async () => {
        await keys.goTo('New item', /New item/);
        await keys.tabTo(/^Code$/);
        await keys.type(code);
        await keys.press('Tab');
        await keys.type(name);
        await keys.tabTo(/ Bought or made$/);
        await keys.type(made);
        await keys.tabTo(/^Sell price$/);
        await keys.type('40');
        await keys.press('Control+Enter');
        await visit.heading(name);
      });
    await walk('supplier', 10, async () => {
      await keys.goTo('New supplier', /Add a supplier|new supplier/i);
      await keys.tabTo(/^Code$/);
      await keys.type('TURN');
      await keys.press('Tab');
      await keys.type('Turner & Co');
      await keys.tabTo(/^Email for orders$/);
      await keys.type('turner@mail.example');
      await keys.press('Control+Enter');
      await visit.notice(/Turner & Co/);
    });
    await walk('receive', 14, async () => {
      await keys.goTo('Receive goods', /What arrived/);
      for (const [what, name, cost] of [
        ['60 LEG', 'Stool leg', '2.5'],
        ['20 SEAT', 'Stool seat', '7'],
      ] as const) {
        await keys.tabTo(/^Add an item$/);
        await pick(what, new RegExp(`^Unit cost of ${name}$`));
        await keys.tabTo(new RegExp(`^Unit cost of ${name}$`));
        await keys.type(cost);
      }
      await keys.press('Control+Enter');
      await visit.heading(/RC-\d+ · Receipt/);
    });
    await walk('bill of materials', 18, async () => {
      await keys.goTo('New bill of materials', /New bill of materials/);
      await keys.tabTo(/^What is made\?$/);
      await pick('STOOL', /^Milking stool$/);
      await keys.tabTo(/^Add a part$/);
      await pick('LEG', /^Amount of Stool leg$/);
      await keys.tabTo(/^Amount of Stool leg$/);
      await keys.type('3');
      await keys.tabTo(/^Add a part$/);
      await pick('SEAT', /^Amount of Stool seat$/);
      await keys.tabTo(/^Amount of Stool seat$/);
      await keys.type('1');
      await keys.press('Control+Enter');
      await visit.notice(/Revision 1 of Milking stool is in use/);
    });
    await walk('is there enough', 6, async () => {
      await keys.goTo('Cover', /What do you want to make/);
      await keys.tabTo(/^Add a product$/);
      await pick('30 STOOL', /^Quantity of Milking stool$/);
      await visit.heading(/stuck on|short/);
    });
    await walk('plan', 4, async () => {
      await keys.tabTo(/^Quantity of Milking stool$/, 'Shift+Tab');
      await keys.type('12');
      await visit.heading('Everything is there.');
      await keys.press('Control+Enter');
      await visit.heading('12 × Milking stool');
    });
    await walk('bench and pick', 8, async () => {
      await keys.tabTo(/^Send to bench$/);
      await keys.press('Enter');
      await page.getByRole('link', { name: 'Pick its parts' }).waitFor();
      await keys.tabTo(/^Pick its parts$/);
      await keys.press('Enter');
      await visit.heading(/2 lines to pick/);
      await keys.press('Control+Enter');
      await visit.heading(/Everything for .* is picked/);
    });
    await walk('finish', 8, async () => {
      await keys.tabTo(/^Finish the build…$/);
      await keys.press('Enter');
      await visit.heading(/What was actually used/);
      await keys.press('Control+Enter');
      await visit.notice(/12 × Milking stool at .* are in stock/);
    });
    await walk('a new customer with what they want', 12, async () => {
      await keys.goTo('New order', /A new order/);
      await keys.type('Meadow Dairy');
      await page.getByRole('option', { name: /New customer/ }).waitFor();
      await keys.press('ArrowDown');
      await keys.press('Enter');
      await page.getByRole('dialog').waitFor();
      await keys.tabTo(/^Code$/);
      await keys.type('MEADOW');
      await keys.press('Control+Enter');
      await page.getByRole('dialog').waitFor({ state: 'detached' });
      await page.waitForFunction(() => document.activeElement !== document.body);
      await keys.tabTo(/^Add an item$/);
      await pick('5 STOOL', /^Quantity of Milking stool$/);
      await page.getByLabel('Quantity of Milking stool').waitFor();
      await keys.press('Control+Enter');
      await visit.notice(/O-\d+ confirmed/);
    });
    await walk('ship', 10, async () => {
      await page.getByRole('button', { name: 'Ship · 1 line ready' }).waitFor();
      await page.waitForFunction(() => document.activeElement?.closest('#main') !== null);
      await keys.tabTo(/^Ship · 1 line ready$/);
      await keys.press('Enter');
      await visit.heading('What ships now?');
      await keys.press('Control+Enter');
      await visit.notice(/SH-\d+: O-\d+ shipped/);
    });
    await walk('put back', 14, async () => {
      await keys.goTo('Take apart: returned goods', /to deal with/);
      await keys.tabTo(/^What is coming back\?$/);
      await keys.type('MEADOW');
      await page
        .getByText(/Milking stool/)
        .first()
        .waitFor();
      await keys.tabTo(/^Quantity of Milking stool/);
      await keys.type('1');
      await keys.tabTo(/ Reason$/);
      await keys.press('ArrowDown');
      await keys.press('ArrowDown');
      await keys.press('Enter');
      await expect(page.getByRole('button', { name: /^Receive 1/ })).toBeEnabled();
      await page.getByRole('listbox').waitFor({ state: 'detached' });
      await keys.press('Control+Enter');
      await visit.notice(/RT-\d+/);
    });
    await walk('take stock apart', 8, async () => {
      await keys.goTo('Take stock apart', /What do you take apart/);
      await keys.tabTo(/^Which product\?$/);
      await pick('STOOL', /of parts come back/);
      await visit.heading(/of parts come back/);
      await keys.press('Control+Enter');
      await visit.notice(/back in parts/);
    });
    await walk('move', 9, async () => {
      await keys.goTo('Move goods', /What goes where|Move/);
      await keys.tabTo(/^Add an item$/);
      await pick('3 LEG', /^Quantity of Stool leg$/);
      await keys.tabTo(/^Where Stool leg goes| Where Stool leg goes$/);
      await keys.type('A2');
      await page.getByRole('button', { name: /^A2 · The shop/ }).waitFor();
      await keys.press('Control+Enter');
      await visit.heading(/\w+-\d+ · /);
    });
    await walk('buy', 14, async () => {
      await keys.goTo('New purchase order', /A new order/);
      await keys.tabTo(/ From$/);
      await keys.type('Turner');
      await keys.tabTo(/^Add an item$/);
      await pick('10 LEG', /^Unit price of Stool leg$/);
      await keys.tabTo(/^Unit price of Stool leg$/);
      await keys.type('2.4');
      await keys.press('Control+Enter');
      await page.getByRole('heading', { name: 'Send this to Turner & Co?' }).waitFor();
      await keys.press('Enter');
      await visit.notice(/PO-\d+/);
    });
    expect(Object.keys(counted)).toHaveLength(17);
    console.log(`Keys beside what is typed: ${JSON.stringify(counted)}`);
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });
});
