import { expect, test } from '@playwright/test';
import { api, type Route, type RunDetail } from '@yosegi/contract';
import type { Input } from '@yosegi/contract/client';
import { Application, scanLikeAWedge, type Visit } from './harness.ts';

test.describe('pick runs', () => {
  let application: Application;
  let desk: Visit;
  test.beforeAll(async ({ browser }) => {
    application = await Application.start(browser);
    desk = await application.open();
  });
  test.afterAll(() => application.close());

  const call = <R extends Route>(route: R, input: Input<R>) => desk.call(route, input);
  const read = (id: number) => call(api.pickRun, { params: { id } });
  const toBench = async (id: number) => {
    const { version } = await call(api.build, { params: { id } });
    await call(api.startBuild, { params: { id }, body: { version } });
  };
  const codeOf = async (binId: number) => {
    const row = await application.one<{ code: string }>(
      `SELECT s.code || '/' || b.code AS code FROM bin b JOIN store s ON s.id = b.store_id WHERE b.id = ${binId}`,
    );
    return row?.code ?? '';
  };
  /** Scans a whole stop: the bin, the goods, and where they go. */
  const scanStop = async (visit: Visit, run: RunDetail, stop: RunDetail['stops'][number]) => {
    const { page } = visit;
    await page.getByRole('region', { name: `Pick ${stop.item.name}` }).waitFor();
    await scanLikeAWedge(page, await codeOf(stop.binId));
    await page.getByText(`Here it is: ${stop.bin}.`).waitFor();
    await scanLikeAWedge(page, stop.item.code);
    await page.getByText('That is the right one').waitFor();
    for (const line of stop.lines) {
      const goal = run.goals.find(({ kind, id }) => kind === line.kind && id === line.id);
      await scanLikeAWedge(page, goal?.codes[0] ?? '');
    }
  };

  test('of two builds and one order is walked on a phone by scan alone, cut off in the middle and resumed', async () => {
    await toBench(130);
    const goals = [
      { kind: 'build' as const, id: 121 },
      { kind: 'build' as const, id: 130 },
      { kind: 'order' as const, id: 113 },
    ];
    const { id } = await call(api.makeRun, { body: { goals, confirms: true } });
    const phone = await application.open('Tom Birch', { width: 390, height: 800 });
    const { page, context } = phone;
    // As after an hour, when the browser's own list of what was fetched is full.
    await page.addInitScript(() => performance.setResourceTimingBufferSize(3));
    await page.goto(`/pick/runs/${id}`);
    await phone.loaded();
    const run = await read(id);
    expect(run.stops.length).toBeGreaterThan(4);
    // The page is kept for when the network goes.
    await page.evaluate(() => navigator.serviceWorker.ready);
    await page.waitForFunction(async () => {
      for (const name of await caches.keys()) {
        const cache = await caches.open(name);
        const asked = (await cache.keys()).map((one) => new URL(one.url).pathname);
        if (['/pick', '/api/session', '/api/stores'].every((path) => asked.includes(path))) return true;
      }
      return false;
    });
    const [first, second, ...rest] = run.stops;
    if (!first || !second) throw new Error('too few stops');
    await scanLikeAWedge(page, 'COLD/K2');
    await page.getByText(`That is bin K2. You need ${first.item.name} from ${first.bin}.`).waitFor();
    await scanLikeAWedge(page, 'HB-GUIDE');
    await page.getByText(/You need /).waitFor();
    await scanLikeAWedge(page, 'FELT-R');
    await page.getByText(/That is Roof felt, old stock, which is archived/).waitFor();
    await scanStop(phone, run, first);
    await page.getByRole('region', { name: `Pick ${second.item.name}` }).waitFor();
    await expect.poll(async () => (await read(id)).walked.stops).toBe(1);

    await context.setOffline(true);
    await scanStop(phone, run, second);
    await page.getByText('1 pick to send from this device.').waitFor();
    // The page itself opens again without a network, and still knows what was picked.
    await page.reload();
    await page.getByText('1 pick to send from this device.').waitFor();
    // What was never opened before works without a network too.
    await page.getByRole('button', { name: /^Put back/ }).click();
    await page.getByRole('region', { name: 'Put back' }).waitFor();
    await page.getByRole('button', { name: 'Continue picking' }).click();
    await page.evaluate(() => {
      const shown: string[] = [];
      Object.assign(window, { shown });
      new MutationObserver((changes) => {
        for (const { addedNodes } of changes)
          for (const one of addedNodes) {
            const label = one instanceof HTMLElement && one.tagName === 'SECTION' && one.getAttribute('aria-label');
            if (label) shown.push(label);
          }
      }).observe(document.body, { childList: true, subtree: true });
    });
    const [third, ...others] = rest;
    if (!third) throw new Error('too few stops');
    await scanStop(phone, run, third);
    await page.getByText(/picks? to send from this device\./).waitFor();
    expect((await read(id)).walked.stops).toBeLessThan(3);
    await context.setOffline(false);
    await expect.poll(async () => (await read(id)).walked.stops).toBe(3);
    for (const stop of others) await scanStop(phone, run, stop);
    await phone.heading(/Everything (available )?is picked/);
    // No stop that was done came back for a moment, and none lost what was scanned at it.
    const shown = await page.evaluate(() => (window as unknown as { shown: string[] }).shown);
    expect(shown).toEqual([...new Set(shown)]);
    expect(shown.length).toBe(others.length);
    await expect.poll(async () => (await read(id)).walked.stops).toBe(run.stops.length);
    expect((await read(id)).stops).toEqual([]);
    await page.getByRole('button', { name: 'End the run' }).click();
    await phone.notice(`${run.number} has ended.`);
    expect(await application.verify()).toEqual([]);
    await phone.context.close();
  });

  test('is typed in from its printed sheet in one go, and taken back in one step', async () => {
    const { page } = desk;
    await toBench(124);
    await page.goto('/pick?q=B-0120');
    await page.getByText('B-0120').first().waitFor();
    await page.goto('/pick');
    await page.getByRole('button', { name: /^Start run.*B-0120/ }).click();
    await page.getByRole('heading', { name: /stops? to go on RUN-/ }).waitFor();
    await page.getByRole('link', { name: 'Print the run' }).click();
    await desk.heading(/Pick run RUN-/);
    await page.getByRole('img', { name: 'Barcode B-0120' }).waitFor();
    const title = await page.getByRole('heading', { name: /Pick run RUN-/ }).textContent();
    // Its barcode brings whoever comes back with the paper to the run.
    await page.goto('/pick');
    await desk.heading(/in progress|suggested/);
    await scanLikeAWedge(page, title?.replace('Pick run ', '') ?? '');
    await page.getByRole('textbox', { name: /Tasting jar, 125 ml from .* to B-0120/ }).fill('60');
    await page.getByRole('button', { name: /^Pick 3 lines from 3 stops$/ }).click();
    await desk.notice(/posted\. 1 stop left/);
    await desk.undo();
    await desk.notice(/Undone by UN-/);
    await page.getByRole('button', { name: /^Pick 3 lines from 3 stops$/ }).waitFor();
    await page.getByRole('button', { name: /^Not there: Tasting jar/ }).click();
    await desk.notice('The bin is on the list of bins to count.');
    await page.goto('/stock/counts');
    await page.getByRole('heading', { name: '1 bin holds less than the books show.' }).waitFor();
    await page.getByRole('button', { name: /^Mark as correct: Tasting jar/ }).click();
    await page.getByRole('heading', { name: '1 bin holds less' }).waitFor({ state: 'detached' });
    expect(desk.faults).toEqual([]);
    expect(await application.verify()).toEqual([]);
  });
});
