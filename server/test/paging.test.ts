import { api, type Route } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { type Deed, deeds } from './deeds.ts';
import { Ground } from './ground.ts';
import { TestServer } from './harness.ts';

/** A page this long cuts between rows that are alike: everything is done at the same moment here. */
const LIMIT = 3;
/** Lists of what lives only while a file is brought in. */
const PASSING = ['importRows'];

let server: TestServer;
/** What some questions are asked about. */
let of: Readonly<Record<string, number>>;
/** Questions that cannot be asked without saying of when. */
const WHEN: Readonly<Record<string, string>> = { stockOn: 'day=2026-11-23' };
beforeAll(async () => {
  server = await TestServer.start();
  const ground = await Ground.of(server);
  const doing = async (name: Deed) => server.call(api[name] as Route, (await deeds[name](ground)) as never);
  for (const name of Object.keys(deeds) as Deed[]) await doing(name);
  for (const name of ['endRun', 'createLabelJob', 'describeLot'] as const)
    for (let times = 0; times <= LIMIT; times += 1) await doing(name);
  const clock = await ground.item({ tracking: 'serial' });
  await ground.shop.receive(clock, '5', '2', 0, { serials: ['S-1', 'S-2', 'S-3', 'S-4', 'S-5'] });
  of = { serials: clock.id };
});
afterAll(() => server.close());

const shapeOf = (route: Route): Record<string, z.ZodType> =>
  route.query instanceof z.ZodObject ? (route.query.shape as Record<string, z.ZodType>) : {};

/** Everything that can be chosen of a field of a question: its values, where there are only so many. */
function choices(of: z.ZodType): readonly string[] {
  if (of instanceof z.ZodDefault || of instanceof z.ZodOptional || of instanceof z.ZodNullable)
    return choices(of.unwrap() as z.ZodType);
  if (of instanceof z.ZodEnum) return of.options.map(String);
  return of.safeParse('true').success && of.safeParse('false').success && !of.safeParse('x').success
    ? ['true', 'false']
    : [];
}

const lists = Object.entries<Route>(api).filter(
  ([name, route]) => route.method === 'GET' && 'cursor' in shapeOf(route) && !PASSING.includes(name),
);

/** Every way to ask a list: as it comes, with each choice of each field, each sort both ways. */
function asked(route: Route): string[] {
  const { sort, down, ...fields } = Object.fromEntries(
    Object.entries(shapeOf(route)).map(([name, of]) => [name, choices(of)]),
  );
  const sorts = (sort ?? []).flatMap((by) =>
    (down?.length ? down : ['']).map((way) => `sort=${by}${way && `&down=${way}`}`),
  );
  const filters = Object.entries(fields).flatMap(([name, values]) => values.map((value) => `${name}=${value}`));
  return ['', ...sorts, ...filters];
}

describe.each(lists)('the pages of %s', (name, route) => {
  const read = async (query: string) => {
    const answer = await server.fetch(`${route.path.replace(':id', String(of[name]))}?${WHEN[name] ?? ''}&${query}`);
    return (await answer.json()) as { rows: unknown[]; next: string | null };
  };
  it('are the list, whatever it is sorted and filtered by', async () => {
    for (const query of asked(route)) {
      const whole = await read(`${query}&limit=500`);
      const rows: unknown[] = [];
      let cursor = '';
      do {
        const page = await read(`${query}&limit=${LIMIT}${cursor}`);
        rows.push(...page.rows);
        cursor = page.next === null ? '' : `&cursor=${encodeURIComponent(page.next)}`;
      } while (cursor !== '');
      expect(rows, query).toEqual(whole.rows);
      expect(whole.next).toBe(null);
      if (query === '') expect(rows.length).toBeGreaterThan(LIMIT);
    }
  });
});

const periods = Object.entries<Route>(api).filter(
  ([, route]) => route.method === 'GET' && 'from' in shapeOf(route) && 'to' in shapeOf(route),
);

describe.each(periods)('the days of %s', (_, route) => {
  const read = async (query: string) => (await server.fetch(`${route.path}?${query}`)).text();
  it('are counted with the first and the last', async () => {
    const today = '2026-11-23';
    const all = await read('');
    expect(await read(`from=${today}&to=${today}`)).toBe(all);
    expect([await read(`from=${today}`), await read(`to=${today}`)]).toEqual([all, all]);
    const none = await read('to=2026-11-22');
    expect(await read('from=2026-11-24')).toBe(none);
    expect(none).not.toBe(all);
  });
});
