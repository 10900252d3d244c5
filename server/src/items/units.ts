import type { Rate, Unit } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { refuseTwice } from './service.ts';
import { refuseLostDecimals } from './sql.ts';

type UnitInput = BodyOf<'createUnit'>;

export async function listUnits(db: Reader): Promise<Unit[]> {
  const units = await db.models.unit.findAll({ order: ['id'] });
  const related = await db.models.unit_related.findAll({ order: ['one', 'name'] });
  return units.map(({ id, code, name, decimals, version }) => ({
    id,
    code,
    name,
    decimals,
    version,
    related: related.filter((row) => row.unit_id === id).map((row) => ({ name: row.name, one: decimal(row.one) })),
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
export async function updateUnit(doing: Doing, id: number, input: BodyOf<'updateUnit'>): Promise<Unit> {
  const { tx } = doing;
  await refuseTakenUnit(tx, input.code, id);
  await refuseLostDecimals(tx, id, input.decimals);
  if (input.decimals > 0 && (await tx.models.item.findOne({ where: { unit_id: id, tracking: 'serial' } })))
    throw new Refusal('serial-needs-whole', {}, 'decimals');
  const values = { code: input.code, name: input.name, decimals: input.decimals };
  await updateVersioned(tx, 'unit', id, input.version, values, () => readUnit(tx, id));
  await writeRelated(tx, id, input);
  doing.changed('items', 'stock', 'definitions', 'builds');
  return readUnit(tx, id);
}

async function writeRelated(tx: Writer, unit_id: number, { code, related }: UnitInput): Promise<void> {
  refuseTwice([code, ...related.map(({ name }) => name)], (index) => `related.${index - 1}.name`);
  await tx.models.unit_related.destroy({ where: { unit_id } });
  await tx.insertMany(
    'unit_related',
    related.map(({ name, one }) => ({ unit_id, name, one })),
  );
}

async function refuseTakenUnit(tx: Writer, code: string, exceptId: number | null): Promise<void> {
  const other = await tx.models.unit.findOne({ where: { code } });
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code, by: other.name }, 'code');
}

export async function listRates(db: Reader): Promise<Rate[]> {
  const rows = await db.models.rate.findAll({ order: ['name'] });
  return rows.map(({ id, name, per_hour }) => ({ id, name, perHour: decimal(per_hour) }));
}

/** Adds a labour rate, per hour. */
export async function createRate(doing: Doing, { name, perHour }: BodyOf<'createRate'>): Promise<Rate> {
  const taken = await doing.tx.models.rate.findOne({ where: { name } });
  if (taken) throw new Refusal('code-taken', { code: name, by: 'another rate' }, 'name');
  const id = await doing.tx.insert('rate', { name, per_hour: perHour });
  doing.changed('items');
  return { id, name, perHour: decimal(perHour) };
}
