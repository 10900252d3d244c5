import { expect, test } from '@playwright/test';
import { dayOf } from '@yosegi/core/days';
import { Application, choose, find, Keyboard, type Visit } from './harness.ts';

const dayIn = (days: number) => dayOf(new Date(Date.now() + days * 86_400_000));

const LINES = [
  ['Feeder, 2 litre', '37'],
  ['First season kit, small', '1'],
  ['Quarterly honey box', '1'],
  ['Winter set', '1'],
  ['Winter evening', '2'],
] as const;

/** From what a customer asks for to what has left: shelves, a build and kits of every kind in one order. */
// Each goes on where the one before ended, so that they are tried again together.
test.describe.configure({ mode: 'serial' });

test.describe('an order of everything', () => {
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
  const left = () =>
    application.one<{ items: string }>(
      `SELECT group_concat(item, ', ') AS items FROM (
         SELECT i.code || ' ' || CAST(sum(m.quantity) / -1000000 AS INTEGER) AS item
         FROM movement m JOIN item i ON i.id = m.item_id
         WHERE m.document_id = (SELECT max(id) FROM document WHERE kind = 'shipment')
         GROUP BY i.code ORDER BY i.code)`,
    );
  const everything = {
    items:
      'BOX-TRIO 2, BRUSH 2, COVER-W 1, ENTR-B 1, FEED-2L 37, HONEY-500 2, HONEY-CR 1, KIT-S 1, STRAP-H 3, TASTE-3 2',
  };

  test('goes from entry to shipment by keyboard alone', async () => {
    const { page } = visit;
    const keys = new Keyboard(page);
    await keys.goTo('New order', /A new order/);
    // The customer has the focus, and the only one of that name is taken by Enter, which goes on to the items.
    await keys.type('Tamsin');
    await keys.press('Enter');
    await expect(page.getByLabel('Add an item')).toBeFocused();
    await keys.tabTo(/^Wanted on$/, 'Shift+Tab');
    await keys.type('tomorrow');
    await keys.tabTo(/^Add an item$/);
    for (const [name, quantity] of LINES) {
      await keys.type(name);
      await page.getByRole('option', { name: new RegExp(name) }).waitFor();
      await keys.press('Enter');
      const cell = page.getByLabel(new RegExp(`^Quantity of ${name}`));
      // A piece of a name marks what was found, for another Enter to take.
      const isMarked = () => page.getByLabel('Add an item').getAttribute('aria-activedescendant');
      await expect.poll(async () => (await cell.count()) > 0 || (await isMarked()) !== null).toBe(true);
      if ((await cell.count()) === 0) await keys.press('Enter');
      await cell.waitFor();
      await expect.poll(() => cell.evaluate((input) => input === document.activeElement)).toBe(true);
      await keys.type(quantity);
      await keys.press('Enter');
      await keys.press('Enter');
    }
    // The set may change in number, the gift in what is in it; what is bought ready made, not at all.
    await keys.tabTo(/^packed for this order · .*may change/);
    await keys.press('Enter');
    await keys.tabTo(/^In one kit, Hive strap$/);
    await keys.press('Control+a');
    await keys.type('3');
    await keys.tabTo(/^packed for this order · .*may change/);
    await keys.press('Enter');
    await keys.tabTo(/Packed as Beeswax candles, pair$/);
    // What is typed over a list that is shut may come from a scanner: it is opened first.
    await keys.press('ArrowDown');
    await page.getByRole('option', { name: 'Bee brush' }).waitFor();
    await keys.press('ArrowDown');
    await keys.press('Enter');
    await page.getByText('⇄ for Beeswax candles, pair').waitFor();
    await keys.press('Control+Enter');
    await visit.notice(/O-\d+ confirmed/);
    await visit.heading('Tamsin Hale');
    await keys.tabTo(/^Build for this order…$/);
    await keys.press('Enter');
    await visit.heading('How many to build?');
    await keys.tabTo(/^Build of Feeder, 2 litre for O-/);
    await keys.type('3');
    await page.getByText('3 of 3 Feeder, 2 litre could start now.').waitFor();
    await keys.press('Control+Enter');
    await visit.notice(/B-\d+ planned. Finished goods are kept for the order/);
    await keys.tabTo(/^Ship · 5 lines ready$/);
    await keys.press('Enter');
    await visit.heading('What ships now?');
    await keys.tabTo(/^Finish B-\d+ with it$/);
    await keys.press('Enter');
    await keys.tabTo(/^Carrier$/);
    await keys.type('Own van');
    await keys.press('Control+Enter');
    await visit.notice(/SH-\d+: O-\d+ shipped. Everything has shipped./);
    expect(await left()).toEqual(everything);
    expect(visit.faults).toEqual([]);
  });

  test('goes the same way by mouse, and comes back whole when that is undone', async () => {
    const { page } = visit;
    await visit.undo();
    await visit.notice(/Undone by UN-/);
    await page.getByRole('button', { name: /^Give up|^Cancel the order/ }).click();
    await page.getByLabel('Reason for cancelling').fill('Entered twice');
    await page.getByRole('button', { name: 'Cancel the order', exact: true }).click();
    await visit.notice(/cancelled/);
    await page.getByRole('link', { name: 'Enter an order' }).click();
    await visit.heading('A new order');
    await find(page.getByRole('combobox', { name: 'For', exact: true }), 'Tamsin Hale');
    await page.getByLabel('Wanted on').fill(dayIn(1));
    const adder = page.getByRole('combobox', { name: 'Add an item' });
    // What was built the first time stands on the shelf since, so three more are built for three more.
    for (const [name, first] of LINES) {
      const quantity = first === '37' ? '40' : first;
      await adder.fill(name);
      await page.getByRole('option', { name: new RegExp(name) }).click();
      await page.getByLabel(new RegExp(`^Quantity of ${name}`)).fill(quantity);
    }
    await page
      .getByRole('row', { name: /Winter set/ })
      .getByRole('button', { name: /may change/ })
      .click();
    await page.getByLabel('In one kit, Hive strap').fill('9');
    await page.getByRole('button', { name: 'Put back 2' }).click();
    const straps = page.getByLabel('In one kit, Hive strap');
    await expect(straps).toHaveValue('2');
    await straps.fill('3');
    await expect(straps).toHaveValue('3');
    await page
      .getByRole('row', { name: /Winter evening/ })
      .getByRole('button', { name: /may change/ })
      .click();
    await choose(page.getByLabel('Packed as Beeswax candles, pair'), 'Bee brush');
    await page.getByText('⇄ for Beeswax candles, pair').waitFor();
    await page.getByRole('button', { name: 'Confirm the order' }).click();
    await visit.notice(/O-\d+ confirmed/);
    await page.getByRole('button', { name: 'Build for this order…' }).click();
    await page.getByLabel(/^Build of Feeder, 2 litre for O-/).fill('3');
    await page.getByRole('button', { name: 'Plan 1 build' }).click();
    await visit.notice(/Finished goods are kept/);
    // To the build and back, in one step each.
    await expect(async () => {
      await page
        .getByRole('complementary')
        .getByRole('link', { name: /^B-\d+$/ })
        .click();
      await expect(page).toHaveURL(/\/build\/\d+/, { timeout: 3000 });
    }).toPass();
    await visit.heading(/Feeder, 2 litre/);
    await page
      .getByRole('complementary')
      .getByRole('link', { name: /^O-\d+/ })
      .first()
      .click();
    await visit.heading('Tamsin Hale');
    await page.getByRole('button', { name: 'Ship · 5 lines ready' }).click();
    await page.getByRole('button', { name: /^Finish B-\d+ with it$/ }).click();
    // One float broke on the bench: it is used, and what shipped costs it.
    await page.getByLabel(/^Actually used of Feeder float/).fill('4');
    await page.getByRole('button', { name: 'Ship 5 lines' }).click();
    await visit.notice(/Everything has shipped/);
    expect(await left()).toEqual({ items: everything.items.replace('37', '40') });
    const used = await application.one(
      `SELECT actual / 1000000 AS floats FROM finish_line used
       JOIN build_line line ON line.id = used.build_line_id JOIN item i ON i.id = line.item_id
       WHERE i.code = 'FLOAT' ORDER BY used.document_id DESC LIMIT 1`,
    );
    expect(used).toEqual({ floats: 4 });
    await visit.undo();
    await visit.notice(/Undone by UN-/);
    await page.getByRole('button', { name: /^Ship · / }).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('of the last of something is seen by whoever asks next, and shipped once', async () => {
    const [mine, theirs] = [await application.open(), await application.open('Ada Quill')];
    const enter = async ({ page }: Visit, quantity: string) => {
      await page.goto('/orders?new=1');
      await find(page.getByRole('combobox', { name: 'For', exact: true }), 'Millrace Café');
      await page.getByRole('combobox', { name: 'Add an item' }).fill('medium suit');
      await page.getByRole('option', { name: /First season kit, medium/ }).click();
      await page.getByLabel(/^Quantity of First season kit, medium/).fill(quantity);
    };
    await enter(mine, '4');
    await mine.page.getByText('Everything is here. Ready to ship once confirmed.').waitFor();
    await enter(theirs, '4');
    await theirs.page.getByText('Everything is here. Ready to ship once confirmed.').waitFor();
    await mine.page.getByRole('button', { name: 'Confirm the order' }).click();
    await mine.notice(/confirmed/);
    // Nothing was asked of the second screen: it is told that the first took them.
    await theirs.page.getByText('Everything is here. Ready to ship once confirmed.').waitFor({ state: 'detached' });
    const row = theirs.page.getByRole('row', { name: /First season kit, medium/ });
    await row
      .getByRole('cell', { name: /^-?0( |\+|$)/ })
      .first()
      .waitFor();
    await theirs.page.getByRole('button', { name: 'Confirm the order' }).click();
    await theirs.notice(/confirmed/);
    // Both sheets of the first order are open, and both ship it.
    await theirs.page.goto(mine.page.url());
    for (const { page } of [mine, theirs]) await page.getByRole('button', { name: 'Ship · 1 line ready' }).click();
    await mine.page.getByRole('button', { name: 'Ship 1 line' }).click();
    await mine.notice(/Everything has shipped/);
    await theirs.page.getByText('Everything has been shipped.').waitFor();
    expect([...mine.faults, ...theirs.faults]).toEqual([]);
    await mine.context.close();
    await theirs.context.close();
  });

  test('comes from the shop, is changed and answered there, and is told what left', async () => {
    const { page } = visit;
    await page.goto('/devices/shop');
    await visit.heading('Hive & Honey, the web shop');
    for (const _ of [1, 2]) await page.getByRole('button', { name: 'One more Wildflower honey, 500 g' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Ines Carrow');
    await page.getByLabel('Address', { exact: true }).fill('4 Mill Lane, Hollowmere');
    await page.getByLabel('Wanted on').fill(dayIn(4));
    await page.getByRole('button', { name: 'Send the order' }).click();
    await visit.notice(/O-\d+ came in/);
    const sent = page.getByRole('article', { name: / of Ines Carrow$/ });
    await sent.getByRole('button', { name: 'Ask for one more' }).click();
    await visit.notice(/ received\./);
    await sent.getByText('3 Wildflower honey, 500 g').waitFor();
    await sent.getByRole('button', { name: 'Send the last message again' }).click();
    await visit.notice(/was received before; nothing has changed/);
    await sent.getByText('3 Wildflower honey, 500 g').waitFor();
    await sent.getByRole('button', { name: 'Ask for the day' }).click();
    await sent.getByText(/O-\d+ answers/).waitFor();
    await sent.getByRole('link', { name: /^O-\d+$/ }).click();
    await visit.heading('Ines Carrow');
    await page.getByText('4 Mill Lane').first().waitFor();
    const confirm = page.getByRole('button', { name: 'Confirm the order' });
    const ship = page.getByRole('button', { name: 'Ship · 1 line ready' });
    await confirm.or(ship).waitFor();
    if (await confirm.isVisible()) await confirm.click();
    await ship.click();
    await page.getByRole('button', { name: 'Ship 1 line' }).click();
    await visit.notice(/Everything has shipped/);
    await page.goto('/devices/shop');
    await sent.getByText(/SH-\d+ left/).waitFor();
    // Another one is taken back by the shop before it left.
    await page.getByRole('button', { name: 'One more Creamed honey, 500 g' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Odile Marsh');
    await page.getByRole('button', { name: 'Send the order' }).click();
    const other = page.getByRole('article', { name: / of Odile Marsh$/ });
    await other.getByRole('button', { name: 'Cancel order' }).click();
    await other.getByText('cancelled', { exact: true }).first().waitFor();
    expect(visit.faults).toEqual([]);
  });
});
