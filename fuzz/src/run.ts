import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api, EXPORTS_PATH, IDEMPOTENCY_HEADER, IMPORTS_PATH, picturePath, type Route } from '@yosegi/contract';
import { makeDemo } from '@yosegi/demo/make';
import { openData } from '@yosegi/server/db/open';
import { verifyDatabase } from '@yosegi/server/db/verify';
import sharp from 'sharp';
import { z } from 'zod';
import { Dice } from './dice.ts';
import { anything, asText, type Known, type Shape, valueFor } from './values.ts';
import { kindOf, readAbout, readKnown } from './world.ts';

/** What one person may ask in a minute is bounded, so that many take turns. */
const MORE_OWNERS = 12;
/** Requests between two looks at what there is, and at every list. */
const ROUND = 60;
const KINDS = ['items', 'prices', 'stock', 'definitions', 'customers', 'orders'];

export interface Finding {
  readonly what: string;
  readonly request: string;
  readonly answer: string;
}

export interface Report {
  readonly findings: readonly Finding[];
  readonly requests: number;
  /** How many were answered with each status. */
  readonly byStatus: ReadonlyMap<number, number>;
  /** Routes of which at least one request was carried out. */
  readonly done: ReadonlySet<string>;
}

interface Fuzzing {
  readonly seconds: number;
  readonly seed: number;
  /** A ready demo business to work on a copy of; made when left out. */
  readonly demo?: string;
  /** Milliseconds that nothing a person waits for may take; left out where the machine has other work too. */
  readonly slowest?: number;
}

/**
 * Sends requests made from the route table, with hostile values in some fields, to a demo business of its own. Whatever is
 * sent, the answer is quick, is a problem where it is a refusal, and leaves books that add up and lists that answer.
 */
export async function fuzz({ seconds, seed, demo, slowest = Number.POSITIVE_INFINITY }: Fuzzing): Promise<Report> {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-fuzz-'));
  const file = join(folder, 'yosegi.sqlite');
  if (demo) copyFileSync(demo, file);
  else await makeDemo(file, new Date());
  await addOwners(file);
  const server = await start(folder);
  const attack = new Attack(server.address, new Dice(seed), slowest);
  try {
    await attack.run(Date.now() + seconds * 1000);
  } finally {
    server.child.kill('SIGTERM');
    const [code] = server.child.exitCode === null ? await once(server.child, 'exit') : [server.child.exitCode];
    if (code !== 0) attack.find('the server ended by itself or could not stop', `exit ${code}`, '');
  }
  const database = await openData(file);
  for (const { check, rows } of await verifyDatabase(database.reader))
    attack.find('the books do not add up', check, JSON.stringify(rows).slice(0, 500));
  await database.close();
  rmSync(folder, { recursive: true, force: true });
  return attack.report();
}

async function addOwners(file: string): Promise<void> {
  const database = await openData(file);
  await database.write(async (tx) => {
    for (let n = 1; n <= MORE_OWNERS; n += 1)
      await tx.driver.insert('person', { name: `Owner ${n}`, initials: `O${n}`, role: 'owner' });
  });
  await database.close();
}

