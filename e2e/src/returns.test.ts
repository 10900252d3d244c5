import { expect, test } from '@playwright/test';
import { Application, choose, scanLikeAWedge, type Visit } from './harness.ts';

test.describe('what customers send back', () => {
  let application: Application;
  let visit: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    visit = await application.open();
  });
  test.afterAll(() => application.close());

  const onShelves = async (code: string) => {
    const row = await application.one<{ quantity: number | null }>(
      `SELECT sum(p.quantity) AS quantity FROM balance p JOIN item i ON i.id = p.item_id JOIN bin b ON b.id = p.bin_id
        WHERE i.code = '${code}' AND b.kind = 'shelf' AND p.holder_kind IS NULL`,
    );
    return row?.quantity ?? 0;
  };

  test('a swapped kit comes from its arrival to the shelf as it left, by the keys and a scan', async () => {
    const { page } = visit;
    await page.goto('/take-apart');
    await visit.heading(/returned items? to deal with/);
    const before = await onShelves('HONEY-CR');
    // The number of its order, as it stands on the paper in the box.
    await scanLikeAWedge(page, 'O-0117');
    const many = page.getByLabel(/Quantity of .*Garden.* returning/i);
    await many.fill('1');
    await page.getByText('Enter a reason.').waitFor();
    await choose(page.getByLabel('Reason'), 'Not what was ordered');
    await page.getByRole('button', { name: /Receive 1 × / }).click();
    await visit.notice(/RT-\d+ taken in\./);
    const taken = await application.one<{ id: number; number: string }>(
      'SELECT id, number FROM goods_return ORDER BY id DESC LIMIT 1',
    );
    await page.goto(`/take-apart/returns/${taken?.id}`);
    await visit.heading(/items? to decide/);
    await page.getByText(/instead of /).waitFor();
    // Sent back after all, or kept: it is for whoever unpacks it to say.
    await page.getByRole('button', { name: /^Send back: / }).click();
    await page.getByText(/ back to customers/).waitFor();
    expect(await page.getByText('back to the customer, with the rest of the kit').count()).toBeGreaterThan(1);
    await page.getByRole('button', { name: /^Don’t send back: / }).click();
    await page.getByRole('button', { name: /All good: / }).click();
    await page.getByText(/back to shelves/).waitFor();
    await page.keyboard.press('Control+Enter');
    await visit.notice(/: decided\./);
    await visit.heading(/all decided/);
    const after = await onShelves('HONEY-CR');
    expect(after).toBeGreaterThan(before);
    // Exactly what left for the line is on shelves again, part by part.
    const parts = await application.one<{ left: number; back: number; leftWorth: number; backWorth: number }>(
      `SELECT (SELECT count(*) FROM return_piece p JOIN return_line l ON l.id = p.return_line_id WHERE l.return_id = ${taken?.id}) AS "left",
              (SELECT count(*) FROM return_outcome o JOIN return_piece p ON p.id = o.piece_id JOIN return_line l ON l.id = p.return_line_id
                WHERE l.return_id = ${taken?.id} AND o.outcome = 'shelf' AND o.quantity = p.quantity) AS "back",
              (SELECT sum(p.value) FROM return_piece p JOIN return_line l ON l.id = p.return_line_id WHERE l.return_id = ${taken?.id}) AS leftWorth,
              (SELECT sum(o.value) FROM return_outcome o JOIN return_piece p ON p.id = o.piece_id JOIN return_line l ON l.id = p.return_line_id
                WHERE l.return_id = ${taken?.id}) AS backWorth`,
    );
    expect(parts?.left).toBeGreaterThan(1);
    expect(parts?.back).toBe(parts?.left);
    expect(parts?.backWorth).toBe(parts?.leftWorth);
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('more than was sent is refused at its field, with everything typed still there', async () => {
    const { page } = visit;
    await page.goto('/take-apart');
    await visit.heading(/returned items? to deal with/);
    await page.getByLabel('What is coming back?').fill('LARK');
    const many = page.getByLabel(/Quantity of .* returning/).first();
    await many.fill('5000');
    await choose(page.getByLabel('Reason'), 'Does not fit');
    await page.getByLabel('Customer’s comment').fill('too many by far');
    await page.getByRole('button', { name: /Receive/ }).click();
    await page
      .getByText(/may come back|left with/)
      .first()
      .waitFor();
    expect(await many.inputValue()).toBe('5000');
    expect(await page.getByLabel('Customer’s comment').inputValue()).toBe('too many by far');
    expect(visit.faults).toEqual([]);
  });

  test('units are scanned one after the other, announced, and taken in as they were announced', async () => {
    const { page } = visit;
    const units = await application.one<{ codes: string; bin: number; item: number }>(
      `SELECT group_concat(code, ' ') AS codes, bin, item FROM (
         SELECT s.code, p.bin_id AS bin, i.id AS item FROM balance p JOIN serial s ON s.id = p.serial_id JOIN item i ON i.id = s.item_id
         JOIN bin b ON b.id = p.bin_id WHERE i.code = 'SCALE-1' AND b.kind = 'shelf' AND p.holder_kind IS NULL ORDER BY p.bin_id, s.code LIMIT 3)
       GROUP BY bin`,
    );
    const serials = units?.codes.split(' ') ?? [];
    const [first = '', second = '', third = ''] = serials;
    const post = async (path: string, data: object) => {
      const answer = await page.request.post(path, { data, headers: { 'idempotency-key': crypto.randomUUID() } });
      expect(answer.ok(), await answer.text()).toBe(true);
      return answer.json();
    };
    const lines = [{ itemId: units?.item, quantity: '3', price: '180' }];
    const { id } = await post('/api/orders', { customerId: 1, confirm: true, lines });
    const order = await (await page.request.get(`/api/orders/${id}`)).json();
    const [line] = order.lines;
    const parts = [{ partId: line.parts[0].id, serials, binId: units?.bin }];
    await post(`/api/orders/${id}/shipments`, {
      version: order.version,
      lines: [{ lineId: line.id, quantity: '3', parts }],
    });
    await page.goto('/take-apart');
    await visit.heading(/returned items? to deal with/);
    const many = page.getByLabel(/Quantity of Hive scale of .* returning/);
    await scanLikeAWedge(page, first);
    await expect(many).toHaveValue('1');
    await scanLikeAWedge(page, third);
    await expect(many).toHaveValue('2');
    // A scan into the field itself takes the place of the one before.
    const field = page.getByLabel('What is coming back?');
    await field.focus();
    await page.keyboard.press('Enter');
    await expect(field).toHaveValue(third);
    await scanLikeAWedge(page, first);
    await expect(field).toHaveValue(first);
    await expect(many).toHaveValue('2');
    // One too many was scanned: it is tapped off, and another one on.
    await page.getByRole('button', { name: third, pressed: true }).click();
    await page.getByRole('button', { name: second, pressed: false }).click();
    await expect(many).toHaveValue('2');
    await choose(page.getByLabel('Reason'), 'Stopped working');
    await page.getByRole('button', { name: 'Announce return' }).click();
    await visit.notice(/RT-\d+ announced\./);
    const announced = await application.one<{ id: number }>('SELECT max(id) AS id FROM goods_return');
    // The label on the parcel opens what it was printed for.
    await scanLikeAWedge(page, `RT-${String(announced?.id).padStart(4, '0')}`);
    await visit.heading(/announced, not received yet/);
    await page.getByRole('button', { name: first, pressed: true }).waitFor();
    await page.getByRole('button', { name: second, pressed: true }).waitFor();
    await page.getByRole('button', { name: third, pressed: false }).waitFor();
    await scanLikeAWedge(page, third);
    await page.getByRole('button', { name: third, pressed: true }).click();
    await choose(page.getByLabel('Condition of Hive scale'), 'damaged');
    await page.getByRole('button', { name: 'Receive' }).click();
    await visit.heading(/2 items to decide/);
    // Half of what was paid is owed for what turns out to be damaged.
    await page.getByText('owed €180.00').waitFor();
    const here = await application.one<{ codes: string }>(
      `SELECT group_concat(s.code, ' ') AS codes FROM (SELECT serial_id FROM return_standing WHERE return_id = ${announced?.id}
         ORDER BY serial_id) p JOIN serial s ON s.id = p.serial_id`,
    );
    expect(here?.codes.split(' ').sort()).toEqual([first, second].sort());
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('some of a line come back in another condition, announced or just here', async () => {
    const { page } = visit;
    const there = await application.one<{ item: number; bin: number; name: string }>(
      `SELECT i.id AS item, p.bin_id AS bin, i.name FROM balance p JOIN item i ON i.id = p.item_id JOIN bin b ON b.id = p.bin_id
       WHERE i.tracking = 'none' AND b.kind = 'shelf' AND p.holder_kind IS NULL AND p.quantity >= 12000000 AND i.unit_id = 1
         AND NOT EXISTS (SELECT 1 FROM demand WHERE item_id = i.id) ORDER BY i.id LIMIT 1`,
    );
    const name = there?.name ?? '';
    const post = async (path: string, data: object) => {
      const answer = await page.request.post(path, { data, headers: { 'idempotency-key': crypto.randomUUID() } });
      expect(answer.ok(), await answer.text()).toBe(true);
      return answer.json();
    };
    const lines = [{ itemId: there?.item, quantity: '8', price: '5' }];
    const { id } = await post('/api/orders', { customerId: 2, confirm: true, lines });
    const order = await (await page.request.get(`/api/orders/${id}`)).json();
    const sent = [{ lineId: order.lines[0].id, quantity: '8', parts: [] }];
    await post(`/api/orders/${id}/shipments`, { version: order.version, lines: sent });
    const conditions = async () => {
      const said = await application.one<{ lines: string }>(
        `SELECT group_concat(quantity || ' ' || condition, ', ') AS lines FROM (
           SELECT l.quantity / 1000000 AS quantity, l.condition FROM return_line l JOIN document d ON d.id = l.shipment_id
           WHERE d.for_kind = 'order' AND d.for_id = ${id} ORDER BY l.return_id, l.id)`,
      );
      return said?.lines;
    };
    await page.goto(`/take-apart?back=${order.number}`);
    const many = page.getByLabel(new RegExp(`Quantity of ${name} of .* returning`));
    const typeBoth = async (first: string, second: string) => {
      await many.fill(first);
      await page.getByRole('button', { name: `Add some in another condition: ${name}` }).click();
      await page.getByLabel(`Extra quantity of ${name}`).fill(second);
      await choose(page.getByLabel(`Condition of ${name}`), 'used');
      await choose(page.getByLabel('Reason'), 'Not what was ordered');
    };
    await typeBoth('2', '1');
    // What was typed is there again after a look elsewhere.
    await page.reload();
    await expect(page.getByLabel(`Extra quantity of ${name}`)).toHaveValue('1');
    await page.getByRole('button', { name: `Receive 2 × ${name} and 1 used` }).click();
    await visit.notice(/RT-\d+ taken in\./);
    await page.goto(`/take-apart?back=${order.number}`);
    await typeBoth('2', '1');
    await page.getByRole('button', { name: 'Announce return' }).click();
    await visit.notice(/RT-\d+ announced\./);
    const announced = await application.one<{ id: number }>('SELECT max(id) AS id FROM goods_return');
    await page.goto(`/take-apart/returns/${announced?.id}`);
    await visit.heading(/announced, not received yet/);
    // Of the two that were announced as new, one came damaged.
    await page.getByLabel(`${name} that came`).first().fill('1');
    await page
      .getByRole('button', { name: `Add some in another condition: ${name}` })
      .first()
      .click();
    await page.getByLabel(`Extra quantity of ${name}`).fill('1');
    await page.reload();
    await expect(page.getByLabel(`${name} that came`).first()).toHaveValue('1');
    await expect(page.getByLabel(`Extra quantity of ${name}`)).toHaveValue('1');
    await page.getByRole('button', { name: 'Receive' }).click();
    await visit.heading(/3 items to decide/);
    expect(await conditions()).toBe('2 as new, 1 used, 1 as new, 1 damaged, 1 used');
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });

  test('an order says what came back of it, and is the way to take more of it in', async () => {
    const { page } = visit;
    await page.goto('/orders/103');
    const about = page.getByRole('complementary', { name: 'Order details' });
    await about.getByRole('link', { name: 'RT-0006' }).waitFor();
    await about.getByText(/ owed$/).waitFor();
    await about.getByRole('link', { name: 'Take back goods…' }).click();
    await expect(page.getByLabel('What is coming back?')).toHaveValue('O-0103');
    await page.getByLabel(/Quantity of Hive scale of .* returning/).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('a picture of what came back is kept and shown', async () => {
    const { page } = visit;
    await page.goto('/take-apart/returns/6');
    await page.getByLabel('Picture of the return').setInputFiles('docs/screenshots/today.png');
    await page.getByRole('img', { name: /Larger picture of RT-0006/ }).waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('what is short is found in other products, and never in what is to be made', async () => {
    const { page } = visit;
    await page.goto('/cover?want=49x60');
    const apart = page.getByRole('region', { name: 'Products to take apart' });
    await apart.getByText(/First season kit, medium suit on the shelves hold .*, which you need/).waitFor();
    expect(await apart.getByText('First season kit, large suit').count()).toBe(0);
    await apart.getByRole('link', { name: 'Take some apart' }).first().click();
    await visit.heading(/of parts come back/);
    // An order waits for the smoker that is in it.
    await page.getByText('Others need these parts.').waitFor();
    expect(visit.faults).toEqual([]);
  });

  test('a unit known by its serial comes apart by what really went in', async () => {
    const { page } = visit;
    const unit = await application.one<{ id: number; code: string; build: string }>(
      `SELECT i.id, s.code, b.number AS build FROM balance p JOIN serial s ON s.id = p.serial_id JOIN item i ON i.id = s.item_id
         JOIN bin ON bin.id = p.bin_id AND bin.kind = 'shelf'
         JOIN movement m ON m.serial_id = s.id AND m.quantity > 0 JOIN finish f ON f.document_id = m.document_id JOIN build b ON b.id = f.build_id
        WHERE i.code = 'SCALE-1' ORDER BY s.code LIMIT 1`,
    );
    if (!unit) throw new Error('no scale is on a shelf');
    await page.goto(`/take-apart/stock?item=${unit.id}&serials=${unit.code}`);
    await visit.heading(/of parts come back/);
    await page.getByText(`By what actually went in with ${unit.build}.`).waitFor();
    await page.getByRole('button', { name: 'Take 1 apart' }).click();
    await visit.notice(/back in parts\./);
    const gone = await application.one<{ n: number }>(
      `SELECT count(*) AS n FROM balance p JOIN serial s ON s.id = p.serial_id WHERE s.code = '${unit.code}'`,
    );
    expect(gone?.n).toBe(0);
    expect(await application.verify()).toEqual([]);
    await visit.undo();
    await page
      .getByText(/undone/i)
      .first()
      .waitFor();
    expect(await application.verify()).toEqual([]);
    expect(visit.faults).toEqual([]);
  });
});
