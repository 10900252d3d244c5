import { taskStates } from '@yosegi/core/tasks';
import { z } from 'zod';
import { FromZero, Positive, Price } from './amounts.ts';
import { Day, Decimal, Id, IdParams, PageQuery, pageOf, route, Version } from './common.ts';

export const TaskState = z.enum(taskStates);

/** Something to be done on a build: a line of labour or of a charge. */
export const Task = z.object({
  /** Of the build's line. */
  id: Id,
  buildId: Id,
  build: z.string(),
  /** What is built. */
  code: z.string(),
  product: z.string(),
  isOnBench: z.boolean(),
  kind: z.enum(['labour', 'charge']),
  text: z.string(),
  /** Minutes, or money, for the whole build. */
  planned: Decimal,
  ratePerHour: Decimal.nullable(),
  /** Minutes so far. */
  taken: Decimal,
  /** Of it, or of its cost, booked by what was finished. */
  booked: Decimal,
  /** Of a charge, as agreed or invoiced; null for as planned. */
  price: Decimal.nullable(),
  personId: Id.nullable(),
  person: z.string().nullable(),
  /** A day of its own; null for its build's. */
  ownDue: z.string().nullable(),
  due: z.string().nullable(),
  late: z.boolean(),
  state: TaskState,
  skippedBecause: z.string().nullable(),
  supplierId: Id.nullable(),
  supplier: z.string().nullable(),
  expectedOn: z.string().nullable(),
  /** Added on the bench: by whom and why; null for what the definition says. */
  added: z.object({ by: z.string(), because: z.string() }).nullable(),
  /** Whose clocks run on it. */
  clocks: z.array(z.object({ personId: Id, person: z.string(), since: z.string() })),
  version: Version,
});
export type Task = z.infer<typeof Task>;

/** Minutes that somebody worked on a task. */
export const TaskTime = z.object({
  id: Id,
  taskId: Id,
  personId: Id,
  person: z.string(),
  day: z.string(),
  minutes: Decimal,
  clocked: z.boolean(),
});
export type TaskTime = z.infer<typeof TaskTime>;

/** A clock that runs. */
export const Clock = z.object({
  taskId: Id,
  text: z.string(),
  buildId: Id,
  build: z.string(),
  product: z.string(),
  since: z.string(),
  /** It began on another day: how long it really was is asked. */
  isOverNight: z.boolean(),
});
export type Clock = z.infer<typeof Clock>;

const Because = z.string().trim().min(1).max(200);
const WORK = { tag: 'Tasks', right: 'build' } as const;

/** What is changed of a task; what is left out stays. */
const TaskChange = z
  .object({
    personId: Id.nullable(),
    due: Day.nullable(),
    state: TaskState,
    /** Why it is skipped. */
    because: Because,
    price: Price.nullable(),
    supplierId: Id.nullable(),
    expectedOn: Day.nullable(),
  })
  .partial();

export const taskRoutes = {
  tasks: route({
    method: 'GET',
    path: '/api/tasks',
    tag: 'Tasks',
    right: 'look',
    summary: 'Tasks of builds that are not over, the first due first; or those that are done',
    query: PageQuery.extend({
      show: z.enum(['open', 'doing', 'late', 'over', 'all']).default('open'),
      personId: z.coerce.number().int().positive().optional(),
      /** Nobody’s. */
      unassigned: z.stringbool().default(false),
      buildId: z.coerce.number().int().positive().optional(),
      q: z.string().max(100).optional(),
    }),
    response: pageOf(Task),
  }),
  changeTasks: route({
    ...WORK,
    method: 'POST',
    path: '/api/tasks/change',
    summary: 'Change one task or many at once: person, day, status, supplier and price',
    body: z.object({
      tasks: z
        .array(z.object({ id: Id, version: Version }))
        .min(1)
        .max(200),
      change: TaskChange,
    }),
    response: z.object({ tasks: z.array(Task) }),
  }),
  addTask: route({
    ...WORK,
    method: 'POST',
    path: '/api/builds/:id/tasks',
    summary: 'Add a task to a build while it is on the bench, or planned',
    params: IdParams,
    body: z.object({
      kind: z.enum(['labour', 'charge']),
      text: z.string().trim().min(1).max(200),
      /** Minutes, or money, for the whole build. */
      amount: FromZero,
      /** Of labour, by the hour. */
      rateId: Id.nullable().default(null),
      because: Because,
      personId: Id.nullable().default(null),
    }),
    response: Task,
  }),
  taskTimes: route({
    method: 'GET',
    path: '/api/builds/:id/times',
    tag: 'Tasks',
    right: 'look',
    summary: 'Minutes that were worked on the tasks of a build',
    params: IdParams,
    response: z.array(TaskTime),
  }),
  addTime: route({
    ...WORK,
    method: 'POST',
    path: '/api/tasks/:id/times',
    summary: 'Enter minutes worked on a task, on a day',
    params: IdParams,
    body: z.object({ minutes: Positive, day: Day, personId: Id.optional() }),
    response: Task,
  }),
  removeTime: route({
    ...WORK,
    method: 'DELETE',
    path: '/api/task-times/:id',
    summary: 'Remove minutes that are not booked yet',
    params: IdParams,
    response: z.object({ id: Id }),
  }),
  clock: route({
    method: 'GET',
    path: '/api/clock',
    tag: 'Tasks',
    right: 'look',
    summary: 'The clock of the person signed in; none if it is not running',
    response: z.object({ clock: Clock.nullable() }),
  }),
  startClock: route({
    ...WORK,
    method: 'POST',
    path: '/api/tasks/:id/clock',
    summary: 'Start the clock on a task; a clock running on another task is stopped and saved',
    params: IdParams,
    body: z.object({}),
    response: Task,
  }),
  stopClock: route({
    ...WORK,
    method: 'POST',
    path: '/api/clock/stop',
    summary: 'Stop the clock; one that ran overnight asks for the actual minutes',
    body: z.object({
      /** How long it really was; as the clock says where it is left out. Zero keeps nothing. */
      minutes: FromZero.optional(),
      /** It is done with that. */
      done: z.boolean().default(false),
    }),
    response: Task,
  }),
};
