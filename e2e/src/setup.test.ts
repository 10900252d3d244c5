import { expect, test } from '@playwright/test';
import { Application, choose, paste, type Visit } from './harness.ts';

test.describe('a company that begins', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser, 'new');
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('is set up in five steps, which can be left and come back to', async () => {
    const { page } = visit;
    await visit.heading('Who are you?');
    await page.getByLabel('Name', { exact: true }).fill('Kranich & Töchter');
    await choose(page.getByLabel('Number and date format'), /^German \(Germany\)/);
    await expect(page.getByText('1.234,50\u00a0€')).toBeVisible();
    await page.getByRole('button', { name: 'Save company' }).click();
    await visit.notice('The company is saved.');
    await page.getByRole('button', { name: 'Next: People' }).click();
    await visit.heading('Who works here?');
    // Next saves what was typed.
    await page.getByLabel('Name of a new person').fill('Ada Quill');
    await page.getByRole('button', { name: 'Next: Places' }).click();
    await visit.heading('Where do you keep things?');
    await page.getByRole('button', { name: 'Back' }).click();
    await expect(page.getByLabel('Initials of Ada Quill')).toHaveValue('AQ');
    await page.getByRole('link', { name: 'Finish later' }).click();
    await page.getByText('step 3 of 5').waitFor();
    await page.reload();
    await page.getByRole('link', { name: 'Continue' }).click();
    await visit.heading('Where do you keep things?');
    await page.getByLabel('Code').fill('SHOP');
    await page.getByLabel('Name').fill('The shop');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    // A column of a spreadsheet becomes as many bins; what is typed beneath it and not added is one too.
    await paste(page.getByLabel('New bin'), 'A1\nA2\nA3');
    await page.getByLabel('Code of bin A2').press('Alt+ArrowUp');
    await page.getByLabel('New bin').fill('A2');
    await page.getByRole('button', { name: 'Next: Items' }).click();
    await expect(page.getByLabel('New bin')).toHaveAttribute('aria-invalid', 'true');
    await visit.heading('Where do you keep things?');
    await page.getByLabel('New bin').fill('A4');
    await page.getByRole('button', { name: 'Next: Items' }).click();
    await visit.heading('What do you buy and make?');
    expect(
      await application.one(
        "SELECT group_concat(code, ' ') AS bins FROM (SELECT code FROM bin ORDER BY picking_order)",
      ),
    ).toEqual({
      bins: 'A2 A1 A3 A4 Bench',
    });
    await page.getByRole('link', { name: 'Enter one by hand' }).click();
    await page.getByLabel('Code', { exact: true }).fill('LEG');
    await page.getByLabel('Name').fill('Stool leg');
    await page.getByRole('button', { name: 'Add item' }).click();
    await visit.heading('Stool leg');
    await page.getByRole('link', { name: 'Continue' }).click();
    await page.getByText('1 item so far.').waitFor();
    await page.getByRole('button', { name: 'Next: First product' }).click();
    await page.getByRole('link', { name: 'New bill of materials' }).click();
    await page.getByRole('combobox', { name: 'What is made?' }).fill('Milking stool');
    await page.getByRole('option', { name: /New item/ }).click();
    // Made here, with a code proposed from its name.
    await expect(page.getByRole('dialog').getByLabel('Code')).toHaveValue('MILKI-STOO');
    await page.getByRole('button', { name: 'Add and use it' }).click();
    await visit.heading('Milking stool');
    expect(await application.one("SELECT source FROM item WHERE code = 'MILKI-STOO'")).toEqual({ source: 'made' });
    // Labour needs a rate, and there is none: it is asked for there.
    await page.getByRole('button', { name: '+ Labour' }).click();
    const rate = page.getByRole('dialog', { name: 'What does an hour of work cost?' });
    await rate.getByLabel('Per hour').fill('32');
    await page.keyboard.press('Enter');
    await expect(rate).toBeHidden();
    await expect(page.locator('[data-cell="0.text"]')).toBeFocused();
    await page.keyboard.press('Control+s');
    await page.getByText('Saved. Ctrl S saves again.').waitFor();
    await page.getByRole('link', { name: 'Continue' }).click();
    await page.getByText('Milking stool is started.').waitFor();
    await page.getByRole('button', { name: 'Done' }).click();
    await expect(page).toHaveURL(/today/);
    await expect(page.getByText('Setting up your company')).toBeHidden();
    expect(visit.faults).toEqual([]);
    expect(await application.verify()).toEqual([]);
  });
});
