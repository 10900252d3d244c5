import { expect, type Page, test } from '@playwright/test';
import { addresses, makeRun } from './addresses.ts';
import { prepareAxe, violations } from './axe.ts';
import { Application, type Visit } from './harness.ts';

const SIZES = [
  { width: 1280, height: 800 },
  { width: 820, height: 1000 },
  { width: 390, height: 800 },
];
/** Everything that is typed into: no choice, no tick, no box that looks for an item and is empty again when it has one. */
const TYPED = '#main :is(input:is([type=text], [type=search], :not([type])):not([role=combobox]), textarea):enabled';

test.describe('every view', () => {
  test.describe.configure({ mode: 'parallel' });
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
    await prepareAxe(visit);
    await makeRun(visit);
  });
  test.afterAll(() => application.close());

  for (const [what, path, heading] of addresses)
    test(`${what}: can be used by everybody, only panes scroll, what is typed stays, and what cannot be fetched is said`, async () => {
      const { page } = visit;
      visit.faults.length = 0;
      await page.setViewportSize(SIZES[0] ?? { width: 1280, height: 800 });
      await page.goto(path);
      await visit.heading(new RegExp(heading));
      await visit.loaded();
      expect.soft(await violations(visit)).toEqual([]);
      await expect.soft(page.locator('h1')).toHaveCount(1);
      expect.soft(await misnamed(page)).toEqual([]);
      // Named, so that tabs and the browser's history can be told apart.
      expect.soft(await page.title()).toMatch(/\S · Yosegi$/);
      for (const size of SIZES) {
        await page.setViewportSize(size);
        await reachFarthest(page);
        expect.soft(await scrolled(page)).toEqual({ top: 0, tooLong: 0, tooWide: 0 });
        expect.soft(await squeezed(page)).toEqual([]);
      }
      await page.setViewportSize(SIZES[0] ?? { width: 1280, height: 800 });

      const typed = await typeEverywhere(page);
      await page.reload();
      await visit.loaded();
      await expect.soft.poll(() => textsOf(page)).toMatchObject(typed);

      await page.route(/\/api\/(?!session|events|people)/, (route) =>
        route.request().method() === 'GET' ? route.fulfill({ status: 503, body: 'gone' }) : route.continue(),
      );
      await page.reload();
      await page.getByRole('button', { name: 'Try again' }).first().waitFor();
      await page.unroute(/\/api\/(?!session|events|people)/);
      expect(visit.faults).toEqual([]);
    });
});

/** Puts the focus where a browser would scroll the most to show it. */
async function reachFarthest(page: Page): Promise<void> {
  const last = page.locator('#main').getByRole('checkbox').or(page.locator('#main').getByRole('radio')).last();
  if ((await last.count()) > 0 && (await last.isEnabled())) await last.focus();
}

const scrolled = (page: Page) =>
  page.evaluate(() => {
    const { scrollTop, scrollHeight, clientHeight, scrollWidth, clientWidth } =
      document.scrollingElement ?? document.body;
    return { top: scrollTop, tooLong: scrollHeight - clientHeight, tooWide: scrollWidth - clientWidth };
  });

/** Names that have so little room that they are broken letter by letter, and cells whose text lies over the next one. */
const squeezed = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll('td, td *')]
      .filter((element) => {
        if (element.matches('td, th'))
          return getComputedStyle(element).overflowX === 'visible' && element.scrollWidth > element.clientWidth + 1;
        const { width, height } = element.getBoundingClientRect();
        const isText = element.children.length === 0 && (element.textContent ?? '').trim().length > 6;
        return isText && width > 0 && width < 42 && height > 50;
      })
      .map((element) => element.textContent ?? ''),
  );

/** Names that are read aloud and were never meant to be: pieces of code, or of a style. */
const misnamed = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll('[aria-label]')]
      .map((element) => element.ariaLabel ?? '')
      .filter((name) => name.trim() === '' || /[{};]|var\(|\[object|undefined|NaN/.test(name)),
  );

/** What stands in each field that is typed into, by its name. */
const textsOf = (page: Page): Promise<Record<string, string>> =>
  page.evaluate((typed) => {
    const texts: Record<string, string> = {};
    for (const field of document.querySelectorAll<HTMLInputElement>(typed)) {
      const name = field.ariaLabel ?? field.labels?.[0]?.textContent ?? field.placeholder;
      // Two of the same name are told apart by their order.
      let own = name;
      for (let n = 2; own in texts; n += 1) own = `${name} ${n}`;
      if (field.getClientRects().length > 0) texts[own] = field.value;
    }
    return texts;
  }, TYPED);

/**
 * Types something into every field, as far as there are few.
 * @returns what stands in these now and did not before; what follows from it, like a margin, may still be on its way
 */
async function typeEverywhere(page: Page): Promise<Record<string, string>> {
  const before = await textsOf(page);
  const filled = new Set<string>();
  const fields = page.locator(TYPED).filter({ visible: true });
  const last = Math.min(await fields.count(), MOST_FIELDS);
  for (let at = 0; at < last; at += 1) {
    const field = fields.nth(at);
    if (!(await field.isVisible())) break;
    filled.add(Object.keys(await textsOf(page))[at] ?? '');
    const isNumber = (await field.getAttribute('inputmode')) === 'decimal';
    const isDay = (await field.locator('xpath=..').getByRole('button', { name: 'Calendar' }).count()) > 0;
    await field.fill(isNumber ? '2' : isDay ? '24/12/2029' : 'Ash');
  }
  // A field that is saved when it is left has the focus no more.
  await page.keyboard.press('Tab');
  const after = await textsOf(page);
  return Object.fromEntries(Object.entries(after).filter(([name, text]) => filled.has(name) && before[name] !== text));
}
const MOST_FIELDS = 12;
