import type { Database } from '@yosegi/server/db/database';

export const MOVEMENTS = 1_000_000;
const LINES = 4;
const DOCUMENTS = MOVEMENTS / LINES;
const [ITEMS, BINS, LOTS, ORDERS] = [2_000, 40, 4_000, 20_000];
export const SALES = 100_000;
/** Of the orders of customers still to be shipped. */
const STILL_OPEN = 300;
const DAYS = 1_000;

/**
 * A company with a million movements: 250,000 documents of four lines over 1,000 days on 2,000 items, every fifth by lot,
 * 20,000 purchase orders, and 100,000 orders of customers. Receipts bring 3 at 2.00, adjustments take 1, transfers move 1, so that the books add up;
 * everything kept beside the ledger is added up from it.
 */
export async function fillMillion(database: Database): Promise<void> {
  await database.write(async (tx) => {
    const upTo = (n: number) => `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ${n})`;
    await tx.run("INSERT INTO store (id, code, name) VALUES (1, 'S', 'Store')");
    await tx.run("INSERT INTO bin (id, store_id, code, kind) VALUES (1000, 1, 'BENCH', 'bench')");
    await tx.run(`${upTo(BINS)} INSERT INTO bin (id, store_id, code, picking_order) SELECT i, 1, 'A' || i, i FROM n`);
    await tx.run(`${upTo(ITEMS)} INSERT INTO item (id, code, name, unit_id, source, tracking, home_bin_id, sell_price, reorder_point)
      SELECT i, printf('IT-%05d', i), 'Part number ' || i, 1, 'bought', iif(i % 5 = 0, 'lot', 'none'), 1 + i % ${BINS}, 5000000, 10000000 FROM n`);
    await tx.run(`${upTo(LOTS)} INSERT INTO lot (id, item_id, code, best_before)
      SELECT i, 5 * (1 + i % ${ITEMS / 5}), 'L' || i, date('2027-01-01', '+' || (i % 900) || ' days') FROM n`);
    await tx.run(`${upTo(DOCUMENTS)} INSERT INTO document (id, number, kind, at, person_id, remark)
      SELECT i, printf('D-%06d', i), ${KIND}, strftime('%Y-%m-%dT%H:%M:%S.000Z', '2024-01-01', '+' || (i * ${DAYS} * 86400 / ${DOCUMENTS}) || ' seconds'),
        1, iif(i % 9 = 0, 'delivery note ' || i, '') FROM n`);
    // Item and lot of a line: always the same for the same place in the round, so that what moves is there.
    await tx.run(`${upTo(MOVEMENTS)}, line AS (SELECT i, (i - 1) / ${LINES} + 1 AS doc, (i - 1) % ${LINES} AS at FROM n),
      about AS (SELECT doc, at, 1 + (doc / 3 * 7 + iif(doc % 3 = 2, at / 2, at)) % ${ITEMS} AS item FROM line)
      INSERT INTO movement (document_id, item_id, bin_id, lot_id, quantity, value)
      SELECT doc, item, 1 + iif(doc % 3 = 2 AND at % 2 = 1, item + 1, item) % ${BINS}, iif(item % 5 = 0, ${LOT_OF}, NULL), q * 1000000, q * 2000000
      FROM (SELECT *, iif(doc % 3 = 0, 3, iif(doc % 3 = 1, -1, iif(at % 2 = 0, -1, 1))) AS q FROM about)`);
    await tx.run(`INSERT INTO document_value (document_id, kind, amount)
      SELECT document_id, iif(sum(value) > 0, 'supplier', 'adjusted'), sum(value) FROM movement GROUP BY document_id HAVING sum(value) <> 0`);
    await tx.run(`INSERT INTO balance (item_id, bin_id, lot_id, quantity)
      SELECT item_id, bin_id, lot_id, sum(quantity) FROM movement GROUP BY item_id, bin_id, lot_id HAVING sum(quantity) <> 0`);
    await tx.run(`INSERT INTO item_stock (item_id, quantity, value, last_cost)
      SELECT item_id, sum(quantity), sum(value), 2000000 FROM movement GROUP BY item_id`);
    await tx.run("INSERT INTO supplier (id, code, name) VALUES (1, 'ONE', 'One'), (2, 'TWO', 'Two')");
    await tx.run(`${upTo(ORDERS)} INSERT INTO purchase_order (id, number, supplier_id, state, made_at, made_by, sent_at)
      SELECT i, printf('PO-%05d', i), 1 + i % 2, 'sent', '2026-01-01T08:00:00.000Z', 1, '2026-01-01T08:00:00.000Z' FROM n`);
    await tx.run(`${upTo(ORDERS * 2)} INSERT INTO purchase_order_line (order_id, position, item_id, quantity, price, closed, open, expected_on)
      SELECT (i + 1) / 2, 1 + i % 2, 1 + i % ${ITEMS}, 5000000, 2000000, i <= ${ORDERS}, iif(i <= ${ORDERS}, 0, 5000000), '2026-12-01' FROM n`);
    await tx.run(`${upTo(200)} INSERT INTO customer (id, code, name) SELECT i, 'C' || i, 'Customer ' || i FROM n`);
    const isOpen = `i > ${SALES - STILL_OPEN}`;
    await tx.run(`${upTo(SALES)} INSERT INTO sales_order (id, number, customer_id, state, delivery, wanted_on, made_at, made_by, open)
      SELECT i, printf('O-%06d', i), 1 + i % 200, 'confirmed', 'whole', date('2026-11-01', '+' || (i % 60) || ' days'),
        '2026-01-01T08:00:00.000Z', 1, iif(${isOpen}, 1, 0) FROM n`);
    await tx.run(`${upTo(SALES)}, line AS (SELECT i, at FROM n, (SELECT 0 AS at UNION ALL SELECT 1))
      INSERT INTO order_line (id, order_id, position, item_id, output_quantity, quantity, price, price_from, dropped)
      SELECT 2 * i + at, i, at, 1 + (i * 7 + at) % ${ITEMS}, 1000000, 2000000, 3000000, 'own', iif(${isOpen}, 0, 2000000) FROM line`);
    await tx.run(`INSERT INTO order_part (id, line_id, position, item_id, basis, amount, base_item_id, base_amount, open)
      SELECT id, id, 0, item_id, 'per-output', 1000000, item_id, 1000000, quantity - dropped FROM order_line`);
    await tx.run('ANALYZE');
  });
}

/** Receipts, adjustments and transfers in turn. */
const KIND = "iif(i % 3 = 0, 'receipt', iif(i % 3 = 1, 'adjustment', 'transfer'))";
/** The lots of an item were numbered in rounds. */
const LOT_OF = `iif(item / 5 = 1, ${ITEMS / 5}, item / 5 - 1) + ${ITEMS / 5} * (doc / 3 % 9)`;
