import { expect, test } from '@playwright/test';
import { Application, type Visit } from './harness.ts';

/** Pages on which only owners change anything, and what they say to others. */
const pages = [
  ['/stock/revalue', 'For the owner'],
  ['/set-up', 'For the owner'],
  ['/company', 'The company and its people'],
  ['/stock/places', /store/],
  ['/orders/107/papers', 'O-0107'],
] as const satisfies readonly (readonly [string, string | RegExp])[];

/** Fields of the page in which something could be typed or ticked, but for what looks something up. */
const typable = ({ page }: Visit) =>
  page.locator('#main').locator(':is(input:not([type=search], [role=combobox]), textarea):enabled').count();

test.describe('a builder', () => {
  let application: Application;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
  });
  test.afterAll(() => application.close());

  test('finds nothing to type that only an owner may save', async () => {
    const [mine, theirs] = [await application.open(), await application.open('Ada Quill')];
    for (const [path, heading] of pages) {
      await theirs.page.goto(path);
      await theirs.heading(heading);
      await theirs.loaded();
      expect([path, await typable(theirs)]).toEqual([path, 0]);
    }
    for (const [path] of pages.slice(1)) {
      await mine.page.goto(path);
      await expect.poll(() => typable(mine), path).toBeGreaterThan(0);
    }
  });

  test('is not led to what was paid, and told whom to ask there', async () => {
    const [mine, theirs] = [await application.open(), await application.open('Ada Quill')];
    const receipt = await application.one<{ id: number }>(
      "SELECT d.id FROM document d WHERE d.kind = 'receipt' AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)",
    );
    const sheet = `/stock/documents/${receipt?.id}`;
    await mine.page.goto(sheet);
    await mine.page.getByRole('link', { name: 'Invoice differs' }).click();
    await mine.page
      .getByLabel(/^Invoiced unit cost of/)
      .first()
      .waitFor();
    await theirs.page.goto(sheet);
    await theirs.page.getByRole('button', { name: 'Undo this posting' }).waitFor();
    await expect(theirs.page.getByRole('link', { name: 'Invoice differs' })).toHaveCount(0);
    await theirs.page.goto(`${sheet}/prices`);
    await theirs.page.getByText('Only an owner can change what was paid for stock. Ask one to do it.').waitFor();
    expect(await typable(theirs)).toBe(0);
  });
});
