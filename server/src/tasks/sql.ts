import type { Clock, Task, TaskTime } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { scaled } from '@yosegi/core/definitions';
import { type Money, type Quantity, ZERO } from '@yosegi/core/number';
import { isOver, type Spent, spentOn } from '@yosegi/core/tasks';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import type { QueryOf } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing, page } from '../db/pages.ts';

/** A task with its line, its build and everything that is shown of it. */
export interface TaskRecord
  extends Row<'task'>,
    Pick<Row<'build_line'>, 'build_id' | 'text' | 'basis' | 'amount' | 'rate_per_hour' | 'added_because' | 'used'>,
    Pick<Row<'build'>, 'number' | 'output_quantity' | 'quantity'> {
  kind: 'labour' | 'charge';
  build_state: Row<'build'>['state'];
  build_due: string | null;
  code: string;
  product: string;
  taken: Quantity;
  booked_cost: Money;
  person: string | null;
  supplier: string | null;
  added_by: string | null;
  clocks: string;
}

const SQL = `SELECT t.*, l.build_id, l.kind, l.text, l.basis, l.amount, l.rate_per_hour, l.added_because, l.used,
    b.number, b.output_quantity, b.quantity, b.state AS build_state, b.due AS build_due, i.code, i.name AS product,
    ifnull((SELECT sum(minutes) FROM task_time WHERE task_id = t.id), 0) AS taken,
    ifnull((SELECT sum(f.cost) FROM finish_line f JOIN document d ON d.id = f.document_id WHERE f.build_line_id = l.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)), 0) AS booked_cost,
    p.name AS person, s.name AS supplier, w.name AS added_by,
    (SELECT json_group_array(json_object('personId', c.person_id, 'person', q.name, 'since', c.started_at))
      FROM clock c JOIN person q ON q.id = c.person_id WHERE c.task_id = t.id) AS clocks
  FROM task t JOIN build_line l ON l.id = t.id JOIN build b ON b.id = l.build_id
  JOIN item i ON i.id = b.item_id LEFT JOIN person p ON p.id = t.person_id LEFT JOIN supplier s ON s.id = t.supplier_id
  LEFT JOIN person w ON w.id = l.added_by`;

const DUE = "ifnull(ifnull(t.due, b.due), '9999')";
const OPEN = "t.state IN ('open', 'doing') AND b.state IN ('planned', 'on-bench')";
const SHOWN = {
  open: OPEN,
  doing: `${OPEN} AND t.state = 'doing'`,
  late: `${OPEN} AND ${DUE} < $1`,
  over: "(t.state IN ('done', 'skipped'))",
  all: "(b.state <> 'cancelled')",
} as const;

/** What is to be done the first due first, what is over the newest first. */
export async function listTasks(db: Reader, query: QueryOf<'tasks'>, today: string) {
  const isOverList = query.show === 'over';
  const [due, id] = (query.cursor ?? '').split('|');
  const after = isOverList ? '(t.id < $7 AND $6 = $6)' : `(${DUE} > $6 OR (${DUE} = $6 AND t.id > $7))`;
  const records = await db.all<TaskRecord>(
    `${SQL} WHERE ${SHOWN[query.show]} AND $1 = $1 AND ($2 IS NULL OR t.person_id = $2)
       AND ($3 = 0 OR t.person_id IS NULL) AND ($4 IS NULL OR l.build_id = $4)
       AND (l.text LIKE $5 ESCAPE '\\' OR i.name LIKE $5 ESCAPE '\\' OR i.code LIKE $5 ESCAPE '\\' OR b.number LIKE $5 ESCAPE '\\')
       AND ${after}
     ORDER BY ${isOverList ? 't.id DESC' : `${DUE}, t.id`} LIMIT $8`,
    [
      today,
      query.personId ?? null,
      query.unassigned ? 1 : 0,
      query.buildId ?? null,
      containing(query.q ?? ''),
      due ?? '',
      Number(id ?? 0) || (isOverList ? Number.MAX_SAFE_INTEGER : 0),
      query.limit + 1,
    ],
  );
  const shown = page(records, query.limit, (row) => `${row.due ?? row.build_due ?? '9999'}|${row.id}`);
  return { rows: shown.rows.map((record) => toTask(record, today)), next: shown.next };
}

export const taskRecord = (db: Reader, id: number) => db.one<TaskRecord>(`${SQL} WHERE t.id = $1`, [id]);
/** The tasks of a build, in the order of its lines. */
export const tasksOfBuild = (db: Reader, buildId: number) =>
  db.all<TaskRecord>(`${SQL} WHERE l.build_id = $1 ORDER BY l.position`, [buildId]);

