import type { Company, Person, peopleRoutes } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { found, type HandlersOf } from '../http/context.ts';

export const peopleHandlers: HandlersOf<typeof peopleRoutes> = {
  async health({ db }) {
    const newest = await db.one<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1');
    return { status: 'ok', schema: newest?.name ?? 'none' };
  },

  people: ({ db }) => db.all<Person>('SELECT id, name, initials, role FROM person WHERE active = 1 ORDER BY id'),

  async session({ db, person }) {
    return { person, company: await companyOf(db) };
  },

  async updateCompany({ tx, body, changed }) {
    const { version, ...values } = body;
    await updateVersioned(tx, 'company', 1, version, values, () => companyOf(tx));
    changed('places');
    return companyOf(tx);
  },

  async signIn({ tx, body }) {
    const sql = 'SELECT id, name, initials, role FROM person WHERE id = $1 AND active = 1';
    const person = await tx.one<Person>(sql, [body.personId]);
    if (!person) throw new Refusal('unknown-choice', {}, 'personId');
    return { person, company: await companyOf(tx) };
  },
};

const companyOf = async (db: Reader) =>
  found(await db.one<Company>('SELECT name, currency, locale, address, email, version FROM company WHERE id = 1'));
