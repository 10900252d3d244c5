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
    const byDate = page.getByRole('region', { name: 'By the day it is wanted' });
    await byDate.getByText('this is how it stands').waitFor();
    const most = page.getByRole('region', { name: 'The most orders whole' });
    await most.getByText('1 order whole · €842.40 · 3 wait').waitFor();
    await page.getByLabel('Why').fill('Quince paid in advance');
    await page.getByRole('button', { name: 'Let O-0104 and B-0124 wait' }).click();
    await visit.notice(/shared out this way/);
    await page.getByText('This is how it stands.').waitFor();
    await page.getByRole('link', { name: 'O-0104' }).first().click();
    const turn = page.getByRole('region', { name: 'When it gets its parts' });
    await turn.getByText('Gets its parts after all others.').waitFor();
    await turn.getByText('Quince paid in advance').waitFor();
    await turn.getByRole('button', { name: 'Put it back in turn' }).click();
    await expect(turn).toBeHidden();
    await undo(/in turn again/);
    await turn.getByText('Gets its parts after all others.').waitFor();
    // The other way round: everybody in turn again.
    await page.goto('/cover/scarce?way=date');
    await page.getByRole('button', { name: 'Serve everybody in turn' }).click();
    await byDate.getByText('this is how it stands').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('are looked at one by one, and say so where there is nothing to share out', async () => {
    const { page } = visit;
    await page.goto('/cover/scarce');
    await page.getByText('Smoker, lined').first().click();
    await expect(page).toHaveURL(/items=43/);
    await page.getByRole('heading', { name: 'Who gets what' }).waitFor();
    await expect(page.getByRole('region', { name: 'Who gets what' }).getByText('Winter cover')).toBeHidden();
    await page.goto('/cover/scarce?items=39');
    await visit.heading('Nothing is scarce');
    expect(visit.faults).toEqual([]);
  });

  test('stand by date when the solver fails, and that is said', async () => {
    const { page } = visit;
    await page.route('**/*.wasm', (route) => route.abort());
    await page.goto('/cover/scarce');
    const most = page.getByRole('region', { name: 'The most orders whole' });
    await most.getByText('The search failed, so this cannot be said. Going by date stands.').waitFor();
    await page.getByText('The search failed; nothing was changed.').waitFor();
    await expect(page.getByRole('region', { name: 'By the day it is wanted' }).getByText(/4 wait/)).toBeVisible();
    await page.unroute('**/*.wasm');
  });

  test('are asked for in other quantities and with a late supplier beside the first question, and the case is taken over', async () => {
    const { page } = visit;
    await page.goto('/cover?want=43x70');
    await page.getByRole('button', { name: 'What if it were otherwise?' }).click();
    const cases = page.getByRole('list', { name: 'Cases side by side' });
    await cases.getByText('The same so far').waitFor();
    await page.getByLabel('Quantity of Smoker, lined').fill('12');
    await cases.getByText('12 × Smoker, lined').waitFor();
    await choose(page.getByLabel('What else is otherwise'), 'A supplier is late');
    await choose(page.getByLabel('Which supplier'), 'Ironbridge Fixings');
    await page.getByLabel('Days late').fill('0');
    await page.keyboard.press('Enter');
    await page.getByText(/^Type days from 1/).waitFor();
    await page.getByLabel('Days late').fill('9');
    await page.keyboard.press('Enter');
    await cases.getByText('12 × Smoker, lined; Ironbridge Fixings 9 days late').waitFor();
    // Back to the first and again to the second: both are as they were.
    await cases.getByRole('button', { name: /^As asked first/ }).click();
    await expect(page.getByLabel('Quantity of Smoker, lined')).toHaveValue('70');
    await cases.getByRole('button', { name: /^12 × Smoker/ }).click();
    await expect(page.getByLabel('Quantity of Smoker, lined')).toHaveValue('12');
    await page.getByRole('button', { name: 'Take it over…' }).click();
    const look = page.getByRole('dialog', { name: 'Take this case over?' });
    await look.getByRole('listitem').first().waitFor();
    await look.getByRole('button', { name: 'Take it', exact: true }).click();
    await visit.notice(/The case is taken/);
    await cases.getByText('12 × Smoker, lined', { exact: true }).waitFor();
    await undo(/The case is taken/);
    await page.getByRole('button', { name: 'Forget case 1' }).click();
    await expect(cases).toBeHidden();
    expect(visit.faults).toEqual([]);
  });

  test('are what somebody gets first in a case, and more of what is made is planned by it', async () => {
    const { page } = visit;
    await page.goto('/cover/time/43');
    await page.getByRole('button', { name: 'Another case' }).click();
    const editor = page.getByRole('group', { name: 'This case' });
    await choose(editor.getByLabel('What else is otherwise'), 'Somebody goes first, or waits');
    await choose(editor.getByLabel('Who'), /^O-0108/);
    await editor.getByRole('button', { name: 'Goes first', exact: true }).click();
    await editor.getByText('O-0108 goes first').waitFor();
    await choose(editor.getByLabel('What else is otherwise'), 'More of it is built');
    await editor.getByLabel('Wanted by').fill(dayIn(9));
    await editor.getByLabel('How many more').fill('3');
    await page.keyboard.press('Enter');
    await editor.getByText(/^3 more built by/).waitFor();
    await page.getByText(/^Taking it plans 1 build, changes when somebody gets their parts/).waitFor();
    await page.getByRole('button', { name: 'Take it…' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Take it', exact: true }).click();
    await visit.notice(/The case is taken. Planned B-/);
    await page.goto('/orders/1');
    await page.goto('/cover/scarce');
    await page.getByRole('region', { name: 'Who gets what' }).getByRole('link', { name: 'O-0108' }).first().click();
    await page.getByText('Gets its parts before all others.').waitFor();
    await page.getByRole('button', { name: 'Put it back in turn' }).click();
    expect(visit.faults).toEqual([]);
  });

  test('are moved from the store that has them', async () => {
    const { page } = visit;
    await page.goto('/cover?want=42x5&stores=2');
    await page.getByRole('link', { name: 'move 5' }).first().click();
    await visit.heading('1 line to move.');
    await expect(page.getByLabel(/^How many /)).toHaveValue('5');
    await page.getByRole('button', { name: 'Move 1 line' }).click();
    await visit.notice(/1 line moved/);
    await page.goto('/cover?want=42x5&stores=2');
    await expect(page.getByRole('link', { name: 'move 5' })).toHaveCount(2);
    expect(visit.faults).toEqual([]);
  });
});