/** Everything that is still to be done, of builds that are not over. */
export const openTasks = (db: Reader) => db.all<TaskRecord>(`${SQL} WHERE ${OPEN} ORDER BY l.build_id, l.position`);

const isBuildOpen = ({ build_state }: TaskRecord) => build_state === 'planned' || build_state === 'on-bench';

/** Whether something can still be done about it. */
export const isWorkable = (task: TaskRecord) => !isOver(task.state) && isBuildOpen(task);

export function toTask(record: TaskRecord, today: string): Task {
  const due = record.due ?? record.build_due;
  return {
    id: record.id,
    buildId: record.build_id,
    build: record.number,
    code: record.code,
    product: record.product,
    isOnBench: record.build_state === 'on-bench',
    kind: record.kind,
    text: record.text,
    planned: decimal(scaled(record.basis, record.amount, record.quantity, record.output_quantity)),
    ratePerHour: decimalOrNull(record.rate_per_hour),
    taken: decimal(record.taken),
    booked: decimal(record.kind === 'labour' ? record.used : record.booked_cost),
    price: decimalOrNull(record.price),
    personId: record.person_id,
    person: record.person,
    ownDue: record.due,
    due,
    late: isWorkable(record) && due !== null && due < today,
    state: record.state,
    skippedBecause: record.skipped_because,
    supplierId: record.supplier_id,
    supplier: record.supplier,
    expectedOn: record.expected_on,
    added: record.added_by === null ? null : { by: record.added_by, because: record.added_because ?? '' },
    clocks: JSON.parse(record.clocks),
    version: record.version,
  };
}

/** What was spent on the tasks of a build, by line; those that are as planned are left out. */
export const spentByLine = (tasks: readonly TaskRecord[]): ReadonlyMap<number, Spent<number>> =>
  new Map(
    tasks.flatMap((task) => {
      const spent = spentOn({
        ...task,
        booked: task.kind === 'labour' ? task.used : task.booked_cost,
        added: task.added_by === null ? null : task.amount,
      });
      return spent ? [[task.id, spent] as const] : [];
    }),
  );

/** Gives every line of labour or charge of a build its task. */
export const makeTasks = (tx: Writer, buildId: number) =>
  tx.run(
    `INSERT INTO task (id) SELECT id FROM build_line l WHERE build_id = $1 AND kind IN ('labour', 'charge')
       AND NOT EXISTS (SELECT 1 FROM task WHERE id = l.id)`,
    [buildId],
  );

export const timesOfBuild = async (db: Reader, buildId: number): Promise<TaskTime[]> =>
  (
    await db.all<Row<'task_time'> & { person: string }>(
      `SELECT t.*, p.name AS person FROM task_time t JOIN person p ON p.id = t.person_id
       JOIN build_line l ON l.id = t.task_id WHERE l.build_id = $1 ORDER BY t.day, t.id`,
      [buildId],
    )
  ).map(({ id, task_id, person_id, person, day, minutes, clocked }) => ({
    id,
    taskId: task_id,
    personId: person_id,
    person,
    day,
    minutes: decimal(minutes),
    clocked: clocked === 1,
  }));

/** What somebody worked on a day, on all tasks. */
export const minutesOn = async (db: Reader, personId: number, day: string): Promise<Quantity> =>
  (
    await db.one<{ minutes: Quantity }>(
      'SELECT ifnull(sum(minutes), 0) AS minutes FROM task_time WHERE person_id = $1 AND day = $2',
      [personId, day],
    )
  )?.minutes ?? ZERO;

export async function clockOf(db: Reader, personId: number, now: Date): Promise<Clock | null> {
  const row = await db.one<Row<'clock'> & { text: string; build_id: number; number: string; name: string }>(
    `SELECT c.*, l.text, l.build_id, b.number, i.name FROM clock c JOIN build_line l ON l.id = c.task_id
     JOIN build b ON b.id = l.build_id JOIN item i ON i.id = b.item_id WHERE c.person_id = $1`,
    [personId],
  );
  return row
    ? {
        taskId: row.task_id,
        text: row.text,
        buildId: row.build_id,
        build: row.number,
        product: row.name,
        since: row.started_at,
        isOverNight: dayOf(new Date(row.started_at)) !== dayOf(now),
      }
    : null;
}

/** The place after the last line of a build; what is added stands after what the definition says. */
export const nextPosition = async (db: Reader, buildId: number): Promise<number> =>
  (
    await db.one<{ position: number }>(
      'SELECT max(999, ifnull(max(position), 0)) + 1 AS position FROM build_line WHERE build_id = $1',
      [buildId],
    )
  )?.position ?? 1000;
