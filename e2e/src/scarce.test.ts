import { expect, test } from '@playwright/test';
import { Application, choose, dayIn, type Visit } from './harness.ts';

/** Parts of which there is not enough: who gets them, cases side by side, what other stores have. */
test.describe('scarce parts', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());
  const undo = (of: RegExp) => visit.notices.filter({ hasText: of }).getByRole('button', { name: 'Undo' }).click();

  test('are shared out so that one order more is whole, followed by everybody, with who and why, and taken back', async () => {
    const { page } = visit;
    await page.goto('/cover');
    await page.getByRole('link', { name: 'Who gets the scarce parts?' }).click();
    await visit.heading('1 more order could have everything in time.');
    await page.getByText(/^Best possible, proved in/).waitFor();
    const byDate = page.getByRole('region', { name: 'By wanted date' });
    await byDate.getByText('current allocation').waitFor();
    const most = page.getByRole('region', { name: 'Most orders complete' });
    await most.getByText('1 order complete · €842.40 · 3 late').waitFor();
    await page.getByLabel('Reason').fill('Quince paid in advance');
    await page.getByRole('button', { name: 'Put O-0104 and B-0124 last' }).click();
    await visit.notice(/allocated this way/);
    await page.getByText('This is the current allocation.').waitFor();
    await page.getByRole('link', { name: 'O-0104' }).first().click();
    const turn = page.getByRole('region', { name: 'When it gets its parts' });
    await turn.getByText('Gets its parts after all others.').waitFor();
    await turn.getByText('Quince paid in advance').waitFor();
    await turn.getByRole('button', { name: 'Allocate in turn again' }).click();
    await expect(turn).toBeHidden();
    await undo(/in turn again/);
    await turn.getByText('Gets its parts after all others.').waitFor();
    // The other way round: everybody in turn again.
    await page.goto('/cover/scarce?way=date');
    await page.getByRole('button', { name: 'Serve everyone in turn' }).click();
    await byDate.getByText('current allocation').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('are looked at one by one, and say so where there is nothing to share out', async () => {
    const { page } = visit;
    await page.goto('/cover/scarce');
    await page.getByText('Smoker, lined').first().click();
    await expect(page).toHaveURL(/items=43/);
    await page.getByRole('heading', { name: 'Allocation' }).waitFor();
    await expect(page.getByRole('region', { name: 'Allocation' }).getByText('Winter cover')).toBeHidden();
    await page.goto('/cover/scarce?items=39');
    await visit.heading('Nothing is scarce');
    expect(visit.faults).toEqual([]);
  });

  test('stand by date when the solver fails, and that is said', async () => {
    const { page } = visit;
    await page.route('**/*.wasm', (route) => route.abort());
    await page.goto('/cover/scarce');
    const most = page.getByRole('region', { name: 'Most orders complete' });
    await most.getByText('The search failed. Allocation by date stays in place.').waitFor();
    await page.getByText('The search failed; nothing was changed.').waitFor();
    await expect(page.getByRole('region', { name: 'By wanted date' }).getByText(/4 late/)).toBeVisible();
    await page.unroute('**/*.wasm');
  });

  test('are asked for in other quantities and with a late supplier beside the first question, and the case is taken over', async () => {
    const { page } = visit;
    await page.goto('/cover?want=43x70');
    await page.getByRole('button', { name: 'Try a change…' }).click();
    const cases = page.getByRole('list', { name: 'Cases side by side' });
    await cases.getByText('Same so far').waitFor();
    await page.getByLabel('Quantity of Smoker, lined').fill('12');
    await cases.getByText('12 × Smoker, lined').waitFor();
    await choose(page.getByLabel('Add a change'), 'A supplier is late');
    await choose(page.getByLabel('Which supplier'), 'Ironbridge Fixings');
    await page.getByLabel('Days late').fill('0');
    await page.keyboard.press('Enter');
    await page.getByText(/^Enter days from 1/).waitFor();
    await page.getByLabel('Days late').fill('9');
    await page.keyboard.press('Enter');
    await cases.getByText('12 × Smoker, lined; Ironbridge Fixings 9 days late').waitFor();
    // Back to the first and again to the second: both are as they were.
    await cases.getByRole('button', { name: /^Original question/ }).click();
    await expect(page.getByLabel('Quantity of Smoker, lined')).toHaveValue('70');
    await cases.getByRole('button', { name: /^12 × Smoker/ }).click();
    await expect(page.getByLabel('Quantity of Smoker, lined')).toHaveValue('12');
    await page.getByRole('button', { name: 'Apply…' }).click();
    const look = page.getByRole('dialog', { name: 'Apply this case?' });
    await look.getByRole('listitem').first().waitFor();
    await look.getByRole('button', { name: 'Use', exact: true }).click();
    await visit.notice(/The case is applied/);
    await cases.getByText('12 × Smoker, lined', { exact: true }).waitFor();
    await undo(/The case is applied/);
    await page.getByRole('button', { name: 'Delete case 1' }).click();
    await expect(cases).toBeHidden();
    expect(visit.faults).toEqual([]);
  });

  test('are what someone gets first in a case, and more of what is made is planned by it', async () => {
    const { page } = visit;
    await page.goto('/cover/time/43');
    await page.getByRole('button', { name: 'Add another case' }).click();
    const editor = page.getByRole('group', { name: 'This case' });
    await choose(editor.getByLabel('Add a change'), 'Priority changes');
    await choose(editor.getByLabel('Order or build'), /^O-0108/);
    await editor.getByRole('button', { name: 'Put first', exact: true }).click();
    await editor.getByText('O-0108 goes first').waitFor();
    await choose(editor.getByLabel('Add a change'), 'More is built');
    await editor.getByLabel('Wanted by').fill(dayIn(9));
    await editor.getByLabel('Extra quantity').fill('3');
    await page.keyboard.press('Enter');
    await editor.getByText(/^3 more built by/).waitFor();
    await page.getByText(/^Applying this case plans 1 build, changes when someone gets their parts/).waitFor();
    await page.getByRole('button', { name: 'Apply…' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Use', exact: true }).click();
    await visit.notice(/The case is applied. Planned B-/);
    await page.goto('/orders/1');
    await page.goto('/cover/scarce');
    await page.getByRole('region', { name: 'Allocation' }).getByRole('link', { name: 'O-0108' }).first().click();
    await page.getByText('Gets its parts before all others.').waitFor();
    await page.getByRole('button', { name: 'Allocate in turn again' }).click();
    expect(visit.faults).toEqual([]);
  });

  test('are moved from the store that has them', async () => {
    const { page } = visit;
    await page.goto('/cover?want=42x5&stores=2');
    await page.getByRole('link', { name: 'move 5' }).first().click();
    await visit.heading('1 line to move.');
    await expect(page.getByLabel(/^Quantity of /)).toHaveValue('5');
    await page.getByRole('button', { name: 'Move 1 line' }).click();
    await visit.notice(/1 line moved/);
    await page.goto('/cover?want=42x5&stores=2');
    await expect(page.getByRole('link', { name: 'move 5' })).toHaveCount(2);
    expect(visit.faults).toEqual([]);
  });
});
