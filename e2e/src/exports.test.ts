import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { Application, dayIn, type Visit } from './harness.ts';

/** Every list that goes into a file: where it is, what the file is called, its titles, and how many it must at least hold. */
const LISTS: readonly (readonly [string, string, string, number])[] = [
  ['/orders', 'orders-open', 'Order', 8],
  ['/build', 'builds', 'Build', 5],
  ['/build/tasks', 'tasks', 'Task', 3],
  ['/build/repairs', 'repairs', 'Repair', 2],
  ['/orders/customers', 'customers', 'Code', 5],
  ['/buying/suppliers', 'suppliers', 'Name', 3],
  ['/buying', 'buy-list', 'Code', 3],
  ['/buying/reorder', 'reorder-points', 'Code', 3],
  ['/stock/on-a-day', 'stock', 'Code', 20],
  ['/orders/jobs', 'jobs', 'Job', 1],
  ['/take-apart/returns', 'returns', 'Return', 3],
];

const save = async (page: Page, kind: 'CSV file' | 'XLSX file') => {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export', exact: true }).first().click();
  await page.getByRole('menuitem', { name: kind }).click();
  const file = await download;
  return { name: file.suggestedFilename(), content: await readFile(await file.path()) };
};

test.describe('every list', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  for (const [path, name, title, least] of LISTS)
    test(`${path} goes into a file`, async () => {
      const { page } = visit;
      await page.goto(path);
      await visit.loaded();
      const csv = await save(page, 'CSV file');
      expect(csv.name).toBe(`yosegi-${name}-${dayIn(0)}.csv`);
      const [titles = '', ...rows] = csv.content
        .toString('utf8')
        .replace(/^\uFEFF/, '')
        .trim()
        .split(/\r?\n/);
      expect(titles.split(/[,;]/)).toContain(title);
      expect(rows.length).toBeGreaterThanOrEqual(least);
      const xlsx = await save(page, 'XLSX file');
      expect(xlsx.name).toBe(`yosegi-${name}-${dayIn(0)}.xlsx`);
      expect(xlsx.content.subarray(0, 2).toString()).toBe('PK');
      expect(visit.faults).toEqual([]);
    });

  test('as it was on another day bears that day', async () => {
    const { page } = visit;
    await page.goto(`/stock/on-a-day?day=${dayIn(-20)}`);
    await visit.loaded();
    expect((await save(page, 'CSV file')).name).toBe(`yosegi-stock-${dayIn(-20)}.csv`);
  });

  test('goes into its file whole, also what is not shown yet', async () => {
    const { page } = visit;
    const all = await application.one<{ n: number }>(
      "SELECT count(*) AS n FROM sales_order WHERE state = 'confirmed' AND open = 0",
    );
    await page.goto('/orders?show=shipped');
    await visit.loaded();
    const { content } = await save(page, 'CSV file');
    expect(content.toString('utf8').trim().split(/\r?\n/).length - 1).toBe(all?.n);
  });
});
