import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkNames, type Drift, verifyDatabase } from '../src/db/verify.ts';
import { everyKind } from './every-kind.ts';
import { TestServer } from './harness.ts';

let server: TestServer;

beforeAll(async () => {
  server = await TestServer.start();
  await everyKind(server);
});
afterAll(() => server.close());

/** What verify finds once somebody who can write to the file has done this to it; all is as it was afterwards. */
async function findings(...tampering: string[]): Promise<string[]> {
  const triggers = await server.database.reader.all<{ name: string }>(
    "SELECT name FROM sqlite_master WHERE type = 'trigger'",
  );
  const { drifts } = await server.database
    .write(async (tx): Promise<never> => {
      await tx.run('PRAGMA defer_foreign_keys = ON');
      for (const { name } of triggers) await tx.run(`DROP TRIGGER ${name}`);
      for (const sql of tampering) await tx.run(sql);
      throw Object.assign(new Error('back as it was'), { drifts: await verifyDatabase(tx) });
    })
    .catch((error: Error & { drifts?: Drift[] }) => {
      if (!error.drifts) throw error;
      return { drifts: error.drifts };
    });
  return drifts.map(({ check }) => check);
}

const BENCH = 'SELECT id FROM build_line WHERE on_bench > 0';
const item = (code: string) => `(SELECT id FROM item WHERE code = '${code}')`;

/** A repair that nobody took in, of a unit that may be ours, with its work still planned. */
const repair = (state: string, serialId: number | null) =>
  `INSERT INTO repair (id, number, customer_id, item_id, serial_id, bin_id, state, fault, taken_in_at, taken_in_by)
   SELECT 99, 'RP-X', (SELECT min(id) FROM customer), item_id, ${serialId}, 1, '${state}', 'x', '2026-11-23', 1 FROM serial WHERE id = 1`;
const REPAIR_WORK = `INSERT INTO build (number, item_id, repair_id, output_quantity, quantity, state, output_bin_id, planned_at, planned_by)
   SELECT 'RP-X', item_id, 99, 1000000, 1000000, 'planned', 1, '2026-11-23', 1 FROM serial WHERE id = 1`;

