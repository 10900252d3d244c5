import { api, type Item, type RunDetail } from '@yosegi/contract';
import { ApiProblem } from '@yosegi/contract/client';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from '../../server/test/harness.ts';
import { PickQueue, type Queued, type QueuedLine } from '../../web/src/picking/queue.ts';

type Cut = 'before' | 'after' | 'twice' | null;
type Step =
  | { readonly is: 'pick'; readonly at: number; readonly part: number; readonly tooMuch: boolean }
  | { readonly is: 'takeBack' | 'flush' | 'reload' };

const RUNS = 200;

/** A company with one run over two builds and an order, so large that no sequence comes to its end. */
class Company {
  private constructor(
    readonly server: TestServer,
    readonly runId: number,
  ) {}

  static async open(): Promise<Company> {
    const server = await TestServer.start();
    const shop = await Workshop.open(server);
    const jar = await shop.item('JAR');
    const wax = await shop.item('WAX', { tracking: 'lot', bin: 2 });
    const box = await shop.item('BOX', { source: 'made' });
    await shop.receive(jar, '90000', '1.377', 1);
    await shop.receive(wax, '40', '3.1', 2, { lot: 'EARLY', bestBefore: '2027-01-01' });
    await shop.receive(wax, '90000', '3.529', 0, { lot: 'LATE', bestBefore: '2027-06-01' });
    await shop.define(box, [
      [jar, '2'],
      [wax, '1'],
    ]);
    const goals: { kind: 'build' | 'order'; id: number }[] = [];
    for (const quantity of ['9000', '5000']) goals.push({ kind: 'build', id: (await shop.start(box, quantity)).id });
    const line = (item: Item) => ({ itemId: item.id, quantity: '4000', price: '5' });
    goals.push({ kind: 'order', id: (await shop.sell(await shop.customer('ANNA'), [line(jar), line(wax)])).id });
    return new Company(server, (await server.call(api.makeRun, { body: { goals } })).id);
  }

  run = (): Promise<RunDetail> => this.server.call(api.pickRun, { params: { id: this.runId } });

  pick = (lines: readonly QueuedLine[], key: string) =>
    this.server.call(api.pickOnRun, { params: { id: this.runId }, body: { lines: [...lines] } }, { key });

  undo = (id: number, key: string) => this.server.call(api.undoDocument, { params: { id }, body: {} }, { key });

  /** Every quantity and value there is, and what is open. */
  async books(): Promise<unknown> {
    const { reader } = this.server.database;
    return [
      await reader.all(
        `SELECT item_id, bin_id, lot_id, holder_kind, holder_id, sum(quantity) AS quantity FROM balance
          GROUP BY 1, 2, 3, 4, 5 HAVING sum(quantity) <> 0 ORDER BY 1, 2, 3, 4, 5`,
      ),
      await reader.all('SELECT item_id, quantity, value FROM item_stock ORDER BY item_id'),
      await reader.all('SELECT id, open, on_bench FROM build_line ORDER BY id'),
      await reader.all('SELECT id, open FROM order_part ORDER BY id'),
    ];
  }
}

/** What a phone does whose connection goes at random moments, and whose commands may arrive twice. */
class Phone {
  private kept = '[]';
  private queue = this.open();
  private readonly acts = new Map<string, number>();
  private last = '';

  constructor(
    private readonly company: Company,
    private readonly cuts: Cut[],
  ) {}

  private open(): PickQueue {
    return new PickQueue({ read: () => this.kept, write: (text) => (this.kept = text) }, (entry) => this.send(entry));
  }

  private async send({ key, lines, undoKey }: Queued): Promise<{ id: number }> {
    const cut = this.cuts.shift() ?? null;
    if (cut === 'before') throw new TypeError('fetch failed');
    const answers = await Promise.allSettled(
      Array.from({ length: cut === 'twice' ? 2 : 1 }, () => this.company.pick(lines, key)),
    );
    if (cut === 'after') throw new TypeError('fetch failed');
    const [answer, again] = answers;
    if (answer?.status !== 'fulfilled') throw answer?.reason;
    if (again?.status === 'fulfilled') expect(again.value.id).toBe(answer.value.id);
    this.acts.set(key, answer.value.id);
    if (undoKey !== null) await this.company.undo(answer.value.id, undoKey);
    return answer.value;
  }

