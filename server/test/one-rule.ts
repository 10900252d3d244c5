import { api, type Item, type Snapshot } from '@yosegi/contract';
import { worldOf } from '@yosegi/contract/coverage-input';
import { cover } from '@yosegi/core/coverage';
import { formatDecimal, parseDecimal, type Quantity } from '@yosegi/core/number';
import type { TestServer } from './harness.ts';

const FIGURES = ['onHand', 'onBench', 'held', 'promised', 'free', 'coming', 'averageCost', 'value'] as const;
const sum = (amounts: readonly string[]) => formatDecimal(amounts.reduce((a, b) => a + parseDecimal(b), 0));
const less = (a: string, b: string) => sum([a, b.startsWith('-') ? b.slice(1) : `-${b}`]);

/**
 * Where two places that show the same figure show it differently: free, promised, held, coming, on hand and average by
 * item; how many can be made; what builds wait for and until when. Nothing when there is one rule for each.
 */
export async function disagreements({ call }: Pick<TestServer, 'call'>): Promise<string[]> {
  const found: string[] = [];
  const same = (what: string, one: unknown, other: unknown) => {
    const [a, b] = [JSON.stringify(one), JSON.stringify(other)];
    if (a !== b) found.push(`${what}: ${a} and ${b}`);
  };
  const list = (await call(api.items, { query: { limit: 500 } })).rows;
  const details = new Map<number, Item>();
  for (const { id } of list) details.set(id, await call(api.item, { params: { id } }));
  const sameItem = (where: string, other: Partial<Item> & { id: number; code: string }) => {
    for (const figure of FIGURES)
      if (figure in other)
        same(`${other.code} ${figure}, item and ${where}`, details.get(other.id)?.[figure], other[figure]);
  };
  for (const item of list) sameItem('items', item);
  for (const row of (await call(api.stockPlaces, { query: { limit: 500 } })).rows) {
    const { item, places } = row;
    sameItem('stock places', item);
    const of = (some: typeof places, figure: 'quantity' | 'promised' | 'free' = 'quantity') =>
      sum(some.map((one) => one[figure]));
    // What is held in a return stands in a bin like any other that is held.
    const isPut = ({ build }: (typeof places)[number]) => build === null || build.startsWith('RT-');
    const shelves = places.filter(isPut);
    same(`${item.code} on hand, item and its places`, item.onHand, of(shelves));
    same(`${item.code} on bench, item and its places`, item.onBench, of(places.filter((place) => !isPut(place))));
    same(`${item.code} held, item and its places`, item.held, of(shelves.filter(({ held }) => held !== null)));
    const usable = less(item.onHand, item.held);
    const there = shelves.every(({ quantity }) => !quantity.startsWith('-')) && !item.free.startsWith('-');
    if (there) same(`${item.code} promised, item and its places`, item.promised, of(shelves, 'promised'));
    if (there) same(`${item.code} free, item and its places`, item.free, less(of(shelves, 'free'), '0'));
    same(`${item.code} free is on hand − held − promised`, item.free, less(usable, item.promised));
    const bins = await call(api.itemBins, { params: { id: item.id } });
    same(`${item.code}, places and bins`, of(places), sum(bins.map(({ quantity }) => quantity)));
  }
  const snapshot = await call(api.snapshot, { query: {} });
  const world = worldOf(snapshot);
  for (const [id, , averageCost, stock] of snapshot.items) {
    const item = details.get(id);
    if (!item) continue;
    same(`${item.code} usable, item and snapshot`, less(item.onHand, item.held), sum(stock.map(([, there]) => there)));
    sameItem('snapshot', { id, code: item.code, promised: formatDecimal(world.promised(id)), averageCost });
    const coming = world.comingOf(id);
    same(
      `${item.code} coming, item and snapshot`,
      item.coming,
      formatDecimal(coming.reduce((a, b) => a + b.quantity, 0)),
    );
    const rows = await call(api.coming, { params: { id } });
    same(`${item.code} coming, item and its list`, item.coming, sum(rows.map(({ quantity }) => quantity)));
    const built = coming.flatMap(({ from }) => (from.kind === 'build' ? from.id : []));
    for (const row of rows)
      if (row.source === 'build' && built.includes(row.id))
        same(`${item.code} day of ${row.number}, its list and snapshot`, row.on, world.doneOn().get(row.id));
  }
  for (const row of await call(api.buyList, { query: {} })) {
    const item = details.get(row.itemId) as Item;
    sameItem('buy list', { id: item.id, code: item.code, promised: row.promised, coming: row.coming });
    same(`${item.code} usable, item and buy list`, less(item.onHand, item.held), row.usable);
  }
  await compareDefinitions(call, snapshot, sameItem, same);
  const short = await compareOrders(call, details, same);
  await compareBuilds(call, short, sameItem, same);
  return found;
}

type Same = (what: string, one: unknown, other: unknown) => void;
type SameItem = (where: string, other: Partial<Item> & { id: number; code: string }) => void;
/** More than anything here could make. */
const MANY = parseDecimal('100000') as Quantity;