/** For each check, what it has to notice. */
const tampering: Record<string, string[][]> = {
  'each document conserves value': [
    ['UPDATE document_value SET amount = amount + 1 WHERE id = 1'],
    ['DELETE FROM document_value WHERE id = 1'],
  ],
  'balances by place equal the ledger': [
    ['UPDATE balance SET quantity = quantity - 1 WHERE lot_id IS NOT NULL'],
    ["UPDATE balance SET bin_id = bin_id + 1 WHERE lot_id = (SELECT id FROM lot WHERE code = 'B')"],
    ["UPDATE balance SET holder_kind = NULL, holder_id = NULL WHERE holder_kind = 'build'"],
    ['DELETE FROM balance WHERE lot_id = 1'],
    ['UPDATE movement SET lot_id = 2 WHERE lot_id = 1'],
    ['UPDATE movement SET serial_id = (SELECT max(id) FROM serial) WHERE serial_id IS NOT NULL'],
    ['DELETE FROM movement WHERE id = 1'],
  ],
  'quantity and value by item equal the ledger': [
    ['UPDATE item_stock SET value = value + 1'],
    ['UPDATE item_stock SET quantity = quantity + 1 WHERE quantity > 0'],
    ['UPDATE movement SET value = value + 1 WHERE id = 1'],
    ['UPDATE movement SET quantity = quantity - 1 WHERE id = 1'],
  ],
  'what is held in returns equals the ledger': [
    ['UPDATE item_stock SET returned_quantity = returned_quantity + 1 WHERE returned_quantity > 0'],
    ["UPDATE movement SET value = value + 1 WHERE holder_kind = 'return'"],
  ],
  'what is held in returns keeps what it left with': [
    ['UPDATE item_stock SET returned_value = returned_value + 1 WHERE returned_quantity > 0'],
    ['UPDATE return_piece SET value = value + 1'],
  ],
  'nothing on hand is worth nothing': [[`UPDATE item_stock SET quantity = 0 WHERE item_id = ${item('WAX')}`]],
  'what is on hand is not worth less than nothing': [
    [`UPDATE item_stock SET value = -1 WHERE item_id = ${item('WAX')}`],
  ],
  'bench quantities of build lines equal the ledger': [
    [`UPDATE build_line SET on_bench = on_bench + 1 WHERE id IN (${BENCH})`],
    [`UPDATE movement SET line_id = NULL WHERE line_id IN (${BENCH})`],
  ],
  'use of build lines equals their finishes': [
    ['UPDATE build_line SET used = used + 1 WHERE used > 0'],
    ['UPDATE finish_line SET actual = actual - 1'],
  ],
  'finished quantities equal their finishes': [
    ['UPDATE build SET finished = finished + 1 WHERE finished > 0'],
    ['UPDATE finish SET good = good + 1'],
  ],
  'rejected quantities equal their finishes': [
    ['UPDATE build SET rejected = rejected + 1 WHERE finished > 0'],
    ['UPDATE finish SET rejected = rejected + 1'],
  ],
  'what belongs to customers is not in stock': [[repair('taken-in', 1)]],
  'a repair stands where its work does': [
    [repair('on-bench', null), REPAIR_WORK],
    [repair('ready', null), REPAIR_WORK],
  ],
  'builds that are over promise nothing': [
    ["UPDATE build_line SET open = 1 WHERE build_id = (SELECT id FROM build WHERE state = 'cancelled')"],
    ["UPDATE build SET state = 'finished' WHERE state = 'on-bench'"],
  ],
  'an undo is the exact opposite': [
    [
      `UPDATE movement SET bin_id = bin_id + 1 WHERE document_id = (SELECT id FROM document WHERE reverses_id IS NOT NULL)`,
    ],
  ],
  'a serial is one thing in one place': [
    ['UPDATE balance SET quantity = 2000000 WHERE serial_id = 1'],
    [
      'INSERT INTO balance SELECT item_id, bin_id + 1, lot_id, serial_id, holder_kind, holder_id, quantity FROM balance WHERE serial_id = 1',
    ],
  ],
  'serials are worth what the ledger says': [
    ['UPDATE serial SET value = value + 1 WHERE id = 1'],
    ['UPDATE serial SET value = NULL WHERE id = 1'],
  ],
  'tracked stock names its lot or serial': [
    ['UPDATE balance SET lot_id = NULL WHERE lot_id = 1'],
    ['UPDATE balance SET serial_id = NULL WHERE serial_id = 1'],
    [`UPDATE item SET tracking = 'lot' WHERE code = 'PIN'`],
  ],
  'received of orders equals their receipts': [
    ['UPDATE purchase_order_line SET received = received + 1'],
    ['DELETE FROM receipt_line WHERE order_line_id IS NOT NULL'],
  ],
  'what is open of orders follows from the rest': [
    ['UPDATE purchase_order_line SET open = open - 1'],
    ["UPDATE purchase_order SET state = 'cancelled'"],
    ['UPDATE purchase_order_line SET closed = 1'],
  ],
  'shipped of orders equals their shipments': [
    ['UPDATE order_line SET shipped = 0'],
    ['UPDATE shipment_line SET quantity = quantity + 1'],
  ],
  'what left for orders is in the ledger': [
    ['UPDATE order_part SET shipped = shipped + 1'],
    ["UPDATE movement SET line_id = NULL WHERE document_id IN (SELECT id FROM document WHERE kind = 'shipment')"],
  ],
  'what stands in parcels equals the ledger': [['UPDATE order_part SET packed = packed + 1 WHERE packed > 0']],
  'nothing stands for a line below zero': [
    ['UPDATE order_part SET packed = -1 WHERE packed > 0'],
    [`UPDATE build_line SET on_bench = -1 WHERE id IN (${BENCH})`],
  ],
  'parcels hold what their orders have packed': [
    ["UPDATE balance SET quantity = quantity - 1 WHERE holder_kind = 'parcel'"],
    ['UPDATE parcel SET order_id = order_id - 1'],
  ],
  'a parcel that has left is empty': [['UPDATE parcel SET shipped_id = (SELECT document_id FROM shipment)']],
  'no more is built for orders than they need and builds make': [
    ['UPDATE build_for SET quantity = 5000000'],
    ['UPDATE build SET quantity = 1000000 WHERE id IN (SELECT build_id FROM build_for)'],
  ],
  'shipments cost what left': [['UPDATE shipment_line SET cost = cost + 1']],
  'what waits of returns stands in the ledger': [
    ['UPDATE return_piece SET quantity = quantity + 1'],
    ['UPDATE return_outcome SET quantity = quantity + 1'],
    ["UPDATE balance SET holder_id = 99 WHERE holder_kind = 'return'"],
  ],
  'what came back is worth what left': [['UPDATE return_piece SET value = value + 1']],
  'what becomes of returns is worth what came back': [['UPDATE return_outcome SET value = 999999999']],
  'no more comes back than left': [['UPDATE return_piece SET quantity = 5000000']],
  'orders that are over promise nothing': [["UPDATE sales_order SET state = 'cancelled'"]],
  'price differences are in the ledger': [
    ['UPDATE price_difference_line SET into_stock = into_stock + 1, gone = gone - 1'],
  ],
  'numbers that are kept beside what they name are its own': [
    ["DELETE FROM numbered WHERE kind = 'build'"],
    ["UPDATE numbered SET number = 'X' WHERE kind = 'order'"],
  ],
  'the file is sound': [
    [
      'PRAGMA ignore_check_constraints = ON',
      "UPDATE item SET source = 'stolen' WHERE code = 'PIN'",
      'PRAGMA ignore_check_constraints = OFF',
    ],
  ],
  'references are whole': [['UPDATE item SET unit_id = 99999'], ['DELETE FROM supplier']],
};

describe('verify', () => {
  it('finds nothing where nothing is wrong', async () => expect(await findings()).toEqual([]));

  it('has something to find for every check', () => {
    expect(Object.keys(tampering)).toEqual(checkNames);
  });

  it.each(Object.entries(tampering).flatMap(([check, ways]) => ways.map((way) => [check, way] as const)))(
    'notices where it is not so that %s: %j',
    async (check, way) => {
      expect(await findings(...way)).toContain(check);
      expect(await server.verify()).toEqual([]);
    },
  );
});