  pick(lines: readonly QueuedLine[]): void {
    this.queue.add({ runId: this.company.runId, personId: 1, lines, says: '', at: '2026-11-23T09:00:00Z' });
    this.last = this.queue.state().entries.at(-1)?.key ?? '';
  }

  reload(): void {
    this.queue = this.open();
  }

  flush = () => this.queue.flush(1);

  /** As the button under the thumb does: what waits is taken back, what is posted is undone, what was refused given up. */
  async takeBack(): Promise<void> {
    const waits = this.queue.state().entries.find(({ key }) => key === this.last);
    if (waits?.problem) this.queue.drop(this.last);
    else if (waits) this.queue.takeBack(this.last);
    else if (this.acts.has(this.last)) await this.company.undo(this.acts.get(this.last) ?? 0, `undo-${this.last}`);
    this.last = '';
  }

  /** The connection is back for good. */
  async settle(): Promise<void> {
    for (let tries = 0; this.queue.state().entries.some(({ problem }) => problem === null); tries += 1) {
      expect(tries).toBeLessThan(60);
      await this.queue.flush(1);
    }
    for (const { key } of this.queue.state().entries) this.queue.drop(key);
    expect(this.queue.state().entries).toEqual([]);
  }
}

describe('picks of a phone whose connection comes and goes', () => {
  let online: Company;
  let offline: Company;
  beforeAll(async () => {
    online = await Company.open();
    offline = await Company.open();
  }, 60_000);
  afterAll(async () => {
    await online.server.close();
    await offline.server.close();
  });

  it(`leave the books as the same picks do at once, over ${RUNS} sequences`, { timeout: 600_000 }, async () => {
    const pick = fc.record({
      is: fc.constant('pick' as const),
      at: fc.nat({ max: 9 }),
      part: fc.integer({ min: 1, max: 9 }),
      tooMuch: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
    });
    const other = fc.record({ is: fc.constantFrom('takeBack' as const, 'flush' as const, 'reload' as const) });
    const steps = fc.array(fc.oneof({ weight: 3, arbitrary: pick }, { weight: 2, arbitrary: other }), {
      minLength: 2,
      maxLength: 8,
    });
    const cuts = fc.array(fc.constantFrom<Cut>('before', 'after', 'twice', null, null), { maxLength: 12 });
    let [picked, refused, back] = [0, 0, 0];
    await fc.assert(
      fc.asyncProperty(steps as fc.Arbitrary<Step[]>, cuts, async (walk, connection) => {
        const { stops } = await online.run();
        expect((await offline.run()).stops).toEqual(stops);
        const phone = new Phone(offline, [...connection]);
        let last: number | null = null;
        for (const step of walk) {
          if (step.is === 'flush') await phone.flush();
          if (step.is === 'reload') phone.reload();
          if (step.is === 'takeBack') {
            if (last !== null) back += 1;
            if (last !== null) await online.undo(last, crypto.randomUUID());
            await phone.takeBack();
            last = null;
          }
          if (step.is !== 'pick') continue;
          const stop = stops[step.at % stops.length];
          const lines = (stop?.lines ?? []).map(({ kind, id, lineId }) => ({
            kind,
            id,
            lineId,
            binId: stop?.binId ?? 0,
            lot: stop?.lot ?? null,
            serials: [],
            quantity: step.tooMuch ? '99999' : String(step.part),
          }));
          phone.pick(lines);
          try {
            last = (await online.pick(lines, crypto.randomUUID())).id;
            picked += 1;
          } catch (error) {
            if (!(error instanceof ApiProblem) || error.problem.status >= 500) throw error;
            last = null;
            refused += 1;
          }
        }
        await phone.settle();
        expect(await offline.books()).toEqual(await online.books());
      }),
      { numRuns: RUNS, endOnFailure: true },
    );
    expect(picked).toBeGreaterThan(RUNS);
    expect(refused).toBeGreaterThan(10);
    expect(back).toBeGreaterThan(20);
    expect(await offline.server.verify()).toEqual([]);
    expect(await online.server.verify()).toEqual([]);
  });
});
