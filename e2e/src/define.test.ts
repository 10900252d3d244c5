import { expect, test } from '@playwright/test';
import { Application, choose, Keyboard, tick, type Visit } from './harness.ts';

/** Pastes as a spreadsheet would: cells apart by tabs, rows by lines. */
const paste = (visit: Visit, rows: readonly (readonly string[])[]) =>
  visit.page.getByRole('combobox', { name: 'Add a part' }).evaluate(
    (input, text) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/plain', text);
      input.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    },
    rows.map((row) => row.join('\t')).join('\n'),
  );

test.describe('defining', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());
  const components = () => visit.page.locator('tbody b').allTextContents();

  test('a product of twelve lines takes fewer than 60 presses beyond its data, from nothing and by keyboard alone', async () => {
    const { page } = visit;
    await page.goto('/define');
    await visit.heading(/30 products, 2 to fix/);
    const keys = new Keyboard(page);
    const focusedOn = (label: string) =>
      expect
        .poll(() =>
          page
            .getByLabel(label)
            .first()
            .evaluate((input) => input === document.activeElement),
        )
        .toBe(true);
    await keys.goTo('New bill of materials', /New bill of materials/);
    await focusedOn('What is made?');
    await keys.type('APIARY-1');
    await keys.press('Enter');
    await visit.heading('New item');
    await keys.type('Apiary box');
    await keys.press('Enter');
    await visit.heading('Apiary box');
    await focusedOn('Add a part');
    const parts = [
      ['BROOD-C', '1', 'Brood box, cedar'],
      ['SUPER-C', '2', 'Honey super, cedar'],
      ['FLOOR-C', '1', 'Floor frame, cedar'],
      ['ROOF-Z', '1', 'Roof, zinc top'],
      ['MESH-3', '46 cm', 'Floor mesh, 3 mm', '0.46'],
      ['OIL-T', '120 ml', 'Tung oil, pure', '0.12'],
      ['NAIL-20', '40 g', 'Frame nails, 20 mm', '0.04'],
      ['SCREW-40', '1/10 box', 'Screw 4 × 40 mm', '20'],
      ['FRM-W', '10', 'Wired frame, waxed'],
      ['HB-GUIDE', '1', 'First season guide'],
    ] as const;
    for (const [code, quantity, name] of parts) {
      await keys.type(code);
      await keys.press('Enter');
      await focusedOn(`Amount of ${name}`);
      await keys.type(quantity);
      await keys.press('Enter');
    }
    for (const [add, kind, text, amount] of [
      ['Alt+l', 'labour', 'Assemble', '25'],
      ['Alt+c', 'charge', 'Branding', '1.5'],
    ] as const) {
      await keys.press(add);
      await focusedOn(`${kind}, line`);
      await keys.type(text);
      // Enter goes on to what is still wanted of the line.
      await keys.press('Enter');
      await focusedOn(`Amount of ${text}`);
      await keys.type(amount);
      await keys.press('Enter');
    }
    await keys.press('Control+Enter');
    await visit.notice('Revision 1 of Apiary box is in use');
    expect(keys.presses).toBeLessThan(60);
    const lines = await application.one<{ lines: number; screws: number; mesh: number }>(
      `SELECT count(*) AS lines, sum(iif(c.code = 'SCREW-40', l.amount, 0)) AS screws, sum(iif(c.code = 'MESH-3', l.amount, 0)) AS mesh
       FROM revision_line l JOIN revision r ON r.id = l.revision_id JOIN definition d ON d.id = r.definition_id
       JOIN item i ON i.id = d.item_id LEFT JOIN item c ON c.id = l.item_id WHERE i.code = 'APIARY-1'`,
    );
    expect(lines).toEqual({ lines: 12, screws: 20e6, mesh: 460_000 });
    expect(visit.faults).toEqual([]);
  });

  test('rows of a spreadsheet come in, what did not match is mended, and every step is undone and redone', async () => {
    const { page } = visit;
    await page.goto('/define/5?rev=2');
    await page.getByLabel('Amount of Smoker can, steel').waitFor();
    const before = await components();
    await paste(visit, [
      ['Part', 'Qty', 'Unit'],
      ['HOOK-SMK', '2', 'pcs'],
      ['Tung oil, pure', '1,5', 'L'],
      ['honey', '170', 'g'],
      ['No such thing', '3', ''],
    ]);
    await page.getByText('2 pasted rows could not be matched').waitFor();
    expect(await components()).toEqual([...before, 'Smoker hook', 'Tung oil, pure']);
    expect(await page.getByLabel('Amount of Tung oil, pure').inputValue()).toBe('1.5 L');
    expect(await page.getByRole('button', { name: 'Put in use' }).isDisabled()).toBe(true);
    await page.getByRole('button', { name: 'Save draft' }).click();
    await expect
      .poll(() =>
        application.one(
          'SELECT count(*) AS n FROM revision_line WHERE revision_id = (SELECT id FROM revision WHERE definition_id = 5 AND number = 2)',
        ),
      )
      .toEqual({ n: 8 });
    await page.reload();
    await page.getByText('2 pasted rows could not be matched').waitFor();
    await page.getByRole('button', { name: 'Heather honey' }).click();
    expect(await page.getByLabel('Amount of Heather honey').inputValue()).toBe('170 g');
    await page.getByRole('combobox', { name: 'Which item is “No such thing”' }).fill('Wooden thing');
    await page.getByRole('option', { name: /New item Wooden thing/ }).click();
    await page.getByRole('dialog').getByLabel('Code').fill('THING-W');
    await page.getByRole('dialog').getByLabel('Unit cost, as far as you know').fill('2.4');
    await page.getByRole('button', { name: 'Add and use it' }).click();
    await page.getByLabel('Amount of Wooden thing').waitFor();
    await expect(page.getByText('could not be matched')).toHaveCount(0);
    const whole = await components();
    await page.getByLabel('Amount of Wooden thing').fill('7');
    await page.keyboard.press('Control+z');
    await expect(page.getByLabel('Amount of Wooden thing')).toHaveValue('3');
    await page.getByLabel('Amount of Wooden thing').focus();
    for (let step = 0; step < 2; step += 1) await page.keyboard.press('Control+z');
    await page.getByText('2 pasted rows could not be matched').waitFor();
    await page.getByLabel('Amount of Smoker hook').first().focus();
    for (let step = 0; step < 2; step += 1) await page.keyboard.press('Control+y');
    await expect.poll(components).toEqual(whole);
    expect(visit.faults).toEqual([]);
  });

  test('lines move by handle and by keys, and list what may stand in for them', async () => {
    const { page } = visit;
    const handles = page.locator('[title^="Drag to another place"]');
    const from = await handles.nth(0).boundingBox();
    const to = await handles.nth(2).boundingBox();
    if (!from || !to) throw new Error('no handles');
    await page.mouse.move(from.x + 5, from.y + 5);
    await page.mouse.down();
    await page.mouse.move(from.x + 5, from.y + 30, { steps: 4 });
    await page.mouse.move(to.x + 5, to.y + 8, { steps: 6 });
    await page.mouse.up();
    await expect.poll(() => components().then((names) => names.indexOf('Smoker can, steel'))).toBe(2);
    await page.getByLabel('Amount of Smoker can, steel').focus();
    await page.keyboard.press('Alt+ArrowUp');
    await page.keyboard.press('Alt+ArrowUp');
    await expect.poll(() => components().then((names) => names.indexOf('Smoker can, steel'))).toBe(0);
    await page.keyboard.press('Alt+a');
    await page.getByRole('combobox', { name: 'Add an alternate to Smoker can, steel' }).fill('feeder tub');
    await page.getByRole('option', { name: /Feeder tub/ }).click();
    await page.getByLabel('Ratio of Feeder tub, 2 litre').fill('2');
    await choose(page.getByLabel('Bin that Smoker can, steel is taken from first'), 'from B3 · Main store first');
    await page.keyboard.press('Control+s');
    await page.getByText('Saved. Ctrl S saves again.').waitFor();
    await page.reload();
    await page.getByRole('button', { name: 'Alternates and place of Smoker can, steel' }).click();
    expect(await page.getByLabel('Ratio of Feeder tub, 2 litre').inputValue()).toBe('2');
    expect(visit.faults).toEqual([]);
  });

  test('shares say how they came to a hundred, and price and margin give each other', async () => {
    const { page } = visit;
    await page.getByText(/Take-apart shares follow cost/).waitFor();
    await page.getByLabel('Take-apart share of Smoker can, steel').fill('40');
    await page
      .getByText(/You set 40.00% on 1 part; the other 60.00% is shared by cost among \d parts, to exactly 100.00%/)
      .waitFor();
    const margin = page.getByRole('complementary', { name: 'Consequences' });
    await margin.getByLabel('Margin').fill('60');
    const price = await margin.getByLabel('Sells at').inputValue();
    // The price of a draft is the draft's, and kept with it.
    await margin.getByText(new RegExp(`Sells at .*${price} once this revision is in use`)).waitFor();
    await page.keyboard.press('Control+s');
    await page.getByText('Saved. Ctrl S saves again.').waitFor();
    await page.reload();
    await expect(margin.getByLabel('Sells at')).toHaveValue(price);
    await margin.getByLabel('Sells at').fill('39');
    await expect(margin.getByLabel('Margin')).not.toHaveValue('60');
    expect(Number(await margin.getByLabel('Margin').inputValue())).toBeLessThan(60);
    expect(visit.faults).toEqual([]);
  });

  test('a kit says what its switches do, and refuses what contradicts itself with the way out', async () => {
    const { page } = visit;
    await page.goto('/define/2?view=behaves');
    await page.getByText('The customer reads one line: “Ten-frame hive, cedar”.').waitFor();
    await tick(page.getByLabel('Kit and contents'));
    await page.getByText(/The customer reads “Ten-frame hive, cedar” and beneath it 1 × Brood box, cedar/).waitFor();
    await tick(page.getByLabel('Packed per order, never stocked'));
    await page.getByText(/Ten-frame hive, cedar is never on a shelf/).waitFor();
    await page.getByRole('button', { name: 'Save how it behaves' }).click();
    await page
      .getByRole('alert')
      .getByText('Some is in stock, but nothing packed per order is kept in stock')
      .waitFor();
    await page.getByRole('link', { name: 'Take its stock apart' }).waitFor();
    await page.getByRole('button', { name: 'Leave it made ahead' }).click();
    await page.getByRole('button', { name: 'Save how it behaves' }).click();
    await visit.notice('Ten-frame hive, cedar will work like this from now on');
    await page.goto('/define');
    await page.getByRole('link', { name: /Winter evening gift/ }).click();
    await page.getByRole('button', { name: 'How it behaves' }).click();
    await page.getByText(/Beeswax candles, pair for Bee brush or Hive tool may be swapped/).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('a revision shows its difference line by line, and planned builds move after it was seen', async () => {
    const { page } = visit;
    await page.goto('/define/2?view=compare&rev=2&against=1');
    await visit.heading(/2 lines differ; a batch costs .* more/);
    await page.getByRole('row', { name: /changed Screw 4 × 40 mm SCREW-40 16 18/ }).waitFor();
    await page.getByRole('row', { name: /changed Floor mesh, 3 mm .* alternates MESH-4 × 1.1/ }).waitFor();
    await page.goto('/define/2?rev=2');
    await page.getByText(/in use from/).waitFor();
    await page.getByRole('button', { name: 'Hold back revision 2' }).click();
    await page.getByRole('button', { name: 'Put in use' }).click();
    await visit.notice('Revision 2 of Ten-frame hive, cedar is in use');
    await page.getByText('1 open build took an older revision and keeps it').waitFor();
    await page.getByRole('button', { name: 'See the difference, and move what has not started' }).click();
    await page.getByText(/Planned: B-0122/).waitFor();
    await page.getByRole('button', { name: 'Move 1 planned build to revision 2' }).click();
    await visit.notice('1 build took revision 2');
    await page.goto('/build/126');
    await page
      .getByRole('row', { name: /Screw 4 × 40 mm/ })
      .getByText('432')
      .first()
      .waitFor();
    await page.goto('/define/2?view=compare&other=3');
    await visit.heading(/lines differ/);
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('a part is replaced in many products as drafts, after a preview', async () => {
    const { page } = visit;
    await page.goto('/stock/items');
    await page.getByLabel('Find an item').fill('GLOVE');
    await page.getByRole('link', { name: 'Leather gloves, pair' }).click();
    await page.getByRole('button', { name: 'Where used' }).click();
    await visit.heading(/goes into 3 products/);
    await page.getByRole('link', { name: 'Replace it with another part…' }).click();
    await page.getByRole('combobox', { name: 'with this one' }).fill('gloves, long');
    await page.getByRole('option', { name: /New item/ }).click();
    await page.getByRole('dialog').getByLabel('Code').fill('GLOVE-L');
    await page.getByRole('dialog').getByLabel('Unit cost, as far as you know').fill('14');
    await page.getByRole('button', { name: 'Add and use it' }).click();
    await page.getByRole('button', { name: 'Start 3 drafts with gloves, long' }).waitFor();
    await tick(page.getByLabel('Replace it in First season kit, small suit'), false);
    await page.getByRole('button', { name: 'Start 2 drafts with gloves, long' }).click();
    await visit.notice('2 drafts with gloves, long started');
    await page.goto('/define/faults');
    await visit.heading(/to fix/);
    await page
      .getByRole('row', { name: /Nucleus box.*no revision in use.*an archived part.*a part without a cost/ })
      .waitFor();
    await page.getByRole('row', { name: /Frames, five in a bag.*sells below cost/ }).waitFor();
    await page.goto('/print/definition/2?rev=2');
    await page.getByText('or Floor mesh, 4 mm × 1.1').waitFor();
    expect(visit.faults).toEqual([]);
  });
});
