import { dayOf } from '@yosegi/core/days';
import { BINS, ITEMS, momentOfBuild, momentOfOrder, openOf, over, TODAY, type World } from './demand-world.ts';

// Who is served by what and when, reckoned by hand from `domain.md` alone.

/** A bench does 480 minutes on each day from Monday to Friday. */
function doneOn(from: string, build: World['builds'][number]): string {
  const { minutes, least, task, worked, booked } = build;
  const planned = task === 'done' || task === 'skipped' ? 0 : minutes * build.left;
  // What was worked and is booked was for what is finished.
  const open = Math.max(0, planned - Math.max(0, worked - booked));
  let left = Math.max(1, least ?? 1, Math.ceil(open / 480));
  for (let day = new Date(from); ; day = new Date(day.getTime() + 86_400_000)) {
    if (day.getUTCDay() % 6 !== 0) left -= 1;
    if (left === 0) return dayOf(day);
  }
}

/** Who wants something, and one line of what they want. */
interface Who {
  readonly kind: 'build' | 'order';
  readonly id: number;
}
interface Line {
  readonly who: Who;
  readonly key: string;
  readonly lineId: number;
  readonly itemId: number;
  readonly open: number;
  readonly begun: boolean;
  readonly rank: number;
  readonly wantedOn: string | null;
  readonly promised: string;
  readonly transport: number;
  readonly alternates: World['builds'][number]['lines'][number]['alternates'];
}

const linesOfBuilds = ({ builds }: World): Line[] =>
  builds.flatMap((build, index) =>
    build.lines.flatMap(({ itemId, open, alternates }, position): Line[] => {
      const lineId = (index + 1) * 10 + position;
      const who = { kind: 'build' as const, id: index + 1 };
      const turn = { begun: build.state === 'on-bench', rank: build.rank ?? 0, wantedOn: build.due };
      const more = { promised: momentOfBuild(build, index), transport: 0, alternates };
      return !over(build.state) && open > 0
        ? [{ who, key: `build ${lineId}`, lineId, itemId, open, ...turn, ...more }]
        : [];
    }),
  );

/** Whoever gives way is served by the day they give way to, and never before the day they want it. */
const linesOfSales = ({ sales }: World): Line[] =>
  sales.flatMap((order, index) =>
    order.lines.flatMap(({ itemId, open, wantedOn: own }, position): Line[] => {
      const lineId = (index + 1) * 10 + position;
      const who = { kind: 'order' as const, id: index + 1 };
      const wanted = own ?? order.wantedOn;
      const given = order.turnOn === null || (wanted !== null && wanted > order.turnOn) ? wanted : order.turnOn;
      const wantedOn = order.turnOn === '9999-12-31' ? null : given;
      const turn = { begun: order.begun, rank: order.rank ?? 0, wantedOn };
      const more = { promised: momentOfOrder(order, index), transport: order.transport ?? 0, alternates: [] };
      return order.state === 'confirmed' && open > 0
        ? [{ who, key: `order ${lineId}`, lineId, itemId, open, ...turn, ...more }]
        : [];
    }),
  );

/** For which orders a build makes how many that are not in their parcels yet, whoever wants it first first. */
function keptFor({ sales }: World, build: number): (readonly [order: number, quantity: number])[] {
  return sales
    .flatMap((order, index) => {
      const own = order.lines.filter((line) => order.state === 'confirmed' && line.built === build);
      const left = own.map((line) => ({ line, quantity: line.quantity - Math.min(line.kept, line.quantity) }));
      const some = left.filter(({ quantity }) => quantity > 0);
      const days = some.map(({ line }) => line.wantedOn ?? order.wantedOn ?? '9').sort();
      const quantity = some.reduce((sum, one) => sum + one.quantity, 0);
      return days[0] === undefined ? [] : [{ index, day: days[0], at: momentOfOrder(order, index), quantity }];
    })
    .sort((a, b) => a.day.localeCompare(b.day) || a.at.localeCompare(b.at))
    .map(({ index, quantity }) => [index + 1, quantity] as const);
}

