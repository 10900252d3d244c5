import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { anyStep, World } from './days.ts';
import { TestServer } from './harness.ts';
import { coverAgainstPlan } from './one-rule.ts';

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

  it('is carried out or refused, and the books add up', async () => {
    const steps = fc.array(anyStep, { minLength: 40, maxLength: 60 });
    await fc.assert(
      fc.asyncProperty(steps, async (day) => {
        await world.live(day, async () => {
          for (const { says, should } of await world.figures()) expect(says).toEqual(should);
        });
        const { cover, plan } = await coverAgainstPlan(server, world.items.box.id, '30');
        expect(plan).toEqual(cover);
      }),
      {
        numRuns: Number(process.env.DAYS ?? 6),
        endOnFailure: true,
      },
    );
    // Most kinds must really have happened for the property to mean anything; of each in turn there are days without.
    const { done } = world;
    expect([...done.keys()].length, [...done.keys()].join()).toBeGreaterThanOrEqual(8);
    expect(done.get('undo') ?? 0).toBeGreaterThan(0);
    expect(world.refused).toBeGreaterThan(5);
  });
});
