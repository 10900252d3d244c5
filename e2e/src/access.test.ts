import { createRequire } from 'node:module';
import { expect, test } from '@playwright/test';
import { Application, type Visit } from './harness.ts';

const axeFile = createRequire(import.meta.url).resolve('axe-core/axe.min.js');

test.describe('every main view', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
    // axe is put into the page by the test, which the page's own policy would refuse.
    const client = await visit.context.newCDPSession(visit.page);
    await client.send('Page.setBypassCSP', { enabled: true });
  });
  test.afterAll(() => application.close());

  for (const [_, path, heading] of [
    ['Today', '/today', 'Ready to start'],
    ['Define', '/define/2', 'Ten-frame hive, cedar'],
    ['a draft', '/define/5?rev=2', 'Smoker, lined'],
    ['how a kit behaves', '/define/10?view=behaves', 'What happens with'],
    ['a difference', '/define/2?view=compare&rev=2&against=1', '2 lines differ'],
    ['where it is used', '/define/2?view=used', 'goes into 3 products'],
    ['definitions to put right', '/define/faults', 'to put right'],
    ['replacing a part', '/define/replace?part=8&by=7&ratio=0.01', 'products in use list'],
    ['Cover', '/cover?want=40x24,42x30', 'stuck on'],
    ['orders of customers', '/orders', 'can leave now'],
    ['an order of a customer', '/orders/107', 'Larkfield Allotments'],
    ['an order that is out', '/orders/104', 'Brook School'],
    ['orders over four weeks', '/orders/weeks', 'wanted this week'],
    ['papers of an order', '/orders/107/papers', 'O-0107'],
    ['picking for an order', '/pick/orders/105', 'to pick for O-0105'],
    ['the stand-in for a shop', '/devices/shop', 'Hive & Honey'],
    ['an order being entered', '/orders?new=1', 'A new order'],
    ['a customer', '/orders/customers/1', 'Alder Vale Apiaries'],
    ['a new customer', '/orders/customers?new=1', 'A new customer'],
    ['Build', '/build/120', '24 × Ten-frame hive'],
    ['finishing', '/build/116/finish', 'What was really used'],
    ['Pick', '/pick/115', 'to pick for'],
    ['Take apart', '/take-apart?item=48', 'of parts come back'],
    ['all items', '/stock/items', 'items, .* reorder point'],
    ['what another cost does', '/stock/items/1?view=effect', 'If it cost something else'],
    ['the buy list', '/buying', 'have to be bought'],
    ['orders', '/buying/orders', 'orders are late'],
    ['an order', '/buying/orders/28', 'PO-0028'],
    ['an order being written', '/buying/orders/29', 'draft'],
    ['receiving an order', '/buying/orders/27/receive', 'come in'],
    ['an order on paper', '/print/order/27', 'Purchase order PO-0027'],
    ['a supplier', '/buying/suppliers/6', 'Combe Metalwares'],
    ['the price of a receipt', '/stock/documents/399/prices', 'What does the invoice'],
    ['revaluing', '/stock/revalue', 'worth something else'],
    ['what to put right', '/stock/put-right', '1 thing to put right'],
    ['lots', '/stock/lots', 'past its day'],
    ['the label printer', '/devices/printer', 'No labels yet'],
    ['the scanner', '/devices/scanner', 'held before the scanner'],
    ['the mailbox', '/devices/mailbox', 'has sent off'],
    ['in and out', '/stock/in-out', 'Bring your catalogue in'],
    ['a definition on paper', '/print/definition/2', 'Ten-frame hive'],
    ['an item', '/stock/items/32', 'First season guide'],
    ['changing an item', '/stock/items/32?edit=1', 'Change First season guide'],
    ['movements', '/stock/movements', 'Everything that moved'],
    ['a document', '/stock/documents/20', '·'],
    ['moving', '/stock/move', 'What goes where'],
    ['adjusting', '/stock/adjust', 'What needs correcting'],
    ['counting', '/stock/counts', 'No count is open'],
    ['stock on a day', '/stock/on-a-day', 'stock was worth'],
    ['receiving', '/stock/receive?item=32', 'come in'],
    ['places', '/stock/places', '3 stores'],
    ['labels of bins', '/print/bins/1', 'Labels of Main store'],
    ['the bench sheet', '/print/bench/56', 'Bench sheet'],
  ] as const)
    test(`${_} has no serious fault that axe can find`, async () => {
      await visit.page.goto(path);
      await visit.heading(new RegExp(heading));
      await visit.loaded();
      await visit.page.addScriptTag({ path: axeFile });
      const violations = await visit.page.evaluate(async () => {
        const { axe } = window as unknown as {
          axe: {
            run(options: object): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
          };
        };
        const { violations: found } = await axe.run({
          runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
        });
        return found
          .filter(({ impact }) => impact === 'serious' || impact === 'critical')
          .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
      });
      expect(violations).toEqual([]);
      // Named, so that tabs and the browser's history can be told apart.
      expect(await visit.page.title()).toMatch(/\S · Yosegi$/);
      expect(visit.faults).toEqual([]);
    });
});