async function start(folder: string): Promise<{ child: ChildProcess; address: string }> {
  const env = { ...process.env, YOSEGI_DATA: folder, PORT: '0', YOSEGI_LOG: 'silent' };
  const child = spawn('node', ['--import', 'tsx', 'server/src/main.ts'], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  let told = '';
  for await (const chunk of child.stdout) {
    told += chunk;
    const [address] = /http:\/\/\S+/.exec(told) ?? [];
    if (address) return { child, address };
  }
  throw new Error('the server did not start');
}

/** A server may say that it has enough to do, in its own words. */
const isBusy = (status: number, text: string) =>
  status === 503 && /"code":"(imports-full|too-much-waiting)"/.test(text);

class Attack {
  private readonly findings: Finding[] = [];
  private readonly byStatus = new Map<number, number>();
  private readonly done = new Set<string>();
  private readonly shapes = new Map<string, Record<'params' | 'query' | 'body', Shape | undefined>>();
  private requests = 0;
  private cookies: string[] = [];
  private owners: string[] = [];
  private round = 0;

  constructor(
    private readonly address: string,
    private readonly dice: Dice,
    private readonly slowest: number,
  ) {
    for (const [name, { params, query, body }] of Object.entries<Route>(api)) {
      const shape = (schema: z.ZodType | undefined) =>
        schema && (z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Shape);
      this.shapes.set(name, { params: shape(params), query: shape(query), body: shape(body) });
    }
  }

  report = (): Report => ({
    findings: this.findings,
    requests: this.requests,
    byStatus: this.byStatus,
    done: this.done,
  });

  find(what: string, request: string, answer: string): void {
    this.findings.push({ what, request: request.slice(0, 2000), answer: answer.slice(0, 1000) });
  }

  async run(until: number): Promise<void> {
    const people = (await (await fetch(`${this.address}/api/people`)).json()) as { id: number; role: string }[];
    for (const { id, role } of people) {
      const answer = await fetch(`${this.address}/api/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', [IDEMPOTENCY_HEADER]: crypto.randomUUID() },
        body: JSON.stringify({ personId: id }),
      });
      const cookie = (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
      // Most commands are an owner's, so that they get further than the door.
      this.cookies.push(cookie);
      if (role === 'owner') this.owners.push(cookie);
    }
    while (Date.now() < until && this.findings.length < 25) {
      this.round += 1;
      const known = await readKnown((url, init) => this.fetch(url, init));
      for (let n = 0; n < ROUND && Date.now() < until; n += 1) {
        const one = () => {
          if (this.dice.chance(0.03)) return this.file();
          if (this.dice.chance(0.03)) return this.message();
          return this.dice.chance(0.01) ? this.pictures(known) : this.ask(known);
        };
        // Now and then several at once.
        await (this.dice.chance(0.1) ? Promise.all([one(), one(), one()]) : one());
      }
      await this.everyList(known);
    }
  }

  /** An owner, another one each round. */
  private get owner(): string {
    return this.owners[this.round % this.owners.length] ?? '';
  }

  private fetch(url: string, init: RequestInit = {}): Promise<Response> {
    const headers = { ...init.headers, cookie: this.owner };
    return fetch(this.address + url, { ...init, headers });
  }

  /** One request of one route. */
  private async ask(known: Known): Promise<void> {
    const { dice } = this;
    const [name, route] = dice.of(Object.entries<Route>(api));
    const about = await readAbout((url, init) => this.fetch(url, init), route.path, known, dice);
    const spoil = dice.of([0, 0, 0.05, 0.15, 0.5]);
    const shapes = this.shapes.get(name);
    const make = (part: 'params' | 'query' | 'body') =>
      shapes?.[part] ? valueFor(shapes[part], part, about, dice, part === 'params' ? spoil / 4 : spoil) : undefined;
    const params = make('params');
    const query = make('query');
    let url = route.path;
    for (const [key, value] of Object.entries((params ?? {}) as object))
      url = url.replace(`:${key}`, encodeURIComponent(asText(value).slice(0, 400)));
    const search = new URLSearchParams();
    for (const [key, value] of Object.entries((query ?? {}) as object)) search.set(key, asText(value).slice(0, 4000));
    if (search.size > 0) url += `?${search}`;
    const body = make('body');
    await this.send(name, route.method, url, body, !route.asks);
    // The same again, as a double click would.
    if (route.method !== 'GET' && dice.chance(0.05)) await this.send(name, route.method, url, body, !route.asks);
  }

  private async send(name: string, method: string, url: string, body: unknown, keyed: boolean): Promise<void> {
    const headers: Record<string, string> = { cookie: this.dice.of(this.cookies) };
    if (body !== undefined) headers['content-type'] = 'application/json';
    if (method !== 'GET' && keyed) headers[IDEMPOTENCY_HEADER] = crypto.randomUUID();
    const content = body === undefined ? {} : { body: JSON.stringify(body) };
    const answer = await this.judge(name, `${method} ${url} ${content.body ?? ''}`, () =>
      fetch(this.address + url, { method, headers, ...content }),
    );
    if (answer?.status === 200) this.done.add(name);
  }

  /** A file of hostile cells goes up, is judged and perhaps brought in. */
  private async file(): Promise<void> {
    const { dice } = this;
    const kind = dice.of(KINDS);
    const exported = await (await this.fetch(`${EXPORTS_PATH}?kind=${kind}`)).text();
    const rows = exported.split('\r\n').slice(0, 40);
    const cell = () => `"${asText(anything(dice)).replaceAll('"', '""').slice(0, 300)}"`;
    const spoilt = rows.map((row, index) =>
      index > 0 && dice.chance(0.5)
        ? row
            .split(',')
            .map((own) => (dice.chance(0.1) ? cell() : own))
            .join(',')
        : row,
    );
    const content = dice.chance(0.1) ? asText(anything(dice)) : spoilt.join('\r\n');
    const cookie = dice.of(this.cookies);
    const headers = { cookie, 'content-type': 'application/octet-stream' };
    const answer = await this.judge('import', `POST ${IMPORTS_PATH} ${kind} ${content.slice(0, 300)}`, () =>
      fetch(`${this.address}${IMPORTS_PATH}?kind=${kind}`, { method: 'POST', headers, body: content }),
    );
    if (answer?.status !== 200) return;
    let job = JSON.parse(answer.text) as { id: string; step: number; state: string };
    while (job.state === 'reading')
      job = (await (
        await fetch(`${this.address}${IMPORTS_PATH}/${job.id}?seen=${job.step}`, { headers: { cookie } })
      ).json()) as typeof job;
    const rowsOf = `${IMPORTS_PATH}/${job.id}/rows`;
    await this.judge('importRows', `GET ${rowsOf}`, () => fetch(this.address + rowsOf, { headers: { cookie } }));
    const apply = { cookie, 'content-type': 'application/json', [IDEMPOTENCY_HEADER]: crypto.randomUUID() };
    await this.judge('applyImport', `apply ${kind} ${content.slice(0, 300)}`, () =>
      fetch(`${this.address}${IMPORTS_PATH}/${job.id}/apply`, { method: 'POST', headers: apply, body: '{}' }),
    );
  }

  /** A document that is none, or one made to be slow; beside it somebody asks something small. */
  private async message(): Promise<void> {
    const { dice } = this;
    const part = dice.of([
      '<',
      '<a',
      '<a>',
      '<a b="1"/>',
      '</a>',
      '<!--',
      '<![CDATA[',
      '<?a ',
      '="',
      "'",
      '&',
      ' ',
      'x',
    ]);
    const most = dice.of([100, 5000, 480_000]);
    const kind = dice.of(['Order', 'OrderChange', 'OrderCancellation', 'OrderResponse', 'DespatchAdvice']);
    const content = `<${kind}><ID>${asText(anything(dice)).slice(0, 50)}</ID>${part.repeat(most / part.length)}</${kind}>`;
    const name = dice.of(['takeOrderMessage', 'takeMail'] as const);
    await this.besides(kind, this.send(name, 'POST', api[name].path, { content }, true), 1);
  }

  /** Several large pictures, sent by one person. */
  private async pictures(known: Known): Promise<void> {
    const large = { width: 5000, height: 4000, channels: 3, background: '#d39a35' } as const;
    const body = (await sharp({ create: large }).png({ compressionLevel: 1 }).toBuffer()) as unknown as BodyInit;
    const headers = { cookie: this.owner, 'content-type': 'application/octet-stream' };
    const url = picturePath(Number(this.dice.of(known.get('itemId') ?? [1])));
    const one = () =>
      this.judge('setPicture', `PUT ${url}`, () =>
        fetch(this.address + url, {
          method: 'PUT',
          body,
          headers: { ...headers, [IDEMPOTENCY_HEADER]: crypto.randomUUID() },
        }),
      );
    await this.besides('four pictures', Promise.all([one(), one(), one(), one()]), 8);
  }

  /** While something heavy is done, whoever asks something small is answered at least so often. */
  private async besides(what: string, heavy: Promise<unknown>, least: number): Promise<void> {
    let isDone = false;
    const done = heavy.finally(() => {
      isDone = true;
    });
    let served = 0;
    while (!isDone) {
      await fetch(`${this.address}/api/health`);
      served += 1;
    }
    await done;
    if (served < least) this.find(`${served} small requests were served beside`, what, '');
  }

  /** Whatever is stored by now, every list, and every record that a list names, can be read. */
  private async everyList(known: Known): Promise<void> {
    const cookie = this.owner;
    const read = async (name: string, url: string) => {
      const answer = await this.judge(name, `GET ${url}`, () => fetch(this.address + url, { headers: { cookie } }));
      if (answer && answer.status !== 200 && answer.status !== 429)
        this.find('cannot be read any more', `GET ${url}`, answer.text);
    };
    const needs: Record<string, string> = {
      find: '?q=a',
      stockOn: '?day=2026-11-25',
      replacements: '?partId=1&byId=2',
    };
    for (const [name, route] of Object.entries<Route>(api))
      if (route.method === 'GET' && !route.params) await read(name, route.path + (needs[name] ?? ''));
    for (const [name, route] of Object.entries<Route>(api)) {
      if (route.method !== 'GET' || !/^[^:]*:id[^:]*$/.test(route.path)) continue;
      const ids = known.get(kindOf(route.path)) ?? [];
      for (let n = 0; n < 3 && ids.length > 0; n += 1) {
        const url = route.path.replace(':id', String(this.dice.of(ids)));
        const answer = await this.judge(name, `GET ${url}`, () => fetch(this.address + url, { headers: { cookie } }));
        // A record may have been deleted meanwhile, and not every one has a plan or a price; then that is said.
        if (answer && (answer.status >= 500 || answer.status === 400))
          this.find('cannot be read any more', `GET ${url}`, answer.text);
      }
    }
    const effect = `/api/items/${this.dice.of(known.get('itemId') ?? [1])}/cost-effect?cost=999999999`;
    await read('costEffect', effect);
    await read('export', `${EXPORTS_PATH}?kind=${this.dice.of(KINDS)}`);
  }

  /** Sends a request and looks at how it was answered. */
  private async judge(
    name: string,
    request: string,
    go: () => Promise<Response>,
  ): Promise<{ status: number; text: string } | undefined> {
    this.requests += 1;
    const started = performance.now();
    let answer: Response;
    let text: string;
    try {
      answer = await go();
      text = await answer.text();
    } catch (error) {
      this.find('no answer', request, String((error as Error).cause ?? error));
      return undefined;
    }
    const took = performance.now() - started;
    const { status } = answer;
    this.byStatus.set(status, (this.byStatus.get(status) ?? 0) + 1);
    if (status >= 500 && !isBusy(status, text)) this.find(`${status}`, request, text);
    // A question for the next step of an import waits for it.
    if (took > this.slowest && name !== 'importJob') this.find(`took ${Math.round(took)} ms`, request, text);
    if (!answer.headers.get('content-security-policy')) this.find('no policy', request, text);
    if (status >= 400) this.judgeProblem(answer, request, text);
    return { status, text };
  }

  private judgeProblem(answer: Response, request: string, text: string): void {
    const type = answer.headers.get('content-type') ?? '';
    let problem: Record<string, unknown> = {};
    try {
      problem = JSON.parse(text) as Record<string, unknown>;
    } catch {
      // Told below.
    }
    const { code, title, detail, status } = problem;
    const isWhole = [code, title, detail].every((told) => typeof told === 'string' && told !== '');
    if (!type.startsWith('application/problem+json') || !isWhole || status !== answer.status)
      this.find('no problem details', request, `${type} ${text}`);
    // Not counting what the person typed, which stands there in quotes.
    if (/undefined|NaN|\[object/.test(String(detail).replace(/“[^”]*”/g, '')))
      this.find('words that say nothing', request, text);
  }
}