/** Everything by hand, one unit after the other. */
export function slowly(given: World, toBuy: boolean) {
  const known = (day: string | null) => (day !== null && day < TODAY ? null : day);
  const usable = (one: World['balances'][number]) =>
    one.binId <= BINS && !one.holder && !(one.lot && given.heldLots[one.itemId - 1]);
  const stores = [2, 1];
  const shelf = (item: number, store: number) =>
    given.balances
      .filter((one) => one.itemId === item && 1 + (one.binId % 2) === store && usable(one))
      .reduce((sum, one) => sum + one.quantity, 0);
  interface Lot {
    /** The order that it is kept for. */
    only: number | null;
    item: number;
    on: string | null;
    from: number | null;
    left: number;
  }
  const lots: Lot[] = [];
  const owed = new Map<number, number>();
  for (let item = 1; item <= ITEMS; item += 1)
    for (const store of stores) {
      const there = shelf(item, store);
      if (there > 0) lots.push({ only: null, item, on: '', from: null, left: there });
      if (there < 0) owed.set(item, (owed.get(item) ?? 0) - there);
    }
  for (const [index, build] of given.builds.entries())
    if (!over(build.state)) {
      const common = { item: build.itemId, on: null, from: index + 1 };
      let { left } = build;
      for (const [only, wanted] of keptFor(given, index)) {
        const own = Math.max(0, Math.min(left, wanted));
        lots.push({ ...common, only, left: own });
        left -= own;
      }
      lots.push({ ...common, only: null, left });
    }
  for (const order of given.orders)
    for (const line of order.lines) {
      const brings = Math.min(
        openOf(order.state, line),
        Math.max(0, (line.confirmed ?? line.quantity) - line.received),
      );
      if (brings > 0)
        lots.push({ only: null, item: line.itemId, on: known(line.expectedOn), from: null, left: brings });
      const drafted = { only: null, item: line.itemId, on: null, from: null, left: line.quantity };
      if (toBuy && order.state === 'draft') lots.push(drafted);
    }
  const take = (item: number, who: Who | null): string | null | undefined => {
    const mayServe = ({ from, only }: Lot) =>
      (only === null || (who?.kind === 'order' && who.id === only)) && (who?.kind !== 'build' || from !== who.id);
    // What is kept for somebody is used up by them first; of the same day what is made goes before what is bought.
    const [lot] = lots
      .filter((one) => one.item === item && one.left > 0 && mayServe(one))
      .sort(
        (a, b) =>
          Number(a.only === null) - Number(b.only === null) ||
          (a.on ?? '9').localeCompare(b.on ?? '9') ||
          Number(a.from === null) - Number(b.from === null) ||
          (a.from ?? 0) - (b.from ?? 0),
      );
    if (lot) lot.left -= 1;
    return lot?.on;
  };
  const missing = new Map<number, number>();
  const lack = (item: number) => missing.set(item, (missing.get(item) ?? 0) + 1);
  const lines = [...linesOfBuilds(given), ...linesOfSales(given)].sort(
    (a, b) =>
      Number(b.begun) - Number(a.begun) ||
      a.rank - b.rank ||
      (a.wantedOn ?? '9').localeCompare(b.wantedOn ?? '9') ||
      a.promised.localeCompare(b.promised) ||
      a.lineId - b.lineId,
  );
  /** Nobody knows when what is held on a bench is released; all that stands on one is of the first build. */
  const isStuck = (build: number | null) =>
    build === 1 &&
    given.balances.some(
      (one) => one.holder && one.quantity > 0 && (one.binId > BINS || (one.lot && given.heldLots[one.itemId - 1])),
    );
  const daysOf = new Map<string, (string | null)[]>();
  for (let item = 1; item <= ITEMS; item += 1) {
    for (const lot of lots) {
      const build = lot.item === item && lot.from !== null ? given.builds[lot.from - 1] : undefined;
      if (!build) continue;
      const own = lines.filter(({ who }) => who.kind === 'build' && who.id === lot.from);
      const days = own.flatMap(({ key }) => daysOf.get(key) ?? []);
      const isWhole = own.every(({ open, key }) => daysOf.get(key)?.length === open) && !days.includes(null);
      lot.on = isWhole && !isStuck(lot.from) ? doneOn([...days, TODAY].sort().at(-1) ?? TODAY, build) : null;
    }
    for (let unit = 0; unit < (owed.get(item) ?? 0); unit += 1) if (take(item, null) === undefined) lack(item);
    for (const { who, open, key } of lines.filter((one) => one.itemId === item)) {
      const days: (string | null)[] = [];
      for (let unit = 0; unit < open; unit += 1) {
        const day = take(item, who);
        if (day === undefined) lack(item);
        else days.push(day);
      }
      daysOf.set(key, days);
    }
  }
  const answers = lines.map(({ key, open: wanted, alternates, transport }) => {
    const days = daysOf.get(key) ?? [];
    let open = wanted - days.filter((day) => day === '').length;
    const standIns: [number, number][] = [];
    for (const { itemId: other, ratio } of alternates) {
      const free = lots.filter((lot) => lot.item === other && lot.on === '').reduce((sum, lot) => sum + lot.left, 0);
      const parts = Math.min(open, Math.floor(free / ratio));
      // What cannot give all it is asked for is used up by it.
      let taken = parts < open ? free : parts * ratio;
      for (const lot of lots)
        if (lot.item === other && lot.on === '') {
          const some = Math.min(lot.left, taken);
          if (!toBuy) lot.left -= some;
          taken -= some;
        }
      if (open > 0 && parts > 0) standIns.push([other, parts]);
      open -= parts;
      if (open === 0) break;
    }
    const whole = days.length === wanted && !days.includes(null);
    return {
      key,
      transport,
      now: days.filter((day) => day === '').length,
      whole: whole ? [...days].sort().at(-1) : null,
      standIns,
    };
  });
  if (toBuy)
    for (const [index, reorder] of given.reorder.entries())
      for (let unit = 0; unit < (reorder ?? 0); unit += 1) if (take(index + 1, null) === undefined) lack(index + 1);
  return { answers, missing };
}