async function compareDefinitions(call: TestServer['call'], snapshot: Snapshot, sameItem: SameItem, same: Same) {
  const world = worldOf(snapshot);
  for (const { id, itemId, code, canMakeNow } of (await call(api.definitions, { query: { limit: 200 } })).rows) {
    const detail = await call(api.definition, { params: { id } });
    for (const line of detail.revisions.flatMap(({ lines }) => lines))
      if (line.kind === 'part') sameItem('definition', line.item);
    if (!world.definitionOf(itemId)) continue;
    const answer = cover(world, { wanted: [{ itemId, quantity: MANY }] });
    same(`${code} can be made, list and Cover`, canMakeNow, formatDecimal(answer.products[0]?.now ?? 0));
    for (const { itemId: partId, free, promised, coming } of answer.components) {
      const [a, b, c] = [free, promised, coming].map((amount) => formatDecimal(amount)) as [string, string, string];
      sameItem('Cover', { id: partId, code: String(partId), free: a, promised: b, coming: c });
    }
  }
}

/** What open orders are short of, by item; as their sheets say it. */
async function compareOrders(call: TestServer['call'], details: ReadonlyMap<number, Item>, same: Same) {
  const short = new Map<number, string[]>();
  for (const row of (await call(api.orders, { query: { limit: 200 } })).rows) {
    const order = await call(api.order, { params: { id: row.id } });
    const { standing, completeOn, outlook, worth, wantedOn } = order;
    same(
      `${row.number}, order and list`,
      { standing, completeOn, outlook, worth, wantedOn },
      {
        standing: row.standing,
        completeOn: row.completeOn,
        outlook: row.outlook,
        worth: row.worth,
        wantedOn: row.wantedOn,
      },
    );
    for (const line of order.lines) {
      // The last of what comes for a line is what it waits for, where it waits and nothing is missing.
      const coming = line.parts.flatMap(({ comes }) => comes.map(({ on }) => on));
      if (line.completeOn !== '' && line.completeOn !== null)
        same(`${row.number} line ${line.id}, its day and what comes for it`, line.completeOn, coming.sort().at(-1));
    }
    for (const { item, open, ready } of order.lines.flatMap((line) => line.parts))
      short.set(item.id, [...(short.get(item.id) ?? []), less(open, ready)]);
  }
  for (const { id, code, promised } of details.values()) {
    const rows = await call(api.promisedTo, { params: { id } });
    same(`${code} promised, item and to whom`, promised, sum(rows.map(({ quantity }) => quantity)));
  }
  return short;
}

async function compareBuilds(
  call: TestServer['call'],
  forOrders: ReadonlyMap<number, string[]>,
  sameItem: SameItem,
  same: Same,
) {
  const { rows } = await call(api.builds, { query: { state: 'open', limit: 200 } });
  const today = await call(api.today, {});
  const shown = [...today.ready, ...today.waiting, ...today.onBench];
  for (const row of rows) {
    const detail = await call(api.build, { params: { id: row.id } });
    const { waiting, canStart, late, pickedLines } = detail;
    same(`${row.number}, build and list`, { waiting, canStart, late, pickedLines }, pickOf(row));
    same(
      `${row.number}, list and Today`,
      row,
      shown.find(({ id }) => id === row.id),
    );
    for (const line of detail.lines) if (line.item) sameItem('build', line.item);
  }
  for (const hold of today.holdUps) {
    const waiting = rows.flatMap((row) => row.waiting.filter(({ itemId }) => itemId === hold.itemId));
    const short = [...waiting.map((part) => part.short), ...(forOrders.get(hold.itemId) ?? [])];
    same(`${hold.code} short, Today and what waits for it`, hold.short, sum(short));
  }
}

const pickOf = <T extends { waiting: unknown; canStart: unknown; late: unknown; pickedLines: unknown }>(row: T) => {
  const { waiting, canStart, late, pickedLines } = row;
  return { waiting, canStart, late, pickedLines };
};

/**
 * The same question asked in Cover and by planning: a build that is last in turn can start with as many as Cover says can
 * be made now, and waits for each part for as much and until the day that Cover says. The build is taken back again.
 */
export async function coverAgainstPlan({ call }: Pick<TestServer, 'call'>, itemId: number, quantity: string) {
  const world = worldOf(await call(api.snapshot, { query: {} }));
  const answer = cover(world, { wanted: [{ itemId, quantity: parseDecimal(quantity) as Quantity }] });
  const { builds } = await call(api.planBuilds, { body: { builds: [{ itemId, quantity, due: null }] } });
  const build = await call(api.build, { params: { id: builds[0]?.id ?? 0 } });
  await call(api.cancelBuild, { params: { id: build.id }, body: { version: build.version } });
  const short = answer.components
    .filter(({ completeOn }) => completeOn !== '')
    .map(({ itemId: partId, needed, free, completeOn }) => {
      const missing = formatDecimal(needed - Math.max(0, free));
      return { itemId: partId, short: missing, comesOn: completeOn };
    });
  const byItem = <T extends { itemId: number }>(rows: T[]) => rows.sort((a, b) => a.itemId - b.itemId);
  return {
    cover: { now: formatDecimal(answer.products[0]?.now ?? 0), short: byItem(short) },
    plan: {
      now: build.canStart,
      short: byItem(
        build.waiting.map(({ itemId: partId, short: missing, comesOn }) => ({
          itemId: partId,
          short: missing,
          comesOn,
        })),
      ),
    },
  };
}
