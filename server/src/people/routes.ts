import type { Company, peopleRoutes } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { type HandlersOf, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { newestMigration } from '../db/open.ts';
import { activePerson, toPerson } from '../db/people.ts';
import { updateVersioned } from '../db/versions.ts';

export const peopleHandlers: HandlersOf<typeof peopleRoutes> = {
  async health({ db }) {
    return { status: 'ok', schema: (await newestMigration(db)) ?? 'none' };
  },

  people: async ({ db }) => (await db.models.person.findAll({ where: { active: 1 }, order: ['id'] })).map(toPerson),

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
    const person = await activePerson(tx, body.personId);
    if (!person) throw new Refusal('unknown-choice', {}, 'personId');
    return { person, company: await companyOf(tx) };
  },
};

async function companyOf(db: Reader): Promise<Company> {
  const { name, currency, locale, address, email, version } = required(await db.models.company.findByPk(1));
  return { name, currency, locale, address, email, version };
}
