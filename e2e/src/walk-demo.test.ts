import { expect, test } from '@playwright/test';
import { Application, type Visit } from './harness.ts';
import { walking } from './walking.ts';

/** What comes up on any day of a business that runs, by hands that never leave the keyboard. */
test.describe('a day of the demo business, by keyboard alone', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('thirteen jobs are done, none with more keys than it needs', async () => {
    test.slow();
    const { keys, walk, pick, at, counted } = walking(visit);

    await walk('is there enough, and plan it', 8, async () => {
      await keys.goTo('Cover', /are short of something/);
      await keys.tabTo(/^Add a product$/);
      await pick('2 FEED-2L', /^Quantity of Feeder, 2 litre$/);
      await visit.heading(/Everything is there|stuck on|short/);
      await keys.press('Control+Enter');
      await visit.heading('2 × Feeder, 2 litre');
    });
    await walk('an order of a customer one knows', 5, async () => {
      await keys.goTo('New order', /A new order/);
      await pick('brook', /^For$/);
      await expect(visit.page.getByLabel('For', { exact: true })).toHaveValue(/^Brook School/);
      await keys.tabTo(/^Add an item$/);
      await pick('2 WRAP-3', /^Quantity of Beeswax wraps, three$/);
      await keys.press('Control+Enter');
      await visit.notice(/O-\d+ confirmed/);
    });
    await walk('ship', 9, async () => {
      await keys.goTo('O-0105', /Alder Vale/);
      await keys.tabTo(/^Ship · 2 lines ready$/);
      await keys.press('Enter');
      await visit.heading('What ships now?');
      await keys.press('Control+Enter');
      await visit.notice(/SH-\d+: O-0105 shipped/);
    });
    await walk('two orders of one', 16, async () => {
      await keys.goTo('O-0107', /Larkfield/);
      await keys.tabTo(/^Split…$/);
      await keys.press('Enter');
      await at(/^Split off/);
      await keys.press('Enter');
      await visit.notice(/O-\d+ split off/);
    });
    await walk('buy what is short', 9, async () => {
      await keys.goTo('Buy list', /to buy/);
      await keys.tabTo(/^Order of /);
      await keys.type('55');
      await keys.press('Control+Enter');
      await visit.notice(/drafted: PO-\d+/);
    });
    await walk('receive what was ordered', 6, async () => {
      await keys.goTo('PO-0027', /PO-0027/);
      await keys.tabTo(/^Receive/);
      await keys.press('Enter');
      await visit.heading(/to receive/);
      await keys.press('Control+Enter');
      await visit.notice(/RC-\d+/);
    });
    await walk('a part more on the bench', 14, async () => {
      await keys.goTo('B-0117', /Feeder, 2 litre/);
      await keys.tabTo(/^Add a part$/);
      await keys.press('Enter');
      await at(/^Which part$/);
      await keys.type('3 SCREW-40');
      await keys.press('Enter');
      await at(/^Quantity$/);
      await keys.tabTo(/^Reason$/);
      await keys.type('Two lids are loose');
      await keys.press('Enter');
      await visit.notice(/is on the bench of B-0117/);
      await at(/^Add a part$/);
    });
    await walk('a task done', 16, async () => {
      await keys.goTo('Tasks', /tasks/);
      const before = Number.parseInt((await visit.page.locator('h1').textContent()) ?? '', 10);
      await keys.tabTo(/^Done$/);
      await keys.press('Enter');
      await visit.heading(new RegExp(`^${before - 1} tasks`));
      await at(/^Done$/);
    });
    await walk('decide what came back', 8, async () => {
      await keys.goTo('RT-0006', /to decide/);
      await keys.tabTo(/^All good/);
      await keys.press('Enter');
      await keys.press('Control+Enter');
      await visit.notice(/: decided/);
    });
    await walk('count a bin', 40, async () => {
      await keys.goTo('Count stock', /No open counts/);
      await keys.tabTo(/^A1$/);
      await keys.press('Space');
      await keys.press('Control+Enter');
      await visit.heading('3 lines to count.');
      await keys.tabTo(/^Counted /);
      for (const [quantity, next] of [
        ['3', /^Counted Seed bag/],
        ['4', /^Counted Meadow seed/],
        ['5', /^Counted Meadow seed/],
      ] as const) {
        await keys.type(quantity);
        await keys.press('Enter');
        await at(next);
      }
      await visit.heading('Everything is counted.');
      await keys.tabTo(/^Differences$/, 'Shift+Tab');
      await keys.press('Enter');
      await visit.heading(/lines differ/);
      await keys.press('Control+Enter');
      await visit.notice(/CT-\d+ approved/);
    });
    await walk('a repair, from the counter to the customer', 26, async () => {
      await keys.goTo('Take in a repair', /^Take in a repair/);
      await pick('larkfield', /^Customer$/);
      await expect(visit.page.getByLabel('Customer')).toHaveValue(/^Larkfield Allotments/);
      await keys.tabTo(/^Item$/);
      await pick('SCALE-1', /^Serial number/);
      await keys.tabTo(/^Serial number/);
      await keys.type('OLD-77');
      await keys.tabTo(/^Problem$/);
      await keys.type('Shows nothing');
      await keys.press('Control+Enter');
      await visit.notice(/taken in/);
      await visit.heading('Hive scale of Larkfield Allotments');
      await at(/^Hive scale of Larkfield/);
      await keys.tabTo(/^Estimate…$/);
      await keys.press('Enter');
      await at(/^Estimate for the customer$/);
      await keys.type('40');
      await keys.press('Enter');
      // Each step leads to the next.
      await at(/^Record agreement…$/);
      await keys.press('Enter');
      await at(/^Agreed price$/);
      await keys.press('Enter');
      await at(/^Start repair$/);
      await keys.press('Enter');
      await at(/^Finish…$/);
      await keys.press('Enter');
      await visit.heading(/What was actually used/);
      await keys.press('Control+Enter');
      await visit.notice(/is ready/);
      await at(/^Hive scale of Larkfield/);
      await keys.tabTo(/^Give back…$/);
      await keys.press('Enter');
      await at(/^Charge to the customer$/);
      await keys.press('Enter');
      await visit.notice(/given back to Larkfield Allotments/);
    });
    await walk('a reorder point', 6, async () => {
      await keys.goTo('Reorder points', /run out/);
      await keys.tabTo(/^Use for /);
      await keys.press('Enter');
      await visit.notice(/1 reorder point set/);
      await expect.poll(() => keys.focused()).not.toBe('');
    });
    await walk('undo what was posted', 14, async () => {
      await keys.goTo('CD-0001', /CD-0001 · Count/);
      await keys.tabTo(/^Undo this posting$/);
      await keys.press('Enter');
      await visit.notice(/undone by UN-\d+/);
    });
    expect(Object.keys(counted)).toHaveLength(13);
    console.log(`Keys beside what is typed: ${JSON.stringify(counted)}`);
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });
});
