import { expect, test } from '@playwright/test';
import { Application, find, scanLikeAWedge, type Visit } from './harness.ts';

/** A day on the bench: the board, extra parts, reworks, and jobs. */
test.describe('the bench', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('shows work by person and day; a card is moved by keys and by the mouse, with all its tasks', async () => {
    const { page } = visit;
    await page.goto('/build');
    await page.getByRole('link', { name: 'Board', exact: true }).click();
    await visit.heading(/unassigned/);
    const card = page.getByRole('link', { name: /24 × Ten-frame hive/ });
    const cell = (name: RegExp) => page.getByRole('region', { name });
    await cell(/^Tom Birch/)
      .filter({ has: card })
      .waitFor();
    const before = await cell(/^Tom Birch/)
      .filter({ has: card })
      .getAttribute('aria-label');
    await card.focus();
    await page.keyboard.press('Alt+ArrowRight');
    await visit.notice(/B-0122: Tom Birch/);
    await expect(cell(/^Tom Birch/).filter({ has: card })).not.toHaveAttribute('aria-label', before ?? '');
    // It keeps the focus for the next move.
    await expect(card).toBeFocused();
    await page.keyboard.press('Alt+ArrowUp');
    await visit.notice(/B-0122: Mo Okafor/);
    await cell(/^Mo Okafor/)
      .filter({ has: card })
      .waitFor();
    const target = cell(/^Ada Quill/).first();
    const [from, to] = [await card.boundingBox(), await target.boundingBox()];
    if (!from || !to) throw new Error('nothing to drag');
    await page.mouse.move(from.x + 30, from.y + 20);
    await page.mouse.down();
    await page.mouse.move(from.x + 60, from.y + 40, { steps: 4 });
    await page.mouse.move(to.x + to.width / 2, to.y + 40, { steps: 8 });
    await page.mouse.up();
    await visit.notice(/B-0122: Ada Quill/);
    await target.filter({ has: card }).waitFor();
    await page.reload();
    await target.filter({ has: card }).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('takes a part more with a reason, uses it, says why beyond a tolerance, and takes a part back', async () => {
    const { page } = visit;
    await page.goto('/build/121');
    await page.getByRole('button', { name: 'Add a part' }).click();
    await page.getByRole('combobox', { name: 'Which part' }).fill('3 SCREW-40');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Quantity')).toHaveValue('3');
    await expect(page.getByLabel('Quantity')).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Reason', { exact: true })).toHaveAttribute('aria-invalid', 'true');
    await page.getByLabel('Reason', { exact: true }).fill('Two lids are loose');
    await page.keyboard.press('Enter');
    await visit.notice(/is on the bench of B-0117/);
    await page.getByText(/added by Mo Okafor: Two lids are loose/).waitFor();
    await page.getByRole('button', { name: /^Put back Screw/ }).click();
    await page.getByLabel('Quantity to put back').fill('4');
    await page.getByRole('button', { name: 'Put back', exact: true }).click();
    await page.getByText('Only 3 can be put back; the rest was used or never brought here.').waitFor();
    await page.getByLabel('Quantity to put back').fill('1');
    await page.getByRole('button', { name: 'Put back', exact: true }).click();
    await visit.notice(/taken off B-0117/);
    await page.goto('/build/121/finish');
    await expect(page.getByLabel(/Actually used of Screw/)).toHaveValue('2');
    expect(visit.faults).toEqual([]);
  });

  test('brings the parts for some of a build in one step, and leaves the rest open', async () => {
    const { page } = visit;
    await page.goto('/pick/121');
    await visit.heading(/to pick for B-0117/);
    const many = page.getByLabel('Parts for how many of 14?');
    await many.fill('15');
    await page.getByText('Only 14 are left.').waitFor();
    await many.fill('8');
    await page.getByRole('button', { name: 'Fill in' }).click();
    await expect(page.getByLabel('Take now of Feeder float')).toHaveValue('8');
    await page.getByRole('button', { name: /^Bring \d lines? to the bench/ }).click();
    await visit.notice(/still open/);
    const row = page.getByRole('row').filter({ hasText: 'Feeder float' });
    await row.getByText('6', { exact: true }).first().waitFor();
    // What stands there for eight is enough for them: nothing more is filled in.
    await many.fill('8');
    await page.getByRole('button', { name: 'Fill in' }).click();
    await expect(page.getByLabel('Take now of Feeder float')).toHaveValue('0');
    expect(visit.faults).toEqual([]);
  });

  test('reworks a unit: parts come out to stock and to scrap, and the very unit goes back worth the rest', async () => {
    const { page } = visit;
    await page.goto('/build?plan=8&purpose=rework');
    const product = page.getByRole('combobox', { name: 'Product' });
    // What the address asks for stands there first.
    await expect(product).not.toHaveValue('');
    await product.fill('SCALE-1');
    await page.getByRole('option', { name: /Hive scale/ }).click();
    await page.getByRole('button', { name: 'Plan the rework' }).click();
    await visit.heading(/1 × Hive scale/);
    await page
      .getByRole('button', { name: /^(Send|Start)/ })
      .first()
      .click();
    await page.getByRole('link', { name: 'Pick its parts' }).waitFor();
    await page.getByRole('link', { name: 'Finish…' }).click();
    await page
      .getByLabel(/Serial/)
      .first()
      .fill('SC-0009');
    await page.getByLabel('Condition before').fill('dented');
    await page.getByLabel('Condition now').fill('as new');
    const out = page.getByRole('region', { name: 'Parts that came out' });
    await out.getByText('Battery, AA').waitFor();
    await out.getByRole('combobox', { name: 'Add a part that came out' }).fill('CASE-SC');
    await out
      .getByRole('option', { name: /case/i })
      .or(page.getByRole('option', { name: /case/i }))
      .first()
      .click();
    await out.getByLabel('Share %').last().fill('110');
    await out
      .getByText(/add up to 110%/)
      .first()
      .waitFor();
    await expect(page.getByRole('button', { name: /^Finish 1/ })).toBeDisabled();
    await out.getByLabel('Share %').last().fill('10');
    await page.getByRole('button', { name: /^Finish 1/ }).click();
    await visit.notice(/1 × Hive scale at/);
    await visit.notices.first().getByRole('link').first().click();
    await page.getByText(/before: dented · after: as new/).waitFor();
    await page.getByText(/back to stock at €/).waitFor();
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('adds up what is booked under a job tag', async () => {
    const { page } = visit;
    await page.goto('/orders/jobs/Winter%20fair');
    await visit.heading(/Winter fair earned/);
    const amounts = async (column: number) => {
      const cells = await page
        .getByRole('table')
        .first()
        .locator(`tbody tr td:nth-last-child(${column})`)
        .allTextContents();
      const values = cells.map((text) => Math.round(Number(text.replace(/[^\d.-]/g, '')) * 100));
      return { rows: values.slice(0, -1).reduce((sum, one) => sum + one, 0), together: values.at(-1) };
    };
    for (const column of [1, 2, 3]) {
      const { rows, together } = await amounts(column);
      expect(Math.abs(rows - (together ?? 0)), `column ${column}`).toBeLessThanOrEqual(3);
    }
    await page.goto('/build/127');
    await page.getByRole('button', { name: 'Set', exact: true }).click();
    await page.getByLabel('Job tag').fill('Winter fair');
    await page.keyboard.press('Enter');
    await page.getByRole('link', { name: 'Winter fair' }).click();
    await page.getByRole('link', { name: 'B-0123' }).waitFor();
    expect(visit.faults).toEqual([]);
  });
});

/** The same on a tablet, by touch. */
test.describe('a day on the bench on a tablet', () => {
  let application: Application;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
  });
  test.afterAll(() => application.close());

  test('goes from the board to the sheet, ticks a task, clocks minutes, and finishes', async () => {
    const { page, faults, notice } = await application.open(
      'Tom Birch',
      { width: 820, height: 1180 },
      { hasTouch: true },
    );
    await page.goto('/build/board');
    await page.getByRole('heading', { name: /today/ }).waitFor();
    await page.getByRole('link', { name: /14 × Feeder, 2 litre/ }).tap();
    await page.getByRole('heading', { name: /14 × Feeder, 2 litre/ }).waitFor();
    const tasks = page.getByRole('region', { name: 'Tasks' });
    await tasks.getByRole('button', { name: 'Start the clock' }).tap();
    await tasks.getByRole('button', { name: 'Stop the clock' }).tap();
    await tasks.getByText(/^1 of 56 min/).waitFor();
    await tasks.getByText('Drill and fit').tap();
    await tasks.getByText('all done').waitFor();
    await page.getByRole('link', { name: 'Finish…' }).tap();
    await page.getByLabel('Good units').fill('4');
    await page.getByRole('button', { name: /^Finish 4/ }).tap();
    await notice(/4 × Feeder, 2 litre at/);
    // Fingers are not mice: what is pressed on the sheet is large enough.
    for (const name of ['Finish…', 'Pick its parts']) {
      const box = await page.getByRole('link', { name }).boundingBox();
      expect(box?.height ?? 0, name).toBeGreaterThanOrEqual(44);
    }
    expect(faults).toEqual([]);
  });
});

/** A customer's unit from intake to giving back. */
test.describe('a repair', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  test('is taken in, estimated, agreed, mended and given back, and shows what it left', async () => {
    const { page } = visit;
    await page.goto('/build/repairs');
    await visit.heading('3 repairs here');
    await page.getByRole('link', { name: 'Take in a repair' }).click();
    await find(page.getByRole('combobox', { name: 'Customer' }), 'Tamsin Hale');
    await page.getByRole('combobox', { name: 'Item' }).fill('SCALE-1');
    await page.getByRole('option', { name: /Hive scale/ }).click();
    await page.getByLabel(/^Serial number/).fill('SC-0003');
    await page.getByLabel('Problem').fill('Dead');
    await page.getByRole('button', { name: 'Take in' }).click();
    // A unit that stands in stock is ours; everything typed is still there.
    await page.getByText(/SC-0003 is in stock.*Stock is ours/).waitFor();
    await expect(page.getByLabel('Problem')).toHaveValue('Dead');
    await page.getByLabel(/^Serial number/).fill('HALE-1');
    await page.getByRole('button', { name: 'Take in' }).click();
    await visit.notice(/RP-0005 taken in/);
    await visit.heading('Hive scale of Tamsin Hale');
    await page.getByRole('button', { name: 'Estimate…' }).click();
    await page.getByLabel('Estimate for the customer').fill('42.5');
    await page.getByRole('button', { name: 'Save estimate' }).click();
    await page.getByText('customer to decide').first().waitFor();
    await expect(page.getByRole('button', { name: 'Start repair' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Record agreement…' }).click();
    await page.getByRole('button', { name: 'Save agreed price' }).click();
    await page.getByText(/€42.50 agreed/).waitFor();
    await page.getByRole('button', { name: 'Start repair' }).click();
    await page.getByRole('link', { name: 'Finish…' }).waitFor();
    await page.getByRole('button', { name: 'Add a part' }).click();
    await page.getByRole('combobox', { name: 'Which part' }).fill('BATT-AA');
    await page
      .getByRole('option', { name: /Battery/ })
      .first()
      .click();
    await page.getByLabel('Quantity').fill('4');
    await page.getByLabel('Reason', { exact: true }).fill('Flat');
    await page.getByRole('button', { name: 'Add part' }).click();
    await visit.notice(/is on the bench of RP-0005/);
    await page.getByRole('link', { name: 'Finish…' }).click();
    await page.getByText('is what the repair costs').waitFor();
    await page.getByRole('button', { name: 'Finish repair' }).click();
    await visit.notice(/the Hive scale of Tamsin Hale is ready/);
    await page.getByRole('button', { name: 'Give back…' }).click();
    await expect(page.getByLabel('Charge to the customer')).toHaveValue('42.5');
    await page.getByRole('button', { name: 'Give back to Tamsin Hale' }).click();
    await visit.notice(/RP-0005 given back to Tamsin Hale/);
    await page.getByText('Earnings').waitFor();
    await page.getByText('charged €42.50').waitFor();
    await page.getByRole('link', { name: 'Everything about HALE-1' }).click();
    await visit.heading('Hive scale, HALE-1');
    await page.getByText('taken in to be repaired').waitFor();
    await page.goto('/print/repair-report/5');
    await visit.heading('Repair report RP-0005');
    await page.getByText('€42.50').waitFor();
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('is opened by the barcode of its bench sheet, on any screen', async () => {
    const { page } = visit;
    await page.goto('/today');
    await visit.loaded();
    const line = await application.one<{ id: number }>(
      "SELECT l.id FROM build_line l JOIN build b ON b.id = l.build_id WHERE b.number = 'RP-0003' AND l.kind = 'labour'",
    );
    await scanLikeAWedge(page, `RP-0003/${line?.id}`);
    await visit.heading('Hive scale of Alder Vale Apiaries');
    await expect(page.locator('[data-meant]').filter({ hasText: 'Find out what jumps' })).toBeVisible();
    await scanLikeAWedge(page, 'B-9999');
    await page.getByText('Nothing here is B-9999').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('a weight of the scale goes into the field that has the cursor', async () => {
    const { page, context } = visit;
    const definition = await application.one<{ build: number }>(
      "SELECT b.id AS build FROM build b JOIN item i ON i.id = b.item_id WHERE i.code = 'TASTE-3' AND b.state = 'planned' LIMIT 1",
    );
    await page.goto(`/build/${definition?.build}`);
    await page
      .getByRole('button', { name: /^(Send|Start)/ })
      .first()
      .click();
    await page.getByRole('link', { name: 'Finish…' }).click();
    const field = page.getByLabel(/Actually used of .*oney/).first();
    await field.focus();
    const scale = await context.newPage();
    await scale.goto('/devices/scale');
    await scale.getByLabel('Load, in kg').fill('0.4');
    await scale.getByRole('button', { name: 'Tare' }).click();
    await scale.getByLabel('Load, in kg').fill('2.65');
    await expect(scale.getByLabel('Net weight')).toHaveText('2.250 kg');
    await scale.getByRole('button', { name: /Send into/ }).click();
    await scale.getByText('Entered in the selected field.').waitFor();
    await expect(field).toHaveValue('2.250 kg');
    expect(visit.faults).toEqual([]);
  });
});
