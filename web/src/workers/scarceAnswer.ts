import {
  byDateWay,
  type Contest,
  contestOf,
  isLate,
  type Program,
  programOf,
  type Standing,
  settled,
  standings,
  type Way,
  type World,
  worldOfWay,
} from '@yosegi/core/coverage';
import { type Demand, peg, type Source, sourceKey, type WhenThere } from '@yosegi/core/demand';
import { add, type Quantity, ZERO } from '@yosegi/core/number';

/** What a choice aims at: the most sales value, or the most orders. */
export const aims = ['value', 'orders'] as const;
export type Aim = (typeof aims)[number];

/** Who gets parts that are scarce. */
export interface ScarceAsk {
  /** The parts to look at; null for all that are scarce. */
  readonly items: readonly number[] | null;
  /** What open orders are worth, in millionths; null while that is not known. */
  readonly worth: readonly (readonly [orderId: number, worth: number])[] | null;
  /** Who keeps their turn, as the search found it; null where it has not found any yet. */
  readonly found: Readonly<Record<Aim, readonly boolean[] | null>>;
  readonly drafts: false;
  readonly aside: null;
}

/** What somebody has of a part. */
export interface Share {
  readonly itemId: number;
  readonly source: Source;
  readonly need: Quantity;
  readonly now: Quantity;
  readonly coming: Quantity;
  readonly short: Quantity;
  readonly on: WhenThere;
}

export interface WayShown extends Way {
  /** When everybody who competes, or depends on it, has everything. */
  readonly standings: readonly (Standing & { readonly isWhole: boolean; readonly isLate: boolean })[];
  readonly shares: readonly Share[];
}

export interface ScarceAnswer {
  /** Every part that is scarce, and those of them that are looked at. */
  readonly scarce: readonly number[];
  readonly parts: readonly number[];
  readonly rivals: readonly Source[];
  readonly orders: readonly Source[];
  /** Who of those who compete waits as it stands. */
  readonly waiting: readonly Source[];
  readonly programs: Readonly<Record<Aim, Program>> | null;
  readonly byDate: WayShown;
  readonly best: Readonly<Record<Aim, WayShown | null>>;
}

const contests = new WeakMap<World, Map<string, Contest>>();

function contestFor(world: World, items: readonly number[] | null): Contest {
  const known = contests.get(world) ?? new Map<string, Contest>();
  contests.set(world, known);
  const key = items === null ? '' : items.join(',');
  const contest = known.get(key) ?? contestOf(world, items && new Set(items));
  known.set(key, contest);
  return contest;
}

export function scarceAnswer(world: World, { items, worth, found }: ScarceAsk): ScarceAnswer {
  const contest = contestFor(world, items);
  const worthOf = { value: worthsOf(worth ?? []), orders: () => 1 } as const;
  const programs = worth && { value: programOf(contest, worthOf.value), orders: programOf(contest, worthOf.orders) };
  const bestFor = (aim: Aim): WayShown | null => {
    const yes = found[aim];
    if (programs === null || yes === null || yes.length !== programs[aim].worth.length) return null;
    const { keeps } = programs[aim];
    const waits = contest.rivals.filter((_, at) => !yes[keeps[at] ?? -1]);
    return shown(contest, settled(contest, waits, worthOf[aim]));
  };
  return {
    scarce: contest.scarce,
    parts: contest.parts,
    rivals: contest.rivals,
    orders: contest.orders,
    waiting: waitingIn(world, contest),
    programs,
    byDate: shown(contest, byDateWay(contest)),
    best: { value: bestFor('value'), orders: bestFor('orders') },
  };
}

/** Worths as whole numbers, as small as they can be. */
function worthsOf(worth: NonNullable<ScarceAsk['worth']>): (order: Source) => number {
  const byId = new Map(worth);
  let common = 0;
  for (const value of byId.values()) common = gcd(common, value);
  return ({ id }) => Math.max(0, (byId.get(id) ?? 0) / (common || 1));
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

function waitingIn({ known }: World, { rivals }: Contest): Source[] {
  const waiting = new Set<string>();
  for (const { source, turn } of known.demands.values()) if ((turn.priority ?? 0) > 0) waiting.add(sourceKey(source));
  return rivals.filter((source) => waiting.has(sourceKey(source)));
}

function shown(contest: Contest, way: Way): WayShown {
  const world = worldOfWay(contest, way.waits);
  const { today } = world.known.calendar;
  const named = new Set([...contest.rivals, ...contest.orders].map(sourceKey));
  const whole = new Set(way.whole.map(sourceKey));
  const isNamed = ({ source }: Pick<Demand, 'source'>) => named.has(sourceKey(source));
  const parts = new Set(contest.parts);
  return {
    ...way,
    standings: standings(world)
      .filter(isNamed)
      .map((one) => ({ ...one, isWhole: whole.has(sourceKey(one.source)), isLate: isLate(one, today) })),
    shares: sharesOf(peg(world.picture()).pegged.filter(({ demand }) => parts.has(demand.itemId) && isNamed(demand))),
  };
}

/** Several lines of one source for one part as one. */
function sharesOf(pegged: ReturnType<typeof peg>['pegged']): Share[] {
  const byKey = new Map<string, Share>();
  for (const { demand, now, coming, short, completeOn } of pegged) {
    const { itemId, source, quantity } = demand;
    const key = `${itemId} ${sourceKey(source)}`;
    const before = byKey.get(key);
    byKey.set(key, {
      itemId,
      source,
      need: add(before?.need ?? ZERO, quantity),
      now: add(before?.now ?? ZERO, now),
      coming: add(before?.coming ?? ZERO, coming),
      short: add(before?.short ?? ZERO, short),
      on: before === undefined ? completeOn : laterOf(before.on, completeOn),
    });
  }
  return [...byKey.values()];
}

const laterOf = (one: WhenThere, other: WhenThere): WhenThere =>
  one === null || other === null ? null : one > other ? one : other;
