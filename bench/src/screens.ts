import { chromium, type Page } from '@playwright/test';
import { api, type Route } from '@yosegi/contract';
import { type Input, type Output, send } from '@yosegi/contract/client';
import { launchOptions } from '@yosegi/e2e/chromium';
import { Application, type Visit } from '@yosegi/e2e/harness';
import { median, ms, type Result } from './result.ts';

const ROUNDS = 20;
const MOST_MS = 100;
const STATIONS = ['Define', 'Cover', 'Orders', 'Build', 'Pick', 'Take apart', 'Today'];
/** A number typed, taken back and typed otherwise, a few times. */
const KEYS = Array.from({ length: 4 }, () => ['1', '2', '5', 'Backspace', 'Backspace', 'Backspace']).flat();
const MANY_ITEMS = 20_000;
const DRAFT_LINES = 40;

/** How soon a station is there, and whether typing ever holds the page up, in Chromium on the demo business. */
export async function screenBench(): Promise<Result[]> {
  const browser = await chromium.launch(launchOptions);
  const application = await Application.start(browser);
  try {
    const visit = await application.open();
    return [await clicks(visit.page), ...(await typing(application, visit))];
  } finally {
    await application.close();
    await browser.close();
  }
}

/** From the click on a station to its heading painted, with what it shows fetched before. */
async function clicks(page: Page): Promise<Result> {
  const go = (name: string) =>
    page.evaluate(async (station) => {
      const link = [...document.querySelectorAll('nav[aria-label=Stations] a')].find((one) =>
        one.textContent?.startsWith(station),
      ) as HTMLAnchorElement;
      const before = document.querySelector('#main h1');
      const started = performance.now();
      link.click();
      while (document.querySelector('#main h1') === before || !document.querySelector('#main h1'))
        await new Promise((resolve) => requestAnimationFrame(resolve));
      await new Promise((resolve) => requestAnimationFrame(resolve));
      return performance.now() - started;
    }, name);
  for (const name of STATIONS) await go(name);
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) for (const name of STATIONS) times.push(await go(name));
  const frames: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1)
    frames.push(
      await page.evaluate(async () => {
        const started = performance.now();
        for (let n = 0; n < 2; n += 1) await new Promise((resolve) => requestAnimationFrame(resolve));
        return performance.now() - started;
      }),
    );
  const [click, empty] = [median(times), median(frames)];
  return {
    name: 'from a click to a painted station, with warm data',
    measured: `${ms(click)} (median of ${ROUNDS} × ${STATIONS.length})`,
    baseline: `${ms(empty)} for two empty frames`,
    ratio: `ratio ${(click / empty).toFixed(1)}`,
    promise: `below ${MOST_MS} ms`,
    holds: click < MOST_MS,
  };
}

/** How many tasks over 50 ms the main thread has while somebody types. */
async function typing(application: Application, { page }: Visit): Promise<Result[]> {
  const call = <R extends Route>(route: R, input: Input<R>): Promise<Output<R>> =>
    send(
      async (url, init) => {
        const answer = await page.request.fetch(url, {
          method: init.method ?? 'GET',
          headers: init.headers as Record<string, string>,
          ...(init.body ? { data: String(init.body) } : {}),
        });
        return new Response(new Uint8Array(await answer.body()), { status: answer.status() });
      },
      route,
      input,
    );
  const { rows } = await call(api.items, { query: { limit: 100 } });
  const bought = rows.filter(({ source }) => source === 'bought').slice(0, DRAFT_LINES);
  const made = await call(api.createItem, {
    body: { code: 'FORTY', name: 'Forty lines', unitId: 1, source: 'made', homeBinId: null, ...NOTHING },
  });
  const begun = await call(api.createDefinition, { body: { itemId: made.id } });
  const lines = bought.map(({ id }) => ({ kind: 'part' as const, itemId: id, quantity: '2', ...LINE }));
  await call(api.saveRevision, { params: { id: begun.id }, body: { version: 0, outputQuantity: '1', lines } });
  await application.write((tx) =>
    tx.insertMany(
      'item',
      Array.from({ length: MANY_ITEMS }, (_, n) => ({
        code: `BENCH-${n}`,
        name: `Thing ${n}`,
        unit_id: 1,
        source: 'bought' as const,
      })),
    ),
  );
  const products = rows.filter(({ definitionId }) => definitionId !== null).slice(0, 5);
  const places: [what: string, path: string, field: string][] = [
    [`a draft of ${bought.length} lines`, `/define/${begun.definitionId}?rev=1`, `Amount of ${bought[4]?.name}`],
    [
      'Cover with 5 products',
      `/cover?want=${products.map(({ id }) => `${id}x9`).join(',')}`,
      `Quantity of ${products[0]?.name}`,
    ],
    [`a list of ${MANY_ITEMS.toLocaleString('en')} items`, '/stock/items', 'Find an item'],
  ];
  const results: Result[] = [];
  for (const [what, path, field] of places) {
    await page.goto(path);
    await page.getByLabel(field, { exact: true }).focus();
    await page.waitForLoadState('networkidle');
    const { long, worst } = await longTasks(page, async () => {
      for (const key of KEYS) await page.keyboard.press(key);
    });
    results.push({
      name: `typing ${KEYS.length} keys into ${what}`,
      measured: `${long} tasks over 50 ms, the longest ${ms(worst)}`,
      baseline: 'none while nothing is typed',
      ratio: `${(long / KEYS.length).toFixed(2)} a key`,
      promise: 'none over 50 ms',
      holds: long === 0,
    });
  }
  return results;
}

async function longTasks(page: Page, work: () => Promise<void>): Promise<{ long: number; worst: number }> {
  await page.evaluate(() => {
    const seen: number[] = [];
    Object.assign(window, { seen });
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) seen.push(duration);
    }).observe({ entryTypes: ['longtask'] });
  });
  await work();
  const seen = await page.evaluate(() => (window as unknown as { seen: number[] }).seen);
  return { long: seen.length, worst: Math.max(0, ...seen) };
}

const NOTHING = { sellPrice: null, reorderPoint: null, standardCost: null, note: '' };
const LINE = {
  basis: 'per-output',
  waste: '0',
  taken: 'picked-first',
  share: null,
  fromBinId: null,
  comesBack: true,
} as const;
