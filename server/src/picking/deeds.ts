import type { Numbered } from '@yosegi/contract';
import { groupBy } from '@yosegi/core/lists';
import { type Goal, goalKey, isFresh, takenBy } from '@yosegi/core/picking';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import { wishCount } from '../counts/index.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { itemRow } from '../items/index.ts';
import { nextNumber } from '../ledger/index.ts';
import { requireShelf } from '../places/index.ts';
import { packOrder } from '../shipping/index.ts';
import { namedGoals } from './goals.ts';
import { pickParts } from './pick.ts';
import { readRun, wayOf } from './run.ts';
import {
  bookedIn,
  claimsOf,
  clearGoals,
  goalsOf,
  itemsOfLines,
  lineKey,
  type RunRecord,
  releaseClaims,
  runRecord,
  runsServing,
} from './runs.sql.ts';

/** @throws Refusal `not-found`, `run-ended` */
async function openRun({ tx }: Doing, id: number): Promise<RunRecord> {
  const run = found(await runRecord(tx, id));
  if (run.ended_at !== null) throw new Refusal('run-ended', { number: run.number });
  return run;
}

/** @throws Refusal `unknown-choice`, `wrong-state`, `on-another-run` */
export async function makeRun(doing: Doing, input: BodyOf<'makeRun'>): Promise<Numbered> {
  const { tx, now, person } = doing;
  if (input.storeId !== null && !(await tx.models.store.findByPk(input.storeId)))
    throw new Refusal('unknown-choice', {}, 'storeId');
  await refuseGoals(doing, input.goals, input.storeId, 0);
  const id = await tx.insert('pick_run', {
    number: await nextNumber(tx, 'RUN'),
    store_id: input.storeId,
    confirms: input.confirms ? 1 : 0,
    made_at: now.toISOString(),
    made_by: person.id,
  });
  await setGoals(doing, id, input.goals);
  return numbered(tx, 'pick_run', id);
}

/** Takes builds and orders into a run or off it. @throws Refusal `run-ended`, `stale-save`, and what making one refuses */
export async function changeRun(doing: Doing, id: number, input: BodyOf<'changeRun'>): Promise<Numbered> {
  const run = await openRun(doing, id);
  await refuseGoals(doing, input.goals, run.store_id, id);
  await updateVersioned(doing.tx, 'pick_run', id, input.version, { confirms: input.confirms ? 1 : 0 }, () =>
    readRun(doing.tx, id, doing.now),
  );
  await clearGoals(doing.tx, id);
  await setGoals(doing, id, input.goals);
  return numbered(doing.tx, 'pick_run', id);
}

async function setGoals({ tx, changed }: Doing, id: number, goals: readonly Goal[]): Promise<void> {
  await tx.insertMany(
    'pick_run_goal',
    goals.map((goal, position) => ({ run_id: id, position, kind: goal.kind, source_id: goal.id })),
  );
  changed('picks');
}

async function refuseGoals(doing: Doing, goals: readonly Goal[], storeId: number | null, runId: number) {
  const named = await namedGoals(doing.tx, goals, doing.now);
  const before = new Set(
    (await goalsOf(doing.tx, [runId])).map((one) => goalKey({ kind: one.kind, id: one.source_id })),
  );
  const seen = new Set<string>();
  for (const [index, goal] of goals.entries()) {
    const key = goalKey(goal);
    const known = named.get(key);
    if (!known || seen.has(key)) throw new Refusal('unknown-choice', {}, `goals.${index}.id`);
    seen.add(key);
    // What has ended while it is on a run may stay on it, as long as others are served.
    if (known.over !== null && !before.has(key))
      throw new Refusal(
        'wrong-state',
        { kind: goal.kind, number: known.number, state: known.state },
        `goals.${index}.id`,
      );
  }
  const [other] = await runsServing(doing.tx, goals, storeId, runId);
  if (!other) return;
  const at = goals.findIndex(({ kind, id }) => kind === other.kind && id === other.source_id);
  throw new Refusal('on-another-run', { number: other.number, run: other.run }, `goals.${at}.id`);
}

/** @throws Refusal `run-ended`, `stale-save` */
export async function endRun(doing: Doing, id: number, version: number): Promise<Numbered> {
  const { tx, now } = doing;
  await openRun(doing, id);
  const ended = { ended_at: now.toISOString() };
  await updateVersioned(tx, 'pick_run', id, version, ended, () => readRun(tx, id, now));
  await releaseClaims(tx, id, null);
  doing.changed('picks');
  return numbered(tx, 'pick_run', id);
}

/** Sets out for a stop, or leaves the run to others. @throws Refusal `run-ended`, `stop-taken` */
export async function claimStop(doing: Doing, id: number, stop: string | null) {
  const { tx, now, person } = doing;
  await openRun(doing, id);
  const claims = await claimsOf(tx, id);
  const own = claims.find(({ person_id }) => person_id === person.id);
  // Who comes back to their own stop is on the way since they first set out.
  if (stop !== null && own?.stop === stop && isFresh(own, now)) return { stop };
  if (stop !== null) refuseTaken(doing, claims, [stop], (bin) => bin);
  await releaseClaims(tx, id, person.id);
  const at = now.toISOString();
  if (stop !== null) await tx.insertMany('pick_run_claim', [{ run_id: id, person_id: person.id, stop, at }]);
  doing.changed('picks');
  return { stop };
}

type ClaimRow = Awaited<ReturnType<typeof claimsOf>>[number];

