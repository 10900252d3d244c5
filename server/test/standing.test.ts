import { api, type Item, type StockPlaces } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { formatDecimal, parseDecimal } from '@yosegi/core/number';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { anyStep, World } from './days.ts';
import { TestServer } from './harness.ts';

type Place = StockPlaces['rows'][number]['places'][number];
type Asked = { storeId?: number; binId?: number; held?: 'true'; q?: string };

let now = new Date('2026-11-23T09:00:00');
let server: TestServer;
let world: World;
beforeAll(async () => {
  server = await TestServer.start(undefined, { now: () => now });
  world = await World.open(server);
});
afterAll(() => server.close());

const sum = (amounts: readonly string[]) => formatDecimal(amounts.reduce((all, one) => all + parseDecimal(one), 0));

/** Every row, page by page, and what each page says besides. */
async function walk<Page extends { rows: unknown[]; next: string | null }>(ask: (cursor?: string) => Promise<Page>) {
  const pages = [await ask()];
  for (let next = pages[0]?.next; next; next = pages.at(-1)?.next) pages.push(await ask(next));
  return { pages, rows: pages.flatMap(({ rows }): Page['rows'][number][] => rows) };
}
const more = (cursor?: string) => (cursor ? { cursor } : {});
const places = async (asked: Asked, limit = 500) =>
  (await walk((cursor) => server.call(api.stockPlaces, { query: { ...asked, limit, ...more(cursor) } }))).rows;

/** What an evening leaves, as the list of items says it then. */
interface Evening {
  readonly day: string;
  readonly rows: readonly (readonly [code: string, quantity: string, value: string])[];
}
async function evening(): Promise<Evening> {
  const { rows } = await server.call(api.items, { query: { limit: 500 } });
  const there = rows.map(
    ({ code, onHand, onBench, value }: Item) => [code, sum([onHand, onBench]), value] as [string, string, string],
  );
  const left = there.filter(([, quantity, value]) => quantity !== '0' || value !== '0');
  return { day: dayOf(now), rows: left.toSorted(([a], [b]) => a.localeCompare(b)) };
}

/** What is promised stands in walking order where it can be taken, and nowhere else. */
function expectPromised(item: Item, own: readonly Place[]): void {
  const usable = own.filter(({ build, kind, held }) => build === null && kind === 'shelf' && held === null);
  for (const place of own.filter((one) => !usable.includes(one)))
    expect([place.promised, place.free], item.code).toEqual(['0', '0']);
  for (const place of usable) expect(place.free, item.code).toBe(sum([place.quantity, `-${place.promised}`]));
  const there = usable.filter(({ quantity }) => !quantity.startsWith('-'));
  const all = sum(there.map(({ quantity }) => quantity));
  const promised = parseDecimal(item.promised) < parseDecimal(all) ? item.promised : all;
  expect(sum(own.map((place) => place.promised)), item.code).toBe(promised);
  const last = there.findLastIndex((place) => place.promised !== '0');
  expect(
    there.slice(0, Math.max(0, last)).map(({ free }) => Number(free)),
    item.code,
  ).toEqual(there.slice(0, Math.max(0, last)).map(() => 0));
}

