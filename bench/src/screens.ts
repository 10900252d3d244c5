import { chromium, type Page } from '@playwright/test';
import { launchOptions } from '@yosegi/e2e/chromium';
import { Application, type Visit } from '@yosegi/e2e/harness';
import { KEYS, typeEverywhere } from '@yosegi/e2e/typing';
import { median, ms, type Result } from './result.ts';

const ROUNDS = 20;
const MOST_MS = 100;
const STATIONS = ['Define', 'Cover', 'Orders', 'Build', 'Pick', 'Take apart', 'Today'];

/** How soon a station is there, and whether typing ever holds the page up, in Chromium on the demo business. */
export async function screenBench(): Promise<Result[]> {
  const browser = await chromium.launch(launchOptions);
  const application = await Application.start(browser);
  try {
    const visit = await application.open();
    return [await clicks(visit.page), await board(application, visit.page), ...(await typing(application, visit))];
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

const TASKS = 500;

/** From the click to the painted board with so many open tasks, its data fetched before. */
async function board(application: Application, page: Page): Promise<Result> {
  await application.write((tx) =>
    tx.run(
      `WITH RECURSIVE n (i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ${TASKS}),
         one (id) AS (SELECT id FROM build WHERE state = 'planned' AND repair_id IS NULL LIMIT 1)
       INSERT INTO build_line (build_id, position, kind, text, basis, amount, rate_per_hour, added_by, added_because)
       SELECT one.id, 2000 + i, 'labour', 'Step ' || i, 'per-run', 5000000, 24000000, 1, 'bench' FROM n, one`,
    ),
  );
  await application.write((tx) =>
    tx.run(
      `INSERT INTO task (id, person_id, due) SELECT id, 1 + id % 3, date('now', (id % 8) || ' days') FROM build_line
       WHERE added_because = 'bench'`,
    ),
  );
  const go = () =>
    page.evaluate(async () => {
      const link = document.querySelector('#main a[href="/build/board"]') as HTMLAnchorElement;
      const before = document.querySelector('#main h1');
      const started = performance.now();
      link.click();
      while (document.querySelector('#main h1') === before || !document.querySelector('#main h1'))
        await new Promise((resolve) => requestAnimationFrame(resolve));
      await new Promise((resolve) => requestAnimationFrame(resolve));
      return performance.now() - started;
    });
  const back = async () => {
    await page.getByRole('link', { name: 'Builds', exact: true }).click();
    await page.locator('#main a[href="/build/board"]').waitFor();
  };
  await page.goto('/build');
  await page.locator('#main a[href="/build/board"]').waitFor();
  const times: number[] = [];
  for (let round = 0; round <= ROUNDS; round += 1) {
    const time = await go();
    // The first fetches what it shows.
    if (round > 0) times.push(time);
    await back();
  }
  const frame = await page.evaluate(async () => {
    const started = performance.now();
    for (let n = 0; n < 2; n += 1) await new Promise((resolve) => requestAnimationFrame(resolve));
    return performance.now() - started;
  });
  const shown = median(times);
  return {
    name: `the board with ${TASKS} open tasks, painted from warm data`,
    measured: `${ms(shown)} (median of ${ROUNDS})`,
    baseline: `${ms(frame)} for two empty frames`,
    ratio: `ratio ${(shown / frame).toFixed(1)}`,
    promise: `below ${MOST_MS} ms`,
    holds: shown < MOST_MS,
  };
}

async function typing(application: Application, visit: Visit): Promise<Result[]> {
  return (await typeEverywhere(application, visit)).map(({ where, long, worst }) => ({
    name: `${KEYS.length} keys, moves or turns of the wheel on ${where}`,
    measured: `${long} tasks over 50 ms, the longest ${ms(worst)}`,
    baseline: 'none while nothing is typed',
    ratio: `${(long / KEYS.length).toFixed(2)} a key`,
    promise: 'none over 50 ms',
    holds: long === 0,
  }));
}
