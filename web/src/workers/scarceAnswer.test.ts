import type { Source } from '@yosegi/core/demand';
import { SCALE } from '@yosegi/core/number';
import { describe, expect, it } from 'vitest';
import { bought, build, made, order, wants, world } from './scarce-world.ts';
import { type ScarceAsk, scarceAnswer } from './scarceAnswer.ts';

const asked = (more: Partial<ScarceAsk> = {}): ScarceAsk => ({
  items: null,
  worth: null,
  found: { value: null, orders: null },
  drafts: false,
  aside: null,
  ...more,
});
const ids = (sources: readonly Source[]) => sources.map(({ id }) => id);

/** Ten there; two that want fourteen and four, one that wants six. */
const some = () =>
  world(
    { 1: 10 },
    [wants(order(1), 1, 14, '2026-11-30'), wants(order(2), 1, 4, '2026-12-02'), wants(order(3), 1, 6, '2026-12-03')],
    [bought(9, 1, 3, '2026-12-20')],
  );
const worth = [
  [1, 3_000_000],
  [2, 1_000_000],
  [3, 1_000_000],
] as const;

describe('who gets what is scarce, as it is shown', () => {
  it('is by date first: what each has of it, when they have everything, and who is late', () => {
    const answer = scarceAnswer(some(), asked());
    expect([answer.scarce, answer.parts, ids(answer.rivals), ids(answer.orders)]).toEqual([
      [1],
      [1],
      [1, 2, 3],
      [1, 2, 3],
    ]);
    expect([answer.programs, answer.best, answer.waiting]).toEqual([null, { value: null, orders: null }, []]);
    const { shares, standings, whole, waits } = answer.byDate;
    expect([whole, waits]).toEqual([[], []]);
    const units = ({ source, need, now, coming, short, on }: (typeof shares)[number]) => [
      source.id,
      ...[need, now, coming, short].map((one) => one / SCALE),
      on,
    ];
    expect(shares.map(units)).toEqual([
      [1, 14, 10, 3, 1, null],
      [2, 4, 0, 0, 4, null],
      [3, 6, 0, 0, 6, null],
    ]);
    expect(standings.map(({ source, isWhole, isLate }) => [source.id, isWhole, isLate])).toEqual([
      [1, false, true],
      [2, false, true],
      [3, false, true],
    ]);
  });

  it('is the best choice once it is found: who waits for it, and who has everything then', () => {
    const programs = scarceAnswer(some(), asked({ worth })).programs;
    const keeps = (kept: readonly number[]) =>
      programs?.orders.worth.map((_, column) => kept.some((rival) => programs.orders.keeps[rival] === column)) ?? [];
    const answer = scarceAnswer(some(), asked({ worth, found: { value: null, orders: keeps([1, 2]) } }));
    expect(answer.best.value).toBeNull();
    expect([ids(answer.best.orders?.whole ?? []), ids(answer.best.orders?.waits ?? [])]).toEqual([[2, 3], [1]]);
    const late = answer.best.orders?.standings.map(({ source, isWhole, isLate }) => [source.id, isWhole, isLate]);
    expect(late).toEqual(expect.arrayContaining([[1, false, true], [2, true, false], [3, true, false]])); // biome-ignore format: a row each
  });

  it('takes no choice that was found for another question', () => {
    const answer = scarceAnswer(some(), asked({ worth, found: { value: [true], orders: [] } }));
    expect(answer.best).toEqual({ value: null, orders: null });
  });

  it('counts worths in numbers as small as they can be, and each order alike where orders are counted', () => {
    const { programs } = scarceAnswer(some(), asked({ worth }));
    expect([programs?.value.worth, programs?.orders.worth]).toEqual([
      [3, 1, 1],
      [1, 1, 1],
    ]);
    const unknown = scarceAnswer(some(), asked({ worth: [[2, 5]] })).programs;
    expect(unknown?.value.worth).toEqual([0, 1, 0]);
    const below = scarceAnswer(some(), asked({ worth: [[2, -5], [3, 10]] })).programs; // biome-ignore format: two of them
    expect(below?.value.worth.every((one) => one >= 0)).toBe(true);
  });

  it('tells who waits as it stands, of those who compete', () => {
    const late = { priority: 1 };
    const waiting = world(
      { 1: 4, 2: 9 },
      [
        wants(order(1), 1, 4, '2026-11-30', false, late),
        wants(order(2), 1, 4, '2026-12-02', false, { priority: -1 }),
        wants(order(3), 1, 4, '2026-12-03'),
        wants(order(4), 2, 4, '2026-12-03', false, late),
      ],
      [],
    );
    expect(ids(scarceAnswer(waiting, asked()).waiting)).toEqual([1]);
    // As many other parts of the same world are another question.
    expect(scarceAnswer(waiting, asked({ items: [1] }))).toMatchObject({ parts: [1], scarce: [1] });
    expect(scarceAnswer(waiting, asked({ items: [2] }))).toMatchObject({ parts: [], rivals: [], scarce: [1] });
  });

  it('adds up several lines of one for one part, complete when the last of them is', () => {
    const two = world(
      { 1: 3 },
      [
        wants(order(1), 1, 2, '2026-11-25'),
        wants(order(1), 1, 4, '2026-11-25'),
        wants(order(2), 1, 1, '2026-11-25'),
        wants(build(5), 1, 1, '2026-12-20'),
      ],
      [bought(9, 1, 3, '2026-12-20'), bought(8, 1, 2, null), made(5, 4, 1, 1)],
    );
    const { shares } = scarceAnswer(two, asked()).byDate;
    expect(
      shares.map(({ source, need, now, coming, on }) => [
        source.kind,
        source.id,
        need / SCALE,
        now / SCALE,
        coming / SCALE,
        on,
      ]),
    ).toEqual([
      ['order', 1, 6, 3, 3, '2026-12-20'],
      ['order', 2, 1, 0, 1, null],
      ['build', 5, 1, 0, 1, null],
    ]);
  });
});
