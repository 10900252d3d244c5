import { byDateWay, contestOf, programOf, settled, type World, worldOfWay } from '@yosegi/core/coverage';
import { dayAfter } from '@yosegi/core/days';
import { peg, type Source, sourceKey } from '@yosegi/core/demand';
import fc from 'fast-check';
import loadHighs from 'highs';
import { describe, expect, it } from 'vitest';
import { bought, build, made, order, TODAY, wants, world } from './scarce-world.ts';
import { type Found, solve } from './solve.ts';

const highs = await loadHighs();
/** Orders that have all their lines by the day wanted, or today where that has passed, told from what serves whom. */
function wholeSlowly(some: World): Set<number> {
  const [whole, late] = [new Set<number>(), new Set<number>()];
  for (const { demand, completeOn } of peg(some.picture()).pegged) {
    if (demand.source.kind !== 'order') continue;
    whole.add(demand.source.id);
    const { wantedOn } = demand.turn;
    const leaves = wantedOn === null ? '9999' : dayAfter(wantedOn, -(demand.transport ?? 0));
    const there = completeOn || TODAY;
    if (completeOn === null || (there > leaves && there > TODAY)) late.add(demand.source.id);
  }
  return new Set([...whole].filter((id) => !late.has(id)));
}

type Worth = (source: Source) => number;
function best(some: World, worthOf: Worth, only: ReadonlySet<number> | null = null) {
  const contest = contestOf(some, only);
  const program = programOf(contest, worthOf);
  const found = solve(highs, program, 10, () => undefined);
  const waits = contest.rivals.filter((_, at) => !found.yes?.[program.keeps[at] ?? -1]);
  return { contest, found, way: settled(contest, waits, worthOf) };
}
const sum = (ids: Iterable<number>, worthOf: Worth) => [...ids].reduce((all, id) => all + worthOf(order(id)), 0);

