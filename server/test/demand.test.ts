import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SCALE } from '@yosegi/core/number';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { Database } from '../src/db/database.ts';
import { ensureCompany, migrate } from '../src/db/migrate.ts';
import { readPegging, readPeggingToBuy } from '../src/demand/sql.ts';
import { slowly } from './demand-slowly.ts';
import { TODAY, world, write, writeSales } from './demand-world.ts';

// What the server reads of demand and supply, against the slowest reckoning over the bare rows.

const folder = mkdtempSync(join(tmpdir(), 'yosegi-'));
let database: Database;
beforeAll(async () => {
  database = await Database.open(join(folder, 'demand.sqlite'), { durable: false });
  await migrate(database);
  const people = [{ name: 'Owner', initials: 'OW', role: 'owner' as const }];
  await ensureCompany(database, { name: 'Test', currency: 'EUR', locale: 'en', people });
});
afterAll(async () => {
  await database.close();
  rmSync(folder, { recursive: true });
});

it('tells of random builds, orders, tasks, rejects, priorities, holds, quarantine, alternates, stores and shelves below zero what counting by hand does', async () => {
  await fc.assert(
    fc.asyncProperty(world, async (given) => {
      await database.write(async (tx) => {
        await write(tx, given);
        await writeSales(tx, given);
      });
      const pegging = await readPegging(database.reader, TODAY);
      const answers = pegging.pegged
        .filter(({ demand: { source } }) => source.kind !== 'owed')
        .map(({ demand: { source, lineId, transport }, now, completeOn, standIns }) => ({
          key: `${source.kind} ${lineId}`,
          transport,
          now: now / SCALE,
          whole: completeOn,
          standIns: standIns.map((one) => [one.itemId, one.standsFor / SCALE]),
        }));
      expect(answers).toEqual(slowly(given, false).answers);
      const missing = new Map<number, number>();
      for (const { demand, short } of (await readPeggingToBuy(database.reader, TODAY)).pegged)
        if (short > 0) missing.set(demand.itemId, (missing.get(demand.itemId) ?? 0) + short / SCALE);
      expect([...missing].sort()).toEqual([...slowly(given, true).missing].sort());
    }),
    { numRuns: 200 },
  );
}, 120_000);
