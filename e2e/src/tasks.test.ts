import { expect, test } from '@playwright/test';
import { Application, choose, type Visit } from './harness.ts';

/** Tasks: on a build's sheet and in the list of all of them. */
test.describe('tasks', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('are clocked, written down, added and skipped on a build, and finishing it books them', async () => {
    const { page } = visit;
    await page.goto('/build/121');
    const tasks = page.getByRole('region', { name: 'Tasks' });
    await tasks.getByText('Drill and fit').waitFor();
    await tasks.getByRole('button', { name: 'Start the clock' }).click();
    await tasks.getByRole('button', { name: 'Stop the clock' }).click();
    await tasks.getByText(/^1 of 56 min/).waitFor();
    await tasks.getByRole('button', { name: 'Enter minutes…' }).click();
    await page.getByLabel('Minutes worked today').fill('2000');
    await page.keyboard.press('Enter');
    await tasks.getByText(/^A day has 24 hours/).waitFor();
    await page.getByLabel('Minutes worked today').fill('41');
    await page.keyboard.press('Enter');
    await tasks.getByText(/^42 of 56 min/).waitFor();
    await tasks.getByRole('button', { name: 'Add a task' }).click();
    await choose(tasks.getByLabel('Time or cost'), 'Bought-in service');
    await tasks.getByLabel('Task').fill('Engraving next door');
    await tasks.getByLabel('Price planned').fill('14');
    await tasks.getByLabel('Reason', { exact: true }).fill('The customer asked');
    await tasks.getByRole('button', { name: 'Add task' }).click();
    await tasks.getByText(/added by Mo Okafor: The customer asked/).waitFor();
    await tasks.getByText('Drill and fit').click();
    await expect(tasks.getByText('1 task open')).toBeVisible();
    await page.goto('/build/121/finish');
    await expect(page.getByLabel(/Drill and fit/)).toHaveValue('42');
    await page.getByText('€14.00').first().waitFor();
    await page.goto('/build/121');
    await tasks.getByRole('button', { name: 'Skip…' }).click();
    await page.getByLabel('Reason for skipping').fill('They changed their mind');
    await page.keyboard.press('Enter');
    await tasks.getByText('all done').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('are booked too where some are rejected: carried by the good ones, or written off as planned', async () => {
    const { page } = visit;
    await page.goto('/build/121/finish');
    await page.getByLabel('Good units').fill('5');
    await page.getByLabel('Rejected').fill('1');
    await page.getByText('Filled in from the plan for 6.').waitFor();
    await page.getByRole('button', { name: /^Finish 5/ }).click();
    await page.getByText('Enter why some are rejected.').first().waitFor();
    await choose(page.getByLabel('Reason for rejecting'), 'Faulty part');
    await page.getByRole('button', { name: /^Finish 5/ }).click();
    await visit.notice(/5 × Feeder, 2 litre at/);
    await page.getByText('5 of 14, 1 rejected').waitFor();
    await page.goto('/build/121/finish');
    await page.getByText('8 left to finish').waitFor();
    await page.getByLabel('Good units').fill('0');
    await page.getByLabel('Rejected').fill('1');
    await page.getByText('There are no good units to absorb the cost of the rejects. Write it off.').waitFor();
    await choose(page.getByLabel('Cost of rejects'), 'is written off as planned');
    await page.getByText(/€[\d.]+ written off/).waitFor();
    await choose(page.getByLabel('Reason for rejecting'), 'Broken on the bench');
    await page.getByRole('button', { name: /^Finish 0/ }).click();
    await page.getByText('5 of 14, 2 rejected').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('are found by whose they are, and given to somebody many at once', async () => {
    const { page } = visit;
    await page.goto('/build');
    await page.getByRole('link', { name: 'Tasks', exact: true }).click();
    await visit.heading(/tasks/);
    await choose(page.getByLabel('Whose tasks'), 'Unassigned');
    await expect(page).toHaveURL(/who=nobody/);
    const rows = page.getByRole('row').filter({ hasText: 'unassigned' });
    const count = await rows.count();
    expect(count).toBeGreaterThan(2);
    for (const at of [0, 1]) await rows.nth(at).locator('label').first().click();
    await page.getByText('2 tasks chosen').waitFor();
    await choose(page.getByLabel('Person'), 'Tom Birch');
    await expect(rows).toHaveCount(count - 2);
    await choose(page.getByLabel('Whose tasks'), 'Tom Birch');
    await page.getByRole('row').filter({ hasText: 'Tom Birch' }).first().waitFor();
    expect(visit.faults).toEqual([]);
  });
});
