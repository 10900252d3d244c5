import type { Task } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { checkMinutes, clockedMinutes } from '@yosegi/core/tasks';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { saveAnew } from '../db/versions.ts';
import { isWorkable, minutesOn, type TaskRecord, taskRecord, tasksOfBuild, toTask } from './sql.ts';

/**
 * Writes down minutes that somebody worked on a task.
 * @throws Refusal `task-over`, `minutes-of-day`, `day-ahead`, `unknown-choice`
 */
export async function addTime(doing: Doing, id: number, input: BodyOf<'addTime'>): Promise<Task> {
  const { tx, person, now } = doing;
  const task = await workable(doing, id);
  const personId = input.personId ?? person.id;
  if (!(await tx.models.person.findByPk(personId))) throw new Refusal('unknown-choice', {}, 'personId');
  if (input.day > dayOf(now)) throw new Refusal('day-ahead', {}, 'day');
  await keepTime(doing, task, { personId, day: input.day, minutes: input.minutes, clocked: 0 });
  return after(doing, id);
}

interface Time {
  readonly personId: number;
  readonly day: string;
  readonly minutes: Quantity;
  readonly clocked: 0 | 1;
}

async function keepTime(doing: Doing, task: TaskRecord, { personId, day, minutes, clocked }: Time): Promise<void> {
  const { tx, now } = doing;
  if (task.kind !== 'labour')
    throw new Refusal('invalid', { message: 'A charge takes no minutes. Enter its cost instead.' }, 'minutes');
  checkMinutes(minutes, await minutesOn(tx, personId, day), 'minutes');
  await tx.models.task_time.create({
    task_id: task.id,
    person_id: personId,
    day,
    minutes,
    clocked,
    made_at: now.toISOString(),
  });
  if (task.state === 'open')
    await saveAnew<'task'>(required(await tx.models.task.findByPk(task.id)), { state: 'doing' });
  doing.changed('builds');
}

/** @throws Refusal `minutes-booked` where a finish has booked more than would be left */
export async function removeTime(doing: Doing, id: number): Promise<{ id: number }> {
  const { tx } = doing;
  const time = required(await tx.models.task_time.findByPk(id));
  const task = found(await taskRecord(tx, time.task_id));
  if (task.taken - time.minutes < task.used) throw new Refusal('minutes-booked');
  await time.destroy();
  doing.changed('builds');
  return { id };
}

/** Starts one's clock on a task. What it ran on before is stopped and kept. @throws as {@link stopClock} for that */
export async function startClock(doing: Doing, id: number): Promise<Task> {
  const { tx, person, now } = doing;
  const task = await workable(doing, id);
  if (task.kind !== 'labour')
    throw new Refusal('invalid', { message: 'A charge takes no minutes. Enter its cost instead.' });
  const running = await tx.models.clock.findByPk(person.id);
  if (running?.task_id === id) return after(doing, id);
  if (running) await stop(doing, undefined);
  await tx.models.clock.create({ person_id: person.id, task_id: id, started_at: now.toISOString() });
  if (task.state === 'open') await saveAnew<'task'>(required(await tx.models.task.findByPk(id)), { state: 'doing' });
  doing.changed('builds');
  return after(doing, id);
}

/**
 * Stops one's clock and keeps its minutes.
 * @throws Refusal `no-clock`, `clock-over-night` where it began on another day and nobody said how long it was
 */
export async function stopClock(doing: Doing, { minutes, done }: BodyOf<'stopClock'>): Promise<Task> {
  const { tx, now, person } = doing;
  const id = await stop(doing, minutes);
  const task = found(await taskRecord(tx, id));
  if (done && isWorkable(task))
    await saveAnew<'task'>(required(await tx.models.task.findByPk(id)), {
      state: 'done',
      done_at: now.toISOString(),
      done_by: person.id,
    });
  return after(doing, id);
}

async function stop(doing: Doing, said: Quantity | undefined): Promise<number> {
  const { tx, person, now } = doing;
  const running = await tx.models.clock.findByPk(person.id);
  if (!running) throw new Refusal('no-clock');
  const from = new Date(running.started_at);
  const day = dayOf(from);
  if (said === undefined && day !== dayOf(now)) throw new Refusal('clock-over-night', { since: day }, 'minutes');
  const minutes = said ?? clockedMinutes(from, now);
  const task = found(await taskRecord(tx, running.task_id));
  await running.destroy();
  if (minutes > ZERO) await keepTime(doing, task, { personId: person.id, day, minutes, clocked: 1 });
  doing.changed('builds');
  return task.id;
}

async function workable({ tx }: Doing, id: number): Promise<TaskRecord> {
  const task = found(await taskRecord(tx, id));
  if (!isWorkable(task)) throw new Refusal('task-over');
  return task;
}

const after = async ({ tx, now }: Doing, id: number): Promise<Task> =>
  toTask(found(await taskRecord(tx, id)), dayOf(now));

/**
 * Closes the tasks of a build that is over: what is still open is done, clocks on it stop without a minute.
 * @param isForced whether open tasks keep a build from being finished
 * @throws Refusal `tasks-open` naming them
 */
export async function endTasks({ tx, now, person }: Doing, buildId: number, isForced: boolean): Promise<void> {
  const open = (await tasksOfBuild(tx, buildId)).filter(({ state }) => state === 'open' || state === 'doing');
  if (isForced && open.length > 0) throw new Refusal('tasks-open', { tasks: open.map(({ text }) => text) });
  for (const { id } of open) {
    await tx.models.clock.destroy({ where: { task_id: id } });
    const ended = { state: 'done' as const, done_at: now.toISOString(), done_by: person.id };
    await saveAnew<'task'>(required(await tx.models.task.findByPk(id)), ended);
  }
}

/** Clocks on a build that is cancelled stop without a minute. */
export async function stopClocks(tx: Writer, buildId: number): Promise<void> {
  const ids = (await tasksOfBuild(tx, buildId)).map(({ id }) => id);
  await tx.models.clock.destroy({ where: { task_id: ids } });
}
