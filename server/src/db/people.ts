import type { Person } from '@yosegi/contract';
import type { Reader } from './database.ts';
import type { Row } from './models/index.ts';

export const toPerson = ({ id, name, initials, role }: Row<'person'>): Person => ({ id, name, initials, role });

/** Somebody who may sign in; null for nobody, or for one who is not here any more. Every request asks this. */
export async function activePerson(db: Reader, id: number): Promise<Person | null> {
  const sql = 'SELECT id, name, initials, role FROM person WHERE id = $1 AND active = 1';
  return (await db.driver.one<Person>(sql, [id])) ?? null;
}
