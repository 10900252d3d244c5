import type { Person } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from './database.ts';
import type { Row } from './models/index.ts';

export const toPerson = ({ id, name, initials, role }: Row<'person'>): Person => ({ id, name, initials, role });

/** Somebody who may sign in; null for nobody, or for one who is not here any more. Every request asks this. */
export async function activePerson(db: Reader, id: number): Promise<Person | null> {
  const sql = 'SELECT id, name, initials, role FROM person WHERE id = $1 AND active = 1';
  return (await db.driver.one<Person>(sql, [id])) ?? null;
}

/** Nothing is given to somebody who is not here any more. @throws Refusal `unknown-choice` naming `field` */
export async function requireActive(db: Reader, personId: number | null | undefined, field: string): Promise<void> {
  if (personId && !(await activePerson(db, personId))) throw new Refusal('unknown-choice', {}, field);
}
