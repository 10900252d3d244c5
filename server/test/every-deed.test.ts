import { api, EVENTS_PATH, type Route, type Topic } from '@yosegi/contract';
import { dependsOn } from '@yosegi/contract/depends';
import { can } from '@yosegi/core/people';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Deed, deeds, withOther } from './deeds.ts';
import { everyQuestion } from './every-get.ts';
import { Ground } from './ground.ts';
import { TestServer } from './harness.ts';

let server: TestServer;
let ground: Ground;
let told: Told;
let bench = '';
/** Signs in as somebody. @returns their cookie */
async function as(personId: number): Promise<string> {
  await server.signIn(personId);
  return server.cookie;
}
/** Another owner, who has done nothing yet. */
async function another(): Promise<number> {
  const body = { name: ground.code(), initials: 'AO', role: 'owner' as const, active: true };
  return (await server.call(api.createWorker, { body })).id;
}
async function by<T>(cookie: string, work: () => Promise<T>): Promise<T> {
  const own = server.cookie;
  server.cookie = cookie;
  return work().finally(() => {
    server.cookie = own;
  });
}
/** Changes whenever anything is written to the file. */
const moved = async () =>
  JSON.stringify(await server.database.reader.one<{ data_version: number }>('PRAGMA data_version'));

type Sent = { params?: Record<string, unknown>; body?: Record<string, unknown> };

/** What is sent, once for every version in it, with that of the save before, or of one that is still to come. */
const olderOf = ({ body }: Sent) =>
  withOther(body, (name, one) => (name === 'version' ? Math.abs(Number(one) - 1) : undefined));

/** Every number that is sent: whatever it names is asked about. */
function idsIn(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  return value && typeof value === 'object' ? Object.values(value).flatMap(idsIn) : [];
}

const read = async (url: string) => (await server.fetch(url)).text();
/** Whether any of these is answered in another way now. */
async function anyOther(was: readonly (readonly [string, string, string])[]): Promise<boolean> {
  for (const [, url, text] of was) if ((await read(url)) !== text) return true;
  return false;
}

/** What only an owner may say, wherever it can be said. */
const OWNERS = { override: { reason: 'In the van' }, standardCost: '77', learnLeads: false };

/** A body that says something else and is still one. */
function otherThan(route: Route, { body }: Sent): unknown {
  if (!body || !route.body) return undefined;
  const was = JSON.stringify(route.body.parse(body));
  for (const [name, value] of Object.entries(body)) {
    const others = typeof value === 'number' ? [value + 1] : typeof value === 'boolean' ? [!value] : ['5', 'Other'];
    for (const other of others) {
      const changed = { ...body, [name]: other };
      const read = route.body.safeParse(changed);
      if (read.success && JSON.stringify(read.data) !== was) return changed;
    }
  }
  return undefined;
}

/** What the event stream tells, from the last event it was asked for on. */
class Told {
  private text = '';
  private constructor(private readonly reader: ReadableStreamDefaultReader<Uint8Array>) {}
  static async listen(): Promise<Told> {
    const { body } = await server.fetch(EVENTS_PATH);
    if (!body) throw new Error('no stream');
    return new Told(body.getReader());
  }
  last = async () => (await server.database.reader.one<{ id: number }>('SELECT max(id) AS id FROM event'))?.id ?? 0;
  /** The topics of every event after this one; those that are on their way are waited for. */
  async since(id: number): Promise<Topic[]> {
    const until = await this.last();
    while (until > id && !this.text.includes(`id: ${until}\n`)) {
      const { value, done } = await this.reader.read();
      if (done) throw new Error('the stream ended');
      this.text += new TextDecoder().decode(value);
    }
    const found = [...this.text.matchAll(/id: (\d+)\ndata: (.*)\n/g)].filter(([, of]) => Number(of) > id);
    return [...new Set(found.flatMap(([, , topics]) => JSON.parse(topics ?? '') as Topic[]))];
  }
  stop = () => this.reader.cancel();
}

/** So many share a server: asking everything about what many have left would take long. */
const TOGETHER = 12;
const names = Object.keys(deeds) as Deed[];
const turns = Array.from({ length: Math.ceil(names.length / TOGETHER) }, (_, turn) =>
  names.slice(turn * TOGETHER, (turn + 1) * TOGETHER),
);

describe.each(turns)('every deed of the contract, from %s on', (...some) => {
  beforeAll(async () => {
    server = await TestServer.start();
    ground = await Ground.of(server);
    bench = await as(2);
    told = await Told.listen();
  });
  afterAll(async () => {
    await told.stop();
    await server.signIn(1);
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  it.each(some)('%s', async (name) => {
    const route = api[name] as Route;
    await as(1);
    const [one, other] = [await another(), await as(await another())];
    await as(one);
    const input = (await deeds[name](ground as never)) as Sent;
    const key = crypto.randomUUID();
    const send = (sent: Sent) => server.call(route, sent as never, { key });
    const refused = async (sent: Sent) => (await server.refused(route, sent as never, { key })).code;
    const before = await moved();
    for (const body of olderOf(input)) expect(await refused({ ...input, body } as Sent)).toBe('stale-save');
    if (route.right !== 'anyone') expect(await by('', () => refused(input))).toBe('sign-in');
    if (!can({ role: 'bench' }, route.right)) expect(await by(bench, () => refused(input))).toBe('owner-only');
    for (const [field, value] of Object.entries(OWNERS)) {
      const body = { ...input.body, [field]: value };
      if (route.body?.safeParse(body).data?.[field as never] === undefined) continue;
      expect(await by(bench, () => refused({ ...input, body })), `${field} by a builder`).toBe('owner-only');
    }
    expect(await moved(), 'what was refused moved nothing').toBe(before);

    const was: [keyof typeof api, string, string][] = [];
    for (const { name: asked, url } of await everyQuestion(server, 1, idsIn(input)))
      was.push([asked, url, await read(url)]);
    const from = await told.last();
    const answer = await send(input);
    const topics = await told.since(from);
    const hears = (asked: keyof typeof api) => dependsOn[asked]?.some((topic) => topics.includes(topic)) ?? false;
    for (const [asked, url, text] of was) if (!hears(asked)) expect(await read(url), url).toBe(text);
    for (const topic of topics) {
      const concerned = was.filter(([asked]) => dependsOn[asked]?.includes(topic));
      expect(await anyOther(concerned), `${topic} was told for something`).toBe(true);
    }
    const after = await moved();
    expect(await send(input)).toEqual(answer);
    if (name === 'signIn') return;
    expect(await by(other, () => refused(input))).toBe('key-reused');
    // What is read before its key is looked up may be refused for what it says.
    const body = otherThan(route, input);
    if (body) expect(await refused({ ...input, body } as Sent)).toMatch(/^(key-reused|ubl-unreadable)$/);
    if ([...olderOf(input)].length > 0) {
      const second = () => server.refused(route, input as never);
      expect((await by(other, second)).code).toMatch(
        /^(stale-save|wrong-state|nothing-later|run-ended|more-than-ordered)$/,
      );
    }
    expect(await moved(), 'sent again it moved nothing').toBe(after);
  });
});
