import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { launchOptions } from './chromium.ts';
import { Application, type Visit } from './harness.ts';

/** Pictures of the main views for docs/screenshots, from the demo business. */
interface Shot {
  readonly file: string;
  readonly path: string;
  readonly ready: RegExp;
  readonly phone?: boolean;
  readonly before?: (visit: Visit) => Promise<void>;
}

const shots: readonly Shot[] = [
  { file: 'today', path: '/today', ready: /Ready to start/ },
  { file: 'define', path: '/define', ready: /30 products, 2 to fix/ },
  { file: 'board', path: '/build/board', ready: /yours today|unassigned/ },
  { file: 'repair', path: '/build/repairs/3', ready: /Hive scale of Alder Vale/ },
  { file: 'behaves', path: '/define/26?view=behaves', ready: /What happens with Winter evening gift/ },
  {
    file: 'import',
    path: '/stock/in-out',
    ready: /Import your catalogue/,
    before: async ({ page }) => {
      const rows = [
        'SKU;Description;UoM;Price;EAN;Reorder lvl;Finish',
        'PEG-OAK;Oak peg;each;1,25;4006381333931;40;oiled',
        'PEG-ASH;Ash peg;each;1,15;4006381333932;40;raw',
        'VARN-M;Varnish, matt;L;12,50;;5;',
        'GLUE-B;Bone glue;crate;4,00;;;',
        'BROOD-C;Brood box, cedar;each;;;3;',
      ];
      const file = { name: 'north shed 2026.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) };
      await page.getByLabel('File of items').setInputFiles(file);
      await page.getByRole('button', { name: /All 5/ }).click();
      await page.getByText('PEG-OAK · Oak peg').waitFor();
    },
  },
  { file: 'orders', path: '/orders', ready: /can ship now/ },
  {
    file: 'order',
    path: '/orders/107',
    ready: /Larkfield Allotments/,
    before: async ({ page }) => {
      await page.getByRole('button', { name: 'Show 3 parts' }).click();
      await page.getByRole('cell', { name: 'Honey tasting trio' }).first().waitFor();
    },
  },
  { file: 'cover', path: '/cover?want=48x12,42x40,44x60&by=2026-12-18', ready: /stuck on/ },
  {
    file: 'cover-time',
    path: '/cover/time/37?case=day.purchase.45.2026-12-14&at=1',
    ready: /^Short by/,
  },
  {
    file: 'build',
    path: '/build',
    ready: /on the bench/,
  },
  {
    file: 'finish',
    path: '/build/122/finish',
    ready: /What was actually used/,
    before: ({ page }) => page.getByLabel('Actually used of Assemble and calibrate').fill('64'),
  },
  {
    file: 'pick',
    path: '/pick/124',
    ready: /to pick for/,
    before: ({ page }) => page.getByLabel('Take now of Tasting jar, 125 ml').fill('60'),
  },
  {
    file: 'pick-phone',
    path: '/pick/124',
    ready: /B-0120/,
    phone: true,
    before: async ({ page }) => {
      await page.getByRole('button', { name: 'Start picking' }).click();
      await page.getByRole('region', { name: /^Pick / }).waitFor();
    },
  },
  {
    file: 'take-apart',
    path: '/take-apart/stock?item=48',
    ready: /of parts come back/,
    before: ({ page }) => page.getByLabel('Damaged Smoker, lined').fill('1'),
  },
  { file: 'item', path: '/stock/items/12', ready: /Beeswax/ },
  { file: 'buy-list', path: '/buying', ready: /items to buy/ },
  {
    file: 'scarce',
    path: '/cover/scarce',
    ready: /could have everything in time/,
    before: ({ page }) => page.getByText(/^Best possible, proved/).waitFor(),
  },
  { file: 'returns', path: '/take-apart', ready: /to deal with/ },
];

mkdirSync('docs/screenshots', { recursive: true });
const browser = await chromium.launch(launchOptions);
const application = await Application.start(browser);
const desk = await application.open();
const phone = await application.open('Tom Birch', { width: 390, height: 800 });
// One build goes to the bench, so that there is something to pick.
await desk.page.goto('/build/124');
await desk.page.getByRole('button', { name: 'Send to bench' }).click();
await desk.page.getByRole('link', { name: 'Pick its parts' }).waitFor();
for (const shot of shots) {
  const visit = shot.phone ? phone : desk;
  await visit.page.goto(shot.path);
  await visit.heading(shot.ready);
  await visit.loaded();
  await shot.before?.(visit);
  await visit.page.evaluate(() => document.fonts.ready);
  await visit.page.screenshot({ path: `docs/screenshots/${shot.file}.png`, animations: 'disabled' });
  console.log(`docs/screenshots/${shot.file}.png`);
}
await application.close();
await browser.close();