describe('after days of anything', () => {
  const evenings: Evening[] = [];
  beforeAll(async () => {
    const days = fc.array(fc.array(anyStep, { minLength: 10, maxLength: 14 }), { minLength: 6, maxLength: 6 });
    await fc.assert(
      fc.asyncProperty(days, async (drawn) => {
        for (const day of drawn) {
          await world.live(day);
          evenings.push(await evening());
          now = new Date(now.getTime() + 86_400_000);
        }
      }),
      { numRuns: 1, endOnFailure: true },
    );
  });

  it('everything stands where the movements say', async () => {
    const codes = new Map((await server.call(api.stores, {})).map(({ name, code }) => [name, code]));
    const shown = (await places({})).flatMap(({ item, places: own }) =>
      own.map(({ store, bin, lot, build, quantity }) => {
        return [item.id, `${codes.get(store)} · ${bin}`, lot ?? '', build ?? '', quantity] as const;
      }),
    );
    const total = new Map<string, string>();
    for (const [itemId, bin, lot, build, quantity] of shown) {
      const key = [itemId, lot, bin, build].join('|');
      total.set(key, sum([total.get(key) ?? '0', quantity]));
    }
    expect([...total].sort()).toEqual(world.books.standing());
    expect(total.size).toBeGreaterThan(0);
  });

  it('each filter and each page shows what the whole shows of it', async () => {
    const whole = await places({});
    for (const { item, places: own } of whole) expectPromised(item, own);
    expect(await places({}, 1)).toEqual(whole);
    const stores = await server.call(api.stores, {});
    const texts = ['', 'OO', 'wax', 'L1', 'SC-0', 'The B', '%', '_'];
    const asked: Asked[] = [
      ...texts.map((q) => ({ q })),
      ...stores.map(({ id }) => ({ storeId: id })),
      ...world.bins.map((binId) => ({ binId })),
      ...world.bins.map((binId) => ({ binId, held: 'true' as const, q: 'L' })),
      { held: 'true' },
    ];
    const storeOf = new Map(stores.map(({ id, name }) => [id, name]));
    const has = (text: string, q = '') => text.toLowerCase().includes(q.toLowerCase());
    for (const one of asked) {
      const fits = (place: Place) =>
        (one.binId === undefined || place.binId === one.binId) &&
        (one.storeId === undefined || place.store === storeOf.get(one.storeId)) &&
        (one.held === undefined || place.held !== null);
      const named = await serialsAt(one.q ?? '');
      const slowly = whole
        .map(({ item, places: own }) => ({ item, places: own.filter(fits) }))
        .filter(({ item, places: own }) => {
          const isNamed = has(item.code, one.q) || has(item.name, one.q);
          return own.some(
            ({ binId, lot }) => isNamed || has(lot ?? '', one.q) || (item.tracking === 'serial' && named.has(binId)),
          );
        });
      expect(await places(one), JSON.stringify(one)).toEqual(slowly);
    }
  });

  it('a past day is what its evening was, on each page and with each text', async () => {
    for (const { day, rows } of [{ day: '2026-11-22', rows: [] }, ...evenings]) {
      for (const [limit, q] of [[500], [1], [500, 'o'], [1, 'the w'], [500, '%']] as const) {
        const query = { day, limit, ...(q ? { q } : {}) };
        const then = await walk((cursor) => server.call(api.stockOn, { query: { ...query, ...more(cursor) } }));
        const of = rows.filter(([code]) => `${code} The ${code}`.toLowerCase().includes(q ?? ''));
        expect(then.rows.map(({ code, quantity, value }) => [code, quantity, value])).toEqual(of);
        // The total is of everything, whatever is asked for.
        for (const page of then.pages)
          expect([page.day, page.value]).toEqual([day, sum(rows.map(([, , value]) => value))]);
      }
    }
  });

  it('the line of values rises and falls with the evenings', async () => {
    const { rows: items } = await server.call(api.items, { query: { limit: 500 } });
    const asked = [undefined, ...items];
    for (const item of asked) {
      const line = await server.call(api.stockValue, { query: item ? { itemId: item.id } : {} });
      const at = (day: string) => line.filter((point) => point.day <= day).at(-1)?.value ?? '0';
      for (const { day, rows } of evenings)
        expect(at(day), `${item?.code ?? 'all'} on ${day}`).toBe(
          sum(rows.filter(([code]) => !item || code === item.code).map(([, , value]) => value)),
        );
      expect(line.map(({ day }) => day)).toEqual([...new Set(line.map(({ day }) => day))].sort());
    }
  });
});

/** Bins in which a unit stands whose number has this text in it. */
async function serialsAt(q: string): Promise<ReadonlySet<number>> {
  const bins = await server.call(api.itemBins, { params: { id: world.items.scale.id } });
  return new Set(
    bins
      .filter(({ pieces }) => pieces.some(({ serial }) => serial?.toLowerCase().includes(q.toLowerCase())))
      .map(({ binId }) => binId),
  );
}