describe('who gets what is scarce', () => {
  it('gives the ten that are there to two orders instead of half a large one, or to the one that is worth the most', () => {
    const some = world(
      { 1: 10 },
      [
        wants(order(1), 1, 14, '2026-11-30'),
        wants(order(2), 1, 4, '2026-12-02'),
        wants(order(3), 1, 6, '2026-12-03'),
        wants(order(4), 1, 9, '2026-12-04'),
      ],
      [],
    );
    expect([...wholeSlowly(some)]).toEqual([]);
    const most = best(some, () => 1);
    expect(most.contest.parts).toEqual([1]);
    expect(most.way.whole).toEqual([order(2), order(3)]);
    // The last would have to wait anyway.
    expect(most.way.waits).toEqual([order(1)]);
    const worth = best(some, ({ id }) => (id === 4 ? 5000 : 1000));
    expect(worth.way.whole).toEqual([order(4)]);
    expect([...wholeSlowly(worldOfWay(worth.contest, worth.way.waits))]).toEqual([4]);
  });

  it('looks through builds: an order that is built for waits, so that another is built in time', () => {
    const some = world(
      { 1: 3 },
      [
        wants(order(1), 4, 3, '2026-11-30'),
        wants(build(1), 1, 3, '2026-11-30'),
        // Two other orders want as much together, and each is worth as much.
        wants(order(2), 4, 1, '2026-12-01'),
        wants(build(2), 1, 1, '2026-12-01'),
        wants(order(3), 1, 2, '2026-12-02'),
      ],
      [made(1, 4, 3, 1, order(1)), made(2, 4, 1, 1, order(2))],
    );
    expect([...wholeSlowly(some)]).toEqual([1]);
    const { way } = best(some, () => 1);
    expect(way.whole).toEqual([order(2), order(3)]);
    expect(way.waits).toEqual([build(1)]);
  });

  it.each([1, 2])('counts whom a build serves that could wait, over %s builds', (levels) => {
    // By date the first order has all it wants of what its builds make; whoever comes after it lacks the part.
    const between = levels === 2 ? [wants(build(12), 2, 3, '2026-11-30')] : [];
    const some = world(
      { 1: 3 },
      [
        wants(order(1), 4, 3, '2026-11-30'),
        wants(build(11), 1, 3, '2026-11-30'),
        ...between,
        wants(order(2), 1, 3, '2026-12-02'),
      ],
      levels === 2 ? [made(11, 2, 3, 1), made(12, 4, 3, 1, order(1))] : [made(11, 4, 3, 1, order(1))],
    );
    const of = (first: number) => best(some, ({ id }) => (id === 1 ? first : 3));
    expect(of(5).contest).toMatchObject({ parts: [1], rivals: [order(2), build(11)], orders: [order(1), order(2)] });
    expect([of(5).way.whole, of(5).way.waits]).toEqual([[order(1)], []]);
    expect([of(2).way.whole, of(2).way.waits]).toEqual([[order(2)], [build(11)]]);
  });

  it('says nothing where nothing is scarce, and looks only at the parts asked for', () => {
    expect(best(world({ 1: 9 }, [wants(order(1), 1, 4, TODAY)], []), () => 1).contest).toMatchObject({
      parts: [],
      rivals: [],
    });
    const two = world(
      { 1: 1, 2: 1 },
      [1, 2].flatMap((item) => [wants(order(item), item, 2, TODAY), wants(order(item + 2), item, 1, TODAY)]),
      [],
    );
    const { contest, way } = best(two, () => 1, new Set([2]));
    expect(contest.rivals).toEqual([order(2), order(4)]);
    expect(way.waits).toEqual([order(2)]);
  });

  it('lets nobody wait who is on a bench, whatever that keeps from others', () => {
    const some = world({ 1: 3 }, [wants(order(1), 1, 3, '2026-11-30'), wants(build(1), 1, 3, '2026-12-09', true)], []);
    const { contest, way } = best(some, () => 1);
    expect(contest.rivals).toEqual([order(1)]);
    expect([way.waits, way.whole]).toEqual([[], []]);
  });

  it('takes priorities off those who need the parts that are looked at, and off nobody else', () => {
    const some = world(
      { 1: 1, 2: 1 },
      [
        wants(order(1), 1, 1, '2026-12-04', false, { priority: -1 }),
        wants(order(2), 1, 1, '2026-11-30'),
        wants(order(3), 2, 1, '2026-12-04', false, { priority: -1 }),
        wants(order(4), 2, 1, '2026-11-30'),
      ],
      [],
    );
    const { contest } = best(some, () => 1, new Set([1]));
    const set = [...contest.world.known.demands.values()].map(({ source, turn }) => [source.id, turn.priority]);
    expect(set).toEqual([
      [1, null],
      [2, null],
      [3, -1],
      [4, null],
    ]);
    expect(wholeSlowly(contest.world)).toEqual(new Set([2, 3]));
    // Where all are looked at, all of them go by the day.
    expect(wholeSlowly(best(some, () => 1).contest.world)).toEqual(new Set([2, 4]));
  });

  it('counts on a build that has to begin today, and not on one that had to begin before', () => {
    // One working day on the bench: begun on Wednesday it is done on Wednesday. By date it comes after the first order.
    const asked = (wantedOn: string, bench: number) =>
      best(
        world(
          { 1: 1 },
          [wants(order(1), 1, 1, '2026-11-25'), wants(order(2), 4, 1, wantedOn), wants(build(1), 1, 1, '2026-11-27')],
          [made(1, 4, 1, bench, order(2))],
        ),
        ({ id }) => (id === 2 ? 9 : 1),
      ).way.whole;
    expect(asked(TODAY, 1)).toEqual([order(2)]);
    expect(asked('2026-11-26', 2)).toEqual([order(2)]);
    expect(asked(TODAY, 2)).toEqual([]);
  });

  it('is in time for what has to leave days before it is wanted', () => {
    const some = (transport: number) =>
      world({}, [wants(order(1), 1, 2, '2026-12-04', false, { transport })], [bought(1, 1, 2, '2026-12-01')]);
    const scarce = (transport: number) => best(some(transport), () => 1).contest.parts;
    expect([scarce(2), scarce(3), scarce(4)]).toEqual([[], [], [1]]);
  });

  it('says how much better it could still be when its time is over, and tells of what it has meanwhile', () => {
    let seed = 3;
    const int = (most: number) => {
      seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648;
      return 1 + Math.floor((seed / 2_147_483_648) * most);
    };
    const columns = Array.from({ length: 90 }, (_, at) => at);
    const rows = Array.from({ length: 60 }, () => {
      const factors = columns.map(() => int(90));
      return { columns, factors, most: Math.floor(factors.reduce((sum, one) => sum + one, 0) / 2) };
    });
    const told: Found[] = [];
    const program = { worth: columns.map(() => int(900)), rows, keeps: [] };
    const found = solve(highs, program, 1, (one) => told.push(one));
    expect(found.isBest).toBe(false);
    expect(told.length).toBeGreaterThan(0);
    const { yes } = found;
    expect(yes).not.toBeNull();
    // What it has is allowed, worth what it says, and below what could still be.
    const total = (of: readonly number[]) => columns.reduce((sum, at) => sum + (yes?.[at] ? (of[at] ?? 0) : 0), 0);
    for (const { factors, most } of rows) expect(total(factors)).toBeLessThanOrEqual(most);
    expect(found.worth).toBe(total(program.worth));
    expect(found.worth).toBeLessThan(found.atMost);
    expect(found.atMost).toBeLessThanOrEqual(program.worth.reduce((sum, one) => sum + one, 0));
  });

  const day = fc.constantFrom(null, '2026-11-20', TODAY, '2026-11-27', '2026-12-01', '2026-12-04');
  const some = fc.integer({ min: 1, max: 6 });
  const raw = fc.integer({ min: 1, max: 3 });
  const orders = fc.array(
    fc.record({
      on: day,
      worth: fc.integer({ min: 1, max: 9 }),
      transport: fc.constantFrom(0, 0, 1, 3),
      priority: fc.constantFrom(null, null, null, -1, 1),
      wants: fc.array(
        fc.record({ item: fc.integer({ min: 1, max: 5 }), n: some, begun: fc.constantFrom(false, false, false, true) }),
        { minLength: 1, maxLength: 3 },
      ),
    }),
    { minLength: 2, maxLength: 5 },
  );
  const builds = fc.array(
    fc.record({
      on: day,
      product: fc.constantFrom(4, 4, 5),
      n: some,
      bench: fc.integer({ min: 1, max: 3 }),
      forFirst: fc.boolean(),
      needs: fc.array(fc.tuple(raw, some), { minLength: 1, maxLength: 2 }),
      made: fc.boolean(),
      begun: fc.constantFrom(false, false, true),
    }),
    { maxLength: 3 },
  );
  // Below zero something is owed to a shelf, before everybody.
  const shelves = fc.array(fc.integer({ min: -2, max: 9 }), { minLength: 6, maxLength: 6 });
  /** By item, what a reorder point wants of it, after everybody. */
  const points = fc.array(fc.constantFrom(0, 0, 0, 4), { minLength: 6, maxLength: 6 });
  const purchases = fc.array(fc.record({ item: raw, n: some, on: day }), { maxLength: 4 });

  const looked = fc.option(fc.subarray([1, 2, 3, 4, 5], { minLength: 1 }), { freq: 2 });

  it('is the best of all choices of who waits, tried one by one, and never worse than going by date', () => {
    fc.assert(
      fc.property(
        orders,
        builds,
        shelves,
        purchases,
        fc.boolean(),
        looked,
        points,
        (asked, making, shelf, coming, byWorth, only, again) => {
          const demands = [
            ...asked.flatMap(({ on, wants: all, transport, priority }, at) =>
              all.map(({ item, n, begun }) => wants(order(at + 1), item, n, on, begun, { transport, priority })),
            ),
            ...making.flatMap(({ on, needs, product, made: ofMade, begun }, at) => [
              ...needs.map(([item, n]) => wants(build(at + 1), item, n, on, begun)),
              // What is made of what is made.
              ...(product === 5 && ofMade ? [wants(build(at + 1), 4, 1, on, begun)] : []),
            ]),
            ...again.flatMap((n, item) =>
              n > 0 && item > 0 ? [wants({ kind: 'reorder', id: item }, item, n, null)] : [],
            ),
          ];
          const supplies = [
            ...coming.map(({ item, n, on }, at) => bought(at + 1, item, n, on)),
            ...making.map(({ product, n, bench, forFirst }, at) =>
              made(at + 1, product, n, bench, forFirst ? order(1) : null),
            ),
          ];
          const here = world(Object.fromEntries(shelf.entries()), demands, supplies);
          const worthOf: Worth = ({ id }) => (byWorth ? (asked[id - 1]?.worth ?? 0) : 1);
          const { contest, way, found } = best(here, worthOf, only && new Set(only));
          const counted = new Set(contest.orders.map(({ id }) => id));
          const worthIn = (which: World) =>
            sum(
              [...wholeSlowly(which)].filter((id) => counted.has(id)),
              worthOf,
            );
          let most = 0;
          for (let choice = 0; choice < 2 ** contest.rivals.length; choice += 1)
            most = Math.max(
              most,
              worthIn(
                worldOfWay(
                  contest,
                  contest.rivals.filter((_, at) => choice & (1 << at)),
                ),
              ),
            );
          const reached = worthIn(worldOfWay(contest, way.waits));
          expect(found.isBest).toBe(true);
          expect(reached).toBe(most);
          expect(
            sum(
              way.whole.map(({ id }) => id),
              worthOf,
            ),
          ).toBe(reached);
          expect(reached).toBeGreaterThanOrEqual(
            sum(
              byDateWay(contest).whole.map(({ id }) => id),
              worthOf,
            ),
          );
          // Whoever is not looked at keeps what they had.
          const after = wholeSlowly(worldOfWay(contest, way.waits));
          for (const id of wholeSlowly(contest.world)) if (!counted.has(id)) expect(after.has(id)).toBe(true);
          for (const rival of contest.rivals)
            expect(demands.some(({ source, turn }) => sourceKey(source) === sourceKey(rival) && !turn.begun)).toBe(
              true,
            );
          expect(new Set(way.waits.map(sourceKey)).size).toBe(way.waits.length);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('numbers of any size', () => {
  const choice = (unit: number) => ({
    worth: [3 * unit, 2 * unit, 2 * unit],
    rows: [{ columns: [0, 1, 2], factors: [2 * unit, unit, unit], most: 2 * unit + Math.min(unit - 1, 1) }],
    keeps: [],
  });

  it('are reckoned in the smallest that say the same', () => {
    const small = solve(highs, choice(1), 10, () => undefined);
    expect(small).toMatchObject({ worth: 4, isBest: true, yes: [false, true, true] });
    const large = solve(highs, choice(1e15), 10, () => undefined);
    expect(large).toMatchObject({ worth: 4e15, atMost: 4e15, isBest: true, yes: [false, true, true] });
  });

  it('are told where even these are too large', () => {
    const program = { worth: [1], rows: [{ columns: [0], factors: [1], most: 2e15 }], keeps: [] };
    expect(() => solve(highs, program, 10, () => undefined)).toThrow('beyond what the solver reckons exactly');
  });
});
