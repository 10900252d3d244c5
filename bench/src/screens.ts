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
