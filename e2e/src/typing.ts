import type { Page } from '@playwright/test';
import { api, type Route } from '@yosegi/contract';
import { type Input, type Output, send } from '@yosegi/contract/client';
import type { Application, Visit } from './harness.ts';

/** A number typed, taken back and typed otherwise, a few times. */
export const KEYS = Array.from({ length: 4 }, () => ['1', '2', '5', 'Backspace', 'Backspace', 'Backspace']).flat();
const MANY_ITEMS = 20_000;
const DRAFT_LINES = 40;

/** How often somebody who types has to wait. */
export interface Typed {
  readonly where: string;
  /** Tasks of the main thread over 50 ms, while {@link KEYS} were typed. */
  readonly long: number;
  /** The longest of them, in milliseconds. */
  readonly worst: number;
}

/**
 * Types into a draft of 40 lines, into Cover with 5 products, and into the list of 20,000 items, drags a delivery to other
 * days and scrolls 200 components, and counts what held it up.
 */
export async function typeEverywhere(application: Application, { page }: Visit): Promise<Typed[]> {
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
  const results: Typed[] = [];
  for (const [what, path, field] of places) {
    await page.goto(path);
    await page.getByLabel(field, { exact: true }).focus();
    await page.waitForLoadState('networkidle');
    const tasks = await longTasks(page, async () => {
      for (const key of KEYS) await page.keyboard.press(key);
    });
    results.push({ where: what, ...tasks });
  }
  const large = await call(api.createItem, {
    body: { code: 'LARGE', name: 'Large', unitId: 1, source: 'made', homeBinId: null, ...NOTHING },
  });
  const definition = await call(api.createDefinition, { body: { itemId: large.id } });
  const many = (await call(api.items, { query: { q: 'BENCH-', limit: 200 } })).rows;
  const parts = many.map(({ id }) => ({ kind: 'part' as const, itemId: id, quantity: '2', ...LINE }));
  const saved = { params: { id: definition.id }, body: { version: 0, outputQuantity: '1', lines: parts } };
  await call(api.saveRevision, saved);
  return [...results, await dragDay(page), await scrollComponents(page, large.id, parts.length)];
}

async function dragDay(page: Page): Promise<Typed> {
  await page.goto('/cover/time/24');
  const handle = page.getByRole('button', { name: /The arrow keys move the day/ }).first();
  await handle.waitFor();
  await page.waitForLoadState('networkidle');
  const box = await handle.boundingBox();
  const [x, y] = [(box?.x ?? 0) + 20, (box?.y ?? 0) + 10];
  const tasks = await longTasks(page, async () => {
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let step = 1; step <= KEYS.length; step += 1) await page.mouse.move(x + step * 9, y);
    await page.mouse.up();
  });
  return { where: 'a delivery being dragged to other days', ...tasks };
}

async function scrollComponents(page: Page, itemId: number, count: number): Promise<Typed> {
  await page.goto(`/cover?want=${itemId}x3&drafts=1`);
  const list = page.getByRole('list', { name: 'Parts' });
  await list
    .getByRole('listitem')
    .nth(count - 1)
    .waitFor({ state: 'attached' });
  await page.waitForLoadState('networkidle');
  await list.hover();
  const tasks = await longTasks(page, async () => {
    for (let step = 0; step < KEYS.length; step += 1) await page.mouse.wheel(0, 420);
    await list
      .getByRole('listitem')
      .nth(count - 1)
      .waitFor();
  });
  return { where: `${count} components being scrolled`, ...tasks };
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
