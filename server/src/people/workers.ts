import type { Worker } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { toPerson } from '../db/people.ts';
import { updateVersioned } from '../db/versions.ts';

const toWorker = (row: Row<'person'>): Worker => ({
  ...toPerson(row),
  active: row.active === 1,
  version: row.version,
});

export const listWorkers = async (db: Reader): Promise<Worker[]> =>
  (await db.models.person.findAll({ order: ['id'] })).map(toWorker);

export async function createWorker(doing: Doing, body: BodyOf<'createWorker'>): Promise<Worker> {
  await refuseTaken(doing, body.name, null);
  const { name, initials, role, active } = body;
  const id = await doing.tx.insert('person', { name, initials, role, active: active ? 1 : 0 });
  doing.changed('places');
  return workerOf(doing.tx, id);
}

/** @throws Refusal `last-owner` where nobody could set anything up any more */
export async function updateWorker(doing: Doing, id: number, body: BodyOf<'updateWorker'>): Promise<Worker> {
  const before = await workerOf(doing.tx, id);
  await refuseTaken(doing, body.name, id);
  const { name, initials, role, active } = body;
  const values = { name, initials, role, active: active ? 1 : 0 } as const;
  await updateVersioned(doing.tx, 'person', id, body.version, values, async () => before);
  const owners = await doing.tx.models.person.count({ where: { role: 'owner', active: 1 } });
  if (owners === 0) throw new Refusal('last-owner', {}, active ? 'role' : 'active');
  doing.changed('places');
  return workerOf(doing.tx, id);
}

const workerOf = async (db: Reader, id: number) => toWorker(found((await db.models.person.findByPk(id)) ?? undefined));

async function refuseTaken({ tx }: Doing, name: string, exceptId: number | null): Promise<void> {
  const other = await tx.models.person.findOne({ where: { name } });
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code: name, by: other.name }, 'name');
}
