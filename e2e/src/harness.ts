import { copyFileSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { Browser, BrowserContext, Locator, Page } from '@playwright/test';
import type { Route } from '@yosegi/contract';
import { type Input, type Output, send } from '@yosegi/contract/client';
import { dayOf } from '@yosegi/core/days';
import { demoOnce } from '@yosegi/demo/once';
import { buildApp } from '@yosegi/server/app';
import { Database } from '@yosegi/server/db/database';
import { ensureCompany, migrate } from '@yosegi/server/db/migrate';
import { verifyDatabase } from '@yosegi/server/db/verify';
import type { FastifyInstance } from 'fastify';
import { pino } from 'pino';

/** The application on a copy of the demo business, and a browser to use it with. */
export class Application {
  private readonly contexts: BrowserContext[] = [];
  private constructor(
    readonly address: string,
    private readonly app: FastifyInstance,
    private readonly database: Database,
    private readonly browser: Browser,
    private readonly folder: string,
  ) {}

  /**
   * @param business the demo business, or a company with one owner and nothing else, or the same as it begins
   * @param locale how the company writes numbers and days
   */
  static async start(
    browser: Browser,
    business: 'demo' | 'empty' | 'new' = 'demo',
    locale = 'en-GB',
  ): Promise<Application> {
    const folder = mkdtempSync(join(tmpdir(), 'yosegi-e2e-'));
    const file = join(folder, 'yosegi.sqlite');
    if (business === 'demo') copyFileSync(await demoOnce(), file);
    const database = await Database.open(file);
    if (business !== 'demo') {
      await migrate(database);
      await ensureCompany(database, {
        name: 'New company',
        currency: 'EUR',
        locale,
        ...(business === 'new' ? { setUp: true as const } : {}),
        people: [{ name: 'Mo Okafor', initials: 'MO', role: 'owner' }],
      });
    } else if (locale !== 'en-GB') {
      await database.write((tx) => tx.run('UPDATE company SET locale = $1', [locale]));
    }
    const webRoot = resolve('web/dist');
    if (!existsSync(webRoot)) throw new Error('the web application is not built');
    const app = await buildApp({ database, webRoot, logger: pino({ level: 'error' }) });
    const address = await app.listen({ host: '127.0.0.1', port: 0 });
    return new Application(address, app, database, browser, folder);
  }

  /** A browser of its own, in which `person` is working. Faults on the page are collected in `faults`. */
  async open(
    person = 'Mo Okafor',
    viewport = { width: 1280, height: 800 },
    more: { readonly hasTouch?: boolean } = {},
  ): Promise<Visit> {
    const context = await this.browser.newContext({
      viewport,
      baseURL: this.address,
      reducedMotion: 'reduce',
      locale: 'en-GB',
      ...more,
    });
    this.contexts.push(context);
    await context.addInitScript(watchFocus);
    const page = await context.newPage();
    const visit = new Visit(context, page);
    page.on('pageerror', (error) => visit.faults.push(error.message));
    page.on('console', (message) => {
      // A refusal that a person sees is also a failed request in the console; everything else is a fault.
      if (message.type() === 'error' && !message.text().startsWith('Failed to load resource'))
        visit.faults.push(message.text());
    });
    await page.goto('/');
    await page.getByRole('button', { name: person }).click();
    await page.getByRole('navigation', { name: 'Stations' }).waitFor();
    return visit;
  }

  verify = () => verifyDatabase(this.database.reader);
  one = <T extends object>(sql: string) => this.database.reader.one<T>(sql);
  /** Changes the data behind the application's back, as only a bench may. */
  write = (work: Parameters<Database['write']>[0]) => this.database.write(work);

  async close(): Promise<void> {
    for (const context of this.contexts) await context.close();
    await this.app.close();
    await this.database.close();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

export class Visit {
  readonly faults: string[] = [];
  constructor(
    readonly context: BrowserContext,
    readonly page: Page,
  ) {}

  /** Asks the server as this person, past the page. */
  call = <R extends Route>(route: R, input: Input<R>): Promise<Output<R>> =>
    send(
      async (url, init) => {
        const answer = await this.page.request.fetch(url, {
          method: init.method ?? 'GET',
          headers: init.headers as Record<string, string>,
          ...(init.body ? { data: String(init.body) } : {}),
        });
        return new Response(new Uint8Array(await answer.body()), { status: answer.status() });
      },
      route,
      input,
    );
  /** What was said at the foot of the screen, the newest first. */
  get notices() {
    return this.page.getByRole('alertdialog');
  }
  /** Waits until this is what was said last; the same may still be there from before. */
  notice = (text: RegExp | string) => this.notices.first().getByText(text).waitFor();
  undo = () => this.notices.first().getByRole('button', { name: 'Undo' }).click();
  /** Answers the question that stands over the page. */
  answer = (name: string) => this.page.getByRole('alertdialog').getByRole('button', { name, exact: true }).click();
  /** The page has its heading, and nothing is an outline any more. */
  loaded = () =>
    this.page.waitForFunction(
      () =>
        document.querySelector('h1') !== null && document.querySelector('[role=status][aria-label=Loading]') === null,
    );
  heading = (text: RegExp | string) => this.page.getByRole('heading', { name: text }).first().waitFor();
}

const trigger = (field: Locator) => field.and(field.page().getByRole('button'));

/** Opens a choice and takes what is called so. */
export async function choose(field: Locator, option: string | RegExp): Promise<void> {
  await trigger(field).click();
  await field
    .page()
    .getByRole('option', { name: option, exact: typeof option === 'string' })
    .click();
}

/** Pastes a text into a field, as from a spreadsheet. */
export async function paste(field: Locator, text: string): Promise<void> {
  await field.focus();
  await field.evaluate((element, pasted) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', pasted);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, text);
}

/** Types into a box that looks for one of many, and takes what is called so. */
export async function find(field: Locator, name: string): Promise<void> {
  await field.fill(name);
  await field.page().getByRole('option', { name }).first().click();
}

/** Sets a tick or a radio, as one does by clicking at its name. */
export async function tick(field: Locator, isOn = true): Promise<void> {
  if ((await field.isChecked()) !== isOn) await field.locator('xpath=ancestor::label').click();
}

/** What a choice stands on. */
export const chosen = (field: Locator) => trigger(field).locator('.react-aria-SelectValue').textContent();

/** The ISO day so many days from today. */
export const dayIn = (days: number) => dayOf(new Date(Date.now() + days * 86_400_000));

/** Hands that never leave the keyboard. */
export class Keyboard {
  presses = 0;
  constructor(readonly page: Page) {}

  async press(key: string): Promise<void> {
    this.presses += 1;
    await this.page.keyboard.press(key);
  }

  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text);
  }

  /** Tabs to the control of this name, as a person would who looks for it. */
  async tabTo(name: RegExp, key = 'Tab'): Promise<void> {
    let at = await this.focused();
    for (let tries = 0; tries < 150; tries += 1) {
      if (name.test(at)) return;
      await this.press(key);
      at = await this.focused(true);
    }
    throw new Error(`no way by Tab to ${name}; last at “${at}”`);
  }

  /** Goes somewhere by Ctrl K. */
  async goTo(text: string, heading: RegExp): Promise<void> {
    await this.press('Control+k');
    await this.page.getByRole('searchbox', { name: 'Find or do' }).waitFor();
    await this.type(text);
    await this.page.getByRole('menuitem').filter({ hasText: text }).first().waitFor();
    await this.press('Enter');
    await this.page.getByRole('heading', { name: heading }).first().waitFor();
    // As one looks where one is before one goes on.
    await this.page.waitForFunction(() => document.activeElement?.matches('#main :is(h1, input, textarea)'));
  }

  /**
   * The name of what has the focus.
   * @param moved once it is another than when this was asked last: a key may wait for its answer
   */
  focused(moved = false): Promise<string> {
    return this.page.evaluate(async (isOther) => {
      const seen = window as { seen?: Element | null };
      for (let frames = 0; isOther && document.activeElement === seen.seen && frames < 600; frames += 1)
        await new Promise(requestAnimationFrame);
      seen.seen = document.activeElement;
      const element = document.activeElement;
      if (!element || element === document.body) return '';
      const labelled = element
        .getAttribute('aria-labelledby')
        ?.split(' ')
        .map((id) => document.getElementById(id)?.textContent ?? '');
      const label = (element as HTMLInputElement).labels?.[0]?.textContent;
      return (
        element.getAttribute('aria-label') ??
        (labelled?.join(' ').trim() || label || element.textContent) ??
        ''
      ).trim();
    }, moved);
  }
}

/**
 * What a key-wedge scanner does: it types into whatever is focused, or into nothing. There its keys are told from a hand's
 * by how fast they come, so they are made in the page, where no machine's load can slow them down.
 */
export async function scanLikeAWedge(page: Page, text: string): Promise<void> {
  const typesInto = await page.evaluate(() => document.activeElement instanceof HTMLInputElement);
  if (typesInto) {
    await page.keyboard.insertText(text);
    await page.keyboard.press('Enter');
    return;
  }
  await page.evaluate(
    (keys) => {
      for (const key of keys)
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    },
    [...text, 'Enter'],
  );
}

/** Tells, as a fault of the page, of every deed after which the focus is nowhere, though the page is there. Runs in the page. */
function watchFocus(): void {
  // More pictures of the screen than any mend of it takes.
  const MOST = 30;
  let deed = '';
  let frames = 0;
  const onPress = ({ target, isTrusted }: Event) => {
    const pressed = isTrusted && target instanceof Element ? target.closest('#main :is(button, label)') : null;
    deed = (pressed?.ariaLabel ?? pressed?.textContent ?? '').trim();
    frames = 0;
  };
  const look = () => {
    requestAnimationFrame(look);
    if (deed === '') return;
    const isThere = document.querySelector('#main h1') && !document.querySelector('[role=status][aria-label=Loading]');
    const isNowhere = document.activeElement === document.body || document.activeElement === null;
    if (!isNowhere) frames = 0;
    else if (isThere) frames += 1;
    if (frames < MOST) return;
    console.error(`the focus is nowhere after “${deed}”, at ${location.pathname}`);
    deed = '';
  };
  window.addEventListener('click', onPress, true);
  window.addEventListener('keydown', onPress, true);
  requestAnimationFrame(look);
}
