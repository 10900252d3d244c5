import type { Company, peopleRoutes } from '@yosegi/contract';
import { paperColumns } from '@yosegi/core/people';
import { Refusal } from '@yosegi/core/refusal';
import { type HandlersOf, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { newestMigration } from '../db/open.ts';
import { activePerson, toPerson } from '../db/people.ts';
import { updateVersioned } from '../db/versions.ts';
import { createWorker, listWorkers, updateWorker } from './workers.ts';

export const peopleHandlers: HandlersOf<typeof peopleRoutes> = {
  async health({ db }) {
    return { status: 'ok', schema: (await newestMigration(db)) ?? 'none' };
  },

  people: async ({ db }) => (await db.models.person.findAll({ where: { active: 1 }, order: ['id'] })).map(toPerson),

  async session({ db, person }) {
    return { person, company: await companyOf(db), timeZone: timeZone() };
  },

  async updateCompany({ tx, body, changed }) {
    const { version, workDays, benchMinutes, ...rest } = body;
    const days = workDays && JSON.stringify([...new Set(workDays)].sort());
    const values = {
      ...rest,
      ...(days ? { work_days: days } : {}),
      ...(benchMinutes ? { bench_minutes: benchMinutes } : {}),
    };
    await updateVersioned(tx, 'company', 1, version, values, () => companyOf(tx));
    changed('places');
    return companyOf(tx);
  },

  async setUp({ tx, body, changed }) {
    await tx.models.company.update({ setup_step: body.step }, { where: { id: 1 } });
    changed('places');
    return companyOf(tx);
  },

  workers: ({ db }) => listWorkers(db),
  createWorker: (command) => createWorker(command, command.body),
  updateWorker: (command) => updateWorker(command, command.params.id, command.body),

  async updatePapers({ tx, body, changed }) {
    const values = {
      paper_size: body.size,
      paper_head: body.head,
      paper_foot: body.foot,
      paper_columns: JSON.stringify(paperColumns.filter((column) => body.columns.includes(column))),
    };
    await updateVersioned(tx, 'company', 1, body.version, values, () => companyOf(tx));
    changed('places');
    return companyOf(tx);
  },

  async removeLogo({ tx, changed }) {
    await tx.models.logo.destroy({ where: { id: 1 } });
    changed('places');
    return companyOf(tx);
  },

  async signIn({ tx, body }) {
    const person = await activePerson(tx, body.personId);
    if (!person) throw new Refusal('unknown-choice', {}, 'personId');
    return { person, company: await companyOf(tx), timeZone: timeZone() };
  },
};

/** Where this machine counts its days; told a zone that does not exist, it counts as in Greenwich and names none. */
const timeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone ?? 'UTC';

export async function companyOf(db: Reader): Promise<Company> {
  const row = required(await db.models.company.findByPk(1));
  const { name, currency, locale, address, email, version } = row;
  const logo = await db.models.logo.findByPk(1, { attributes: ['hash'] });
  const papers = {
    size: row.paper_size,
    head: row.paper_head,
    foot: row.paper_foot,
    columns: JSON.parse(row.paper_columns) as Company['papers']['columns'],
    logo: logo?.hash ?? null,
  };
  const workDays = JSON.parse(row.work_days) as number[];
  const { setup_step: setupStep, bench_minutes: benchMinutes } = row;
  return { name, currency, locale, address, email, workDays, benchMinutes, setupStep, papers, version };
}