/** @throws Refusal `stop-taken` where somebody else is at one of these */
function refuseTaken(
  { person, now }: Doing,
  claims: readonly ClaimRow[],
  stops: readonly string[],
  binOf: (stop: string) => string,
): void {
  const known = claims.map(({ stop: key, person_id: personId, at }) => ({ key, personId, at }));
  for (const stop of stops) {
    const other = takenBy(stop, known, { personId: person.id, now });
    if (!other) continue;
    const by = claims.find(({ person_id }) => person_id === other.personId)?.person ?? '';
    throw new Refusal('stop-taken', { by, bin: binOf(stop) });
  }
}

type PickLine = BodyOf<'pickOnRun'>['lines'][number];

/**
 * Brings what was taken at stops to the benches and parcels it is for: a document each, undone together.
 * @throws Refusal `run-ended`, `not-on-run`, `stop-taken`, and what picking and packing refuse
 */
export async function pickOnRun(doing: Doing, id: number, { lines }: BodyOf<'pickOnRun'>) {
  const { tx, person } = doing;
  const run = await openRun(doing, id);
  const goals = (await goalsOf(tx, [id])).map(({ kind, source_id }): Goal => ({ kind, id: source_id }));
  const claims = await claimsOf(tx, id);
  const stops = await stopsAt(doing, lines);
  const bins = new Map(
    (await tx.models.bin.findAll({ where: { id: lines.map(({ binId }) => binId) } })).map((bin) => [bin.id, bin.code]),
  );
  refuseTaken(doing, claims, stops, (stop) => bins.get(Number(stop.split(':')[0])) ?? '');
  const own = claims.find(({ person_id, stop }) => person_id === person.id && stops.includes(stop));
  const indexed = lines.map((line, index) => ({ line, index }));
  let first: { id: number; number: string } | undefined;
  for (const [key, asked] of groupBy(indexed, ({ line }) => goalKey(line))) {
    const goal = goals.find((one) => goalKey(one) === key);
    if (!goal) throw new Refusal('not-on-run', { number: await numberOf(doing, asked[0]?.line) });
    const document = await post(doing, goal, asked, first?.id);
    await tx.insert('pick_run_pick', {
      document_id: document.id,
      run_id: id,
      act: first?.id ?? document.id,
      stops: first ? 0 : stops.length,
      lines: new Set(asked.map(({ line }) => line.lineId)).size,
      begun_at: own?.at ?? null,
    });
    first ??= document;
  }
  if (own) await releaseClaims(tx, id, person.id);
  doing.changed('picks');
  const posted = found(first);
  return { id: posted.id, number: posted.number, stops: (await wayOf(tx, run, goals)).stops.length };
}

async function numberOf({ tx, now }: Doing, line: PickLine | undefined): Promise<string> {
  if (!line) return '';
  return (await namedGoals(tx, [line], now)).get(goalKey(line))?.number ?? '';
}

/** Picks for one goal; what is refused is named as the whole pick has it. */
async function post(
  doing: Doing,
  goal: Goal,
  asked: readonly { readonly line: PickLine; readonly index: number }[],
  causeId: number | undefined,
): Promise<{ id: number; number: string }> {
  const own = asked.map(({ line: { lineId, binId, quantity, lot, serials } }) => ({
    lineId,
    binId,
    quantity,
    lot,
    serials,
  }));
  try {
    if (goal.kind === 'build') return await pickParts(doing, goal.id, { lines: own }, causeId);
    const packed = own.map(({ lineId, ...line }) => ({ partId: lineId, ...line }));
    return await packOrder(doing, goal.id, { lines: packed }, causeId);
  } catch (error) {
    if (!(error instanceof Refusal) || !error.field) throw error;
    const at = error.field.replace(/^lines\.(\d+)\.(.*)$/, (_, position: string, name: string) => {
      const index = asked[Number(position)]?.index ?? 0;
      return `lines.${index}.${name === 'partId' ? 'lineId' : name}`;
    });
    throw error.at(at);
  }
}

/** The stops at which these lines are taken, each once. */
async function stopsAt({ tx }: Doing, lines: readonly PickLine[]): Promise<string[]> {
  const items = await itemsOfLines(tx, lines);
  const stops = new Set<string>();
  for (const line of lines) {
    const itemId = items.get(lineKey(line)) ?? 0;
    const lot = line.lot === null ? null : await tx.models.lot.findOne({ where: { item_id: itemId, code: line.lot } });
    stops.add(`${line.binId}:${itemId}:${lot?.id ?? ''}`);
  }
  return [...stops];
}

/**
 * Puts a bin on the list of bins to count, because less is in it than the books say.
 * @throws Refusal `run-ended`, `unknown-item`, `unknown-bin`, `lot-unknown`, `nothing-booked`
 */
export async function notThere(doing: Doing, id: number, input: BodyOf<'notThere'>) {
  const { tx, person } = doing;
  const run = await openRun(doing, id);
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  const bin = await requireShelf(tx, input.binId, 'binId');
  const lot = input.lot === null ? null : await tx.models.lot.findOne({ where: { item_id: item.id, code: input.lot } });
  if (input.lot !== null && !lot) throw new Refusal('lot-unknown', { code: input.lot, name: item.name }, 'lot');
  const booked = await bookedIn(tx, item.id, bin.id, lot?.id ?? null);
  if (booked <= 0) throw new Refusal('nothing-booked', { name: item.name, bin: bin.code });
  const place = { item_id: item.id, bin_id: bin.id, lot_id: lot?.id ?? null };
  await wishCount(doing, { ...place, booked, run_id: id });
  await releaseClaims(tx, id, person.id);
  const goals = (await goalsOf(tx, [id])).map(({ kind, source_id }): Goal => ({ kind, id: source_id }));
  return { stops: (await wayOf(tx, run, goals)).stops.length };
}
