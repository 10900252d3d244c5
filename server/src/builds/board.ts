import type { Board, BoardCard, BuildRow } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { scaled } from '@yosegi/core/definitions';
import { minus, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { daysAhead, type BoardCard as Placed, placeWork } from '@yosegi/core/tasks';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { requireActive } from '../db/people.ts';
import { updateVersioned } from '../db/versions.ts';
import { readCalendar } from '../demand/index.ts';
import { openTasks, type TaskRecord } from '../tasks/index.ts';
import { isOpen, openBuilds, readBuild, readShares, toBuildRows } from './sql.ts';

/** So many working days stand side by side. */
const DAYS = 5;

/** What is to be done on the bench, by person and day. */
export async function readBoard(db: Reader, today: string): Promise<Board> {
  const [builds, tasks, shares] = [await openBuilds(db), await openTasks(db), await readShares(db, today)];
  const rows = new Map((await toBuildRows(db, builds, shares, today)).map((row) => [row.id, row]));
  const known = new Map(tasks.map((task) => [task.id, task]));
  const placed = placeWork(
    builds.map(({ id, person_id, bench_day, due }) => ({ id, personId: person_id, day: bench_day ?? due })),
    tasks.map((task) => ({
      id: task.id,
      buildId: task.build_id,
      personId: task.person_id,
      day: task.due,
      left: leftOf(task),
    })),
  );
  const { workDays } = await readCalendar(db, today);
  const company = required(await db.models.company.findByPk(1));
  const people = await db.models.person.findAll({ where: { active: 1 }, order: ['id'] });
  return {
    today,
    days: daysAhead(today, workDays, DAYS),
    benchMinutes: company.bench_minutes,
    people: people.map(({ id, name }) => ({ id, name })),
    cards: placed.map((card) => toCard(card, found(rows.get(card.buildId)), known, today)),
  };
}

/** Minutes that a task still takes by its plan; none for what is done elsewhere. */
function leftOf(task: TaskRecord): Quantity {
  if (task.kind === 'charge') return ZERO;
  const planned: Quantity = scaled(task.basis, task.amount as Quantity, task.quantity, task.output_quantity);
  return planned > task.taken ? minus(planned, task.taken) : ZERO;
}

function toCard(card: Placed, build: BuildRow, known: ReadonlyMap<number, TaskRecord>, today: string): BoardCard {
  const tasks = card.taskIds.map((id) => found(known.get(id)));
  return {
    buildId: build.id,
    number: build.number,
    version: build.version,
    code: build.code,
    name: build.name,
    quantity: build.quantity,
    unit: build.unit,
    state: build.state,
    due: build.due,
    customer: build.repair?.customer ?? build.orders[0]?.customer ?? null,
    repairId: build.repair?.id ?? null,
    personId: card.personId,
    day: card.day,
    isWhole: card.isWhole,
    minutes: decimal(card.left),
    toPick: build.state === 'on-bench' ? build.pickLines - build.pickedLines : 0,
    blocks: blocksOf(build, tasks, today),
    tasks: tasks.map(({ id, version, text, kind, state }) => ({ id, version, text, kind, isDoing: state === 'doing' })),
  };
}

/** What keeps work from going on: parts that are short or held, a service that is not back, a customer who has not answered. */
function blocksOf(build: BuildRow, tasks: readonly TaskRecord[], today: string): BoardCard['blocks'] {
  const parts = build.waiting.map(({ name, unit, short, comesOn }) => ({
    kind: 'part' as const,
    name,
    unit,
    short,
    comesOn,
  }));
  const held = build.held.map(({ name, unit, quantity }) => ({ kind: 'held' as const, name, unit, quantity }));
  const away = tasks.flatMap(({ text, supplier, expected_on }) =>
    supplier !== null && expected_on !== null && expected_on >= today
      ? [{ kind: 'service' as const, name: text, supplier, comesOn: expected_on }]
      : [],
  );
  const asked = build.repair?.state === 'asked' ? [{ kind: 'customer' as const, name: build.repair.customer }] : [];
  return [...asked, ...held, ...parts, ...away];
}

/**
 * Gives work to a person and puts it on a day: a whole build with the tasks that go with it, or tasks alone.
 * @throws Refusal `unknown-choice`, `task-over`, `stale-save`
 */
export async function moveOnBoard(doing: Doing, { build, tasks, personId, day }: BodyOf<'moveOnBoard'>) {
  const { tx, now } = doing;
  await requireActive(tx, personId, 'personId');
  if (build) {
    const record = required(await tx.models.build.findByPk(build.id));
    if (!isOpen(record.state)) throw new Refusal('task-over', {}, 'build');
    const current = () => readBuild(tx, build.id, dayOf(now));
    await updateVersioned(tx, 'build', build.id, build.version, { person_id: personId, bench_day: day }, current);
  }
  for (const [index, { id, version }] of tasks.entries()) {
    const line = required(await tx.models.build_line.findByPk(id));
    const of = required(await tx.models.build.findByPk(line.build_id));
    if (!isOpen(of.state)) throw new Refusal('task-over', {}, `tasks.${index}.id`);
    // With its build it goes where that goes, whatever was said of it before.
    const values = build?.id === of.id ? { person_id: null, due: null } : { person_id: personId, due: day };
    const current = () => readBuild(tx, of.id, dayOf(now));
    await updateVersioned(tx, 'task', id, version, values, current);
  }
  doing.changed('builds');
  return { moved: tasks.length };
}
