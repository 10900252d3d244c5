import type { Rate, Unit } from '@yosegi/contract';
import { parseQuantity, type Quantity, stepOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { decimal, moneyFromZero } from '../http/amounts.ts';
import { type Doing, found } from '../http/context.ts';
import { refuseTwice } from './service.ts';

interface UnitInput {
  readonly code: string;
  readonly name: string;
  readonly decimals: number;
  readonly related: readonly { name: string; one: string }[];
}

export async function listUnits(db: Reader): Promise<Unit[]> {
  const units = await db.all<Omit<Unit, 'related'>>('SELECT id, code, name, decimals, version FROM unit ORDER BY id');
  const related = await db.all<{ unit_id: number; name: string; one: number }>(
    'SELECT unit_id, name, one FROM unit_related ORDER BY one, name',
  );
  return units.map((unit) => ({
    ...unit,
    related: related.filter((row) => row.unit_id === unit.id).map(({ name, one }) => ({ name, one: decimal(one) })),
  }));
}

const readUnit = async (db: Reader, id: number) => found((await listUnits(db)).find((unit) => unit.id === id));

export async function createUnit(doing: Doing, input: UnitInput): Promise<Unit> {
  const { tx } = doing;
  await refuseTakenUnit(tx, input.code, null);
  const id = await tx.insert('unit', { code: input.code, name: input.name, decimals: input.decimals });
  await writeRelated(tx, id, input);
  doing.changed('items');
  return readUnit(tx, id);
}

/** Changes a unit. Fewer decimals are refused while any quantity needs them, because nothing is rounded. */
export async function updateUnit(doing: Doing, id: number, input: UnitInput & { version: number }): Promise<Unit> {
  const { tx } = doing;
  await refuseTakenUnit(tx, input.code, id);
  await refuseLostDecimals(tx, id, input.decimals);
  if (input.decimals > 0 && (await tx.one("SELECT 1 FROM item WHERE unit_id = $1 AND tracking = 'serial'", [id])))
    throw new Refusal('serial-needs-whole', {}, 'decimals');
  const values = { code: input.code, name: input.name, decimals: input.decimals };
  await updateVersioned(tx, 'unit', id, input.version, values, () => readUnit(tx, id));
  await writeRelated(tx, id, input);
  doing.changed('items', 'stock', 'definitions', 'builds');
  return readUnit(tx, id);
}

async function writeRelated(tx: Writer, unit_id: number, { code, related }: UnitInput): Promise<void> {
  refuseTwice([code, ...related.map(({ name }) => name)], (index) => `related.${index - 1}.name`);
  const rows = related.map(({ name, one }, index) => {
    const amount: Quantity = parseQuantity(one, 6, `related.${index}.one`);
    if (amount <= 0) throw new Refusal('not-positive', {}, `related.${index}.one`);
    return { unit_id, name, one: amount };
  });
  await tx.run('DELETE FROM unit_related WHERE unit_id = $1', [unit_id]);
  await tx.insertMany('unit_related', rows);
}

async function refuseTakenUnit(tx: Writer, code: string, exceptId: number | null): Promise<void> {
  const other = await tx.one<{ id: number; name: string }>('SELECT id, name FROM unit WHERE code = $1', [code]);
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code, by: other.name }, 'code');
}

/** Every place that keeps a quantity in an item's unit. */
const QUANTITIES = `
  SELECT item_id, quantity FROM movement
  UNION ALL SELECT item_id, amount FROM revision_line WHERE kind = 'part'
  UNION ALL SELECT item_id, amount FROM build_line WHERE kind = 'part'
  UNION ALL SELECT item_id, quantity FROM build
  UNION ALL SELECT d.item_id, r.output_quantity FROM revision r JOIN definition d ON d.id = r.definition_id
  UNION ALL SELECT item_id, quantity FROM item_pack
  UNION ALL SELECT item_id, pack FROM item_supplier
  UNION ALL SELECT item_id, minimum FROM item_supplier
  UNION ALL SELECT item_id, quantity FROM purchase_order_line
  UNION ALL SELECT item_id, confirmed_quantity FROM purchase_order_line WHERE confirmed_quantity IS NOT NULL
  UNION ALL SELECT l.item_id, n.quantity FROM purchase_need n JOIN purchase_order_line l ON l.id = n.line_id
  UNION ALL SELECT item_id, counted FROM stock_count_line WHERE counted IS NOT NULL
  UNION ALL SELECT item_id, expected FROM stock_count_line WHERE expected IS NOT NULL
  UNION ALL SELECT item_id, damaged FROM take_apart_line
  UNION ALL SELECT l.item_id, f.actual FROM finish_line f JOIN build_line l ON l.id = f.build_line_id WHERE l.kind = 'part'
  UNION ALL SELECT l.item_id, f.planned FROM finish_line f JOIN build_line l ON l.id = f.build_line_id WHERE l.kind = 'part'
  UNION ALL SELECT id, reorder_point FROM item WHERE reorder_point IS NOT NULL`;

/** @throws Refusal `unit-decimals-used` naming an item whose quantities would not fit any more */
async function refuseLostDecimals(tx: Writer, id: number, decimals: number): Promise<void> {
  const used = await tx.one<{ name: string; quantity: number }>(
    `SELECT i.name, q.quantity FROM (${QUANTITIES}) q JOIN item i ON i.id = q.item_id
     WHERE i.unit_id = $1 AND q.quantity % $2 <> 0 LIMIT 1`,
    [id, stepOf(decimals)],
  );
  if (used) throw new Refusal('unit-decimals-used', { name: used.name, used: decimal(used.quantity) }, 'decimals');
}

export async function listRates(db: Reader): Promise<Rate[]> {
  const rows = await db.all<{ id: number; name: string; per_hour: number }>(
    'SELECT id, name, per_hour FROM rate ORDER BY name',
  );
  return rows.map(({ id, name, per_hour }) => ({ id, name, perHour: decimal(per_hour) }));
}

/** Adds a labour rate, per hour. */
export async function createRate(doing: Doing, input: { name: string; perHour: string }): Promise<Rate> {
  const taken = await doing.tx.one('SELECT 1 FROM rate WHERE name = $1', [input.name]);
  if (taken) throw new Refusal('code-taken', { code: input.name, by: 'another rate' }, 'name');
  const perHour = moneyFromZero(input.perHour, 'perHour');
  const id = await doing.tx.insert('rate', { name: input.name, per_hour: perHour });
  doing.changed('items');
  return { id, name: input.name, perHour: decimal(perHour) };
}
