import { api } from '@yosegi/contract';
import { ApiProblem } from '@yosegi/contract/client';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { anyStep, World } from './days.ts';
import { unanswered } from './every-get.ts';
import { TestServer } from './harness.ts';
import { coverAgainstPlan, disagreements } from './one-rule.ts';

/**
 * Random days in a workshop, by the real commands over HTTP: whatever is asked in whatever order, it is carried out or
 * refused with a problem, the books add up, and say what books kept slowly beside them say.
 */
describe('any sequence of commands', () => {
  let server: TestServer;
  let world: World;
  beforeAll(async () => {
    server = await TestServer.start();
    world = await World.open(server);
  });
  afterAll(() => server.close());

  /** What the list of items says, beside what the slow books do. */
  const figures = async () => {
    const number = (amount: string | null) => (amount === null ? null : Number(amount));
    const text = (amount: bigint | null) => (amount === null ? null : Number(amount) / 1e6);
    const { rows } = await server.call(api.items, { query: {} });
    return rows.map(({ id, code, onHand, onBench, value, averageCost, costFrom, latestCost }) => {
      const slow = world.books.figures(id);
      // A standard stands in where nothing is known.
      const average = costFrom === 'standard' ? '0' : averageCost;
      return {
        says: [code, (Number(onHand) * 1e6 + Number(onBench) * 1e6) / 1e6, ...[value, average, latestCost].map(number)],
        should: [code, ...[slow.onHand, slow.value, slow.averageCost, world.books.latest(id)].map(text)],
      };
    });
  };
  /** What one person may ask in a minute is bounded, so each day is another's. */
  let days = 0;
  const nextOwner = async () => {
    days += 1;
    const person = { name: `Owner ${days}`, initials: `O${days}`, role: 'owner' };
    await server.signIn(await server.database.write((tx) => tx.driver.insert('person', person)));
  };

  it('is carried out or refused, and the books add up', { timeout: 240_000 }, async () => {
    const done = new Map<string, number>();
    let refused = 0;
    const steps = fc.array(anyStep, { minLength: 40, maxLength: 60 });
    await fc.assert(
      fc.asyncProperty(steps, async (day) => {
        await nextOwner();
        for (const step of day) {
          try {
            const said = await step(world);
            for (const { kind } of await world.keepBooks(said)) done.set(kind, (done.get(kind) ?? 0) + 1);
          } catch (error) {
            if (!(error instanceof ApiProblem)) throw error;
            expect(error.problem.status, error.problem.detail).toBeLessThan(500);
            refused += 1;
            // A count half said is no document; nothing that was refused has left one.
            expect(await world.keepBooks()).toEqual([]);
          }
          expect(world.books.quarrels).toEqual([]);
          for (const { says, should } of await figures()) expect(says).toEqual(should);
        }
        expect(await server.verify()).toEqual([]);
        expect(await disagreements(server)).toEqual([]);
        expect(await unanswered(server)).toEqual([]);
        const { cover, plan } = await coverAgainstPlan(server, world.items.box.id, '30');
        expect(plan).toEqual(cover);
      }),
      {
        numRuns: Number(process.env.DAYS ?? 6),
        endOnFailure: true,
      },
    );
    // Most kinds must really have happened for the property to mean anything; of each in turn there are days without.
    expect([...done.keys()].length, [...done.keys()].join()).toBeGreaterThanOrEqual(8);
    expect(done.get('undo') ?? 0).toBeGreaterThan(0);
    expect(refused).toBeGreaterThan(5);
  });
});
